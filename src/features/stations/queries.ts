import 'server-only';
import * as stations from '@/application/library/stations';
import { database } from '@/db/client';
import { isDemoWorld } from '@/db/knowledge';

export type { KnownStation } from '@/application/library/stations';

export const loadStation = async (id: string) => stations.loadStation(await database(), id);
export const loadAllStations = async () => stations.loadAllStations(await database());

/** Whether this is the demo world: only there is a station simulated. */
export const isDemo = async (): Promise<boolean> => isDemoWorld(await database());
