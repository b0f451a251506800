import 'server-only';
import type { Station } from '@/core/heat';
import { database } from '@/db/client';
import { listStations } from '@/db/library';

export const loadStations = async (): Promise<Station[]> => listStations(await database());
