import 'server-only';
import type { GoalSets, Station } from '@/core/heat';
import { database } from '@/db/client';
import { findGoals } from '@/db/knowledge';
import { listStations } from '@/db/library';

export const loadStations = async (): Promise<Station[]> => listStations(await database());

/** What this bench asks of heat plans; the usual sets where it has settled nothing. */
export const loadGoals = async (): Promise<GoalSets> => findGoals(await database());
