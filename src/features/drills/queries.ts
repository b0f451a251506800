import 'server-only';
import * as drills from '@/application/drills/drills';
import { database } from '@/db/client';

export type { DrillList, DrillView } from '@/application/drills/drills';

export const loadDrills = async () => drills.loadDrills(await database());

export const loadDrill = async (id: number) =>
  Number.isInteger(id) ? drills.loadDrill(await database(), id) : undefined;
