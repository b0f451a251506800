import 'server-only';
import * as stations from '@/application/library/stations';
import { database } from '@/db/client';

export type { KnownStation } from '@/application/library/stations';

export const loadStation = async (id: string) => stations.loadStation(await database(), id);
export const loadAllStations = async () => stations.loadAllStations(await database());
