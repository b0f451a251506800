import { asc, eq } from 'drizzle-orm';
import { calibrated, type CalibrationRecord } from '../core/calibration';
import { stationSchema, type Station } from '../core/heat';
import { imageFamilySchema, type ImageFamily } from '../core/image';
import type { Database } from './client';
import { calibrations, imageFamilies, stations } from './schema';

export async function listStations(db: Database): Promise<Station[]> {
  const rows = await db.select().from(stations).orderBy(stations.id);
  return rows.map((row) => stationSchema.parse(JSON.parse(row.json)));
}

export async function saveStation(db: Database, station: Station): Promise<void> {
  const json = JSON.stringify(station);
  await db.insert(stations).values({ id: station.id, json }).onConflictDoUpdate({ target: stations.id, set: { json } });
}

export async function findStation(db: Database, id: string): Promise<Station | undefined> {
  const [row] = await db.select().from(stations).where(eq(stations.id, id));
  return row && stationSchema.parse(JSON.parse(row.json));
}

/** A station's calibrations, oldest first. */
export async function listCalibrations(db: Database, stationId: string): Promise<CalibrationRecord[]> {
  const rows = await db
    .select()
    .from(calibrations)
    .where(eq(calibrations.stationId, stationId))
    .orderBy(asc(calibrations.id));
  return rows.map(({ at, json }) => ({ ...(JSON.parse(json) as Omit<CalibrationRecord, 'at'>), at }));
}

/** Takes a calibration over: the station's figures become its, and it stands in the history. Once for each key. */
export async function takeCalibration(
  db: Database,
  stationId: string,
  { at, ...record }: CalibrationRecord,
  key: string,
): Promise<Station | undefined> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(stations).where(eq(stations.id, stationId));
    if (!row) return undefined;
    const before = stationSchema.parse(JSON.parse(row.json));
    const added = await tx
      .insert(calibrations)
      .values({ key, stationId, at, json: JSON.stringify(record) })
      .onConflictDoNothing({ target: calibrations.key })
      .returning({ id: calibrations.id });
    if (added.length === 0) return before;
    const station = stationSchema.parse(calibrated(before, record));
    await tx
      .update(stations)
      .set({ json: JSON.stringify(station) })
      .where(eq(stations.id, stationId));
    return station;
  });
}

export async function findImageFamily(db: Database, id: string): Promise<ImageFamily | undefined> {
  const [row] = await db.select().from(imageFamilies).where(eq(imageFamilies.id, id));
  return row && imageFamilySchema.parse(JSON.parse(row.json));
}

export async function listImageFamilies(db: Database): Promise<ImageFamily[]> {
  const rows = await db.select().from(imageFamilies).orderBy(asc(imageFamilies.id));
  return rows.map((row) => imageFamilySchema.parse(JSON.parse(row.json)));
}

export async function saveImageFamily(db: Database, family: ImageFamily): Promise<void> {
  const json = JSON.stringify(family);
  await db
    .insert(imageFamilies)
    .values({ id: family.id, json })
    .onConflictDoUpdate({ target: imageFamilies.id, set: { json } });
}
