import { asc, eq, max } from 'drizzle-orm';
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
  return rows.map(({ at, json }) => ({ ...recordOf(json), at }));
}

function recordOf(json: string): Omit<CalibrationRecord, 'at'> {
  const { flowLpm, trials, calibration } = JSON.parse(json) as Omit<CalibrationRecord, 'at'>;
  return { flowLpm, trials, calibration };
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
      .values({ key, stationId, at, json: JSON.stringify({ ...record, before }) })
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

/** What a station had before a calibration, of what the calibration changed: anything else was set by hand. */
function changedBy(before: Station, record: Omit<CalibrationRecord, 'at'>): Partial<Station> {
  const after: Partial<Record<string, unknown>> = { ...calibrated(before, record) };
  return Object.fromEntries(
    Object.entries(before).filter(([name, value]) => JSON.stringify(value) !== JSON.stringify(after[name])),
  );
}

/**
 * Takes a calibration back: the station has the figures that it had before. One that others were built on stays, and
 * `later` says so; one that is not there is `none`.
 */
export async function dropCalibration(db: Database, key: string): Promise<'dropped' | 'later' | 'none'> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(calibrations).where(eq(calibrations.key, key));
    if (!row) return 'none';
    const { stationId } = row;
    const [last] = await tx
      .select({ id: max(calibrations.id) })
      .from(calibrations)
      .where(eq(calibrations.stationId, stationId));
    const { before } = JSON.parse(row.json) as { before?: Station };
    if (last.id !== row.id || !before) return 'later';
    const [station] = await tx.select().from(stations).where(eq(stations.id, stationId));
    const now = JSON.parse(station.json) as Station;
    await tx
      .update(stations)
      .set({ json: JSON.stringify({ ...now, ...changedBy(before, recordOf(row.json)) }) })
      .where(eq(stations.id, stationId));
    await tx.delete(calibrations).where(eq(calibrations.id, row.id));
    return 'dropped';
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
