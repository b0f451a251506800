import 'server-only';
import type { CalibrationRecord } from '@/core/calibration';
import type { Station } from '@/core/heat';
import { database } from '@/db/client';
import { findStation, listCalibrations, listStations } from '@/db/library';

export interface KnownStation {
  readonly station: Station;
  readonly history: readonly CalibrationRecord[];
}

export async function loadStation(id: string): Promise<KnownStation | undefined> {
  const db = await database();
  const station = await findStation(db, id);
  return station && { station, history: await listCalibrations(db, id) };
}

export async function loadAllStations(): Promise<KnownStation[]> {
  const db = await database();
  return Promise.all(
    (await listStations(db)).map(async (station) => ({ station, history: await listCalibrations(db, station.id) })),
  );
}
