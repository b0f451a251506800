import { asc, eq, max } from 'drizzle-orm';
import { calibrated, type CalibrationRecord } from '../core/calibration';
import { stationSchema, type Station } from '../core/heat';
import { imageFamilySchema, type ImageFamily } from '../core/image';
import { readRows, readText, type UnreadableRow } from './readable';
import { calibrations, imageFamilies, stations } from './schema';
import type { Session } from './session';

export async function listStations(db: Session, marks?: UnreadableRow[]): Promise<Station[]> {
  const rows = await db.select().from(stations).orderBy(stations.id);
  return readRows(
    'stations',
    rows,
    (r) => r.id,
    (r) => stationSchema.parse(JSON.parse(r.json)),
    marks,
  );
}

export async function saveStation(db: Session, station: Station): Promise<void> {
  const json = JSON.stringify(station);
  await db.insert(stations).values({ id: station.id, json }).onConflictDoUpdate({ target: stations.id, set: { json } });
}

export async function findStation(db: Session, id: string): Promise<Station | undefined> {
  const [row] = await db.select().from(stations).where(eq(stations.id, id));
  const read = row && readText(() => stationSchema.parse(JSON.parse(row.json)));
  return read?.ok ? read.value : undefined;
}

/** A station's calibrations, oldest first. */
export async function listCalibrations(
  db: Session,
  stationId: string,
  marks?: UnreadableRow[],
): Promise<CalibrationRecord[]> {
  const rows = await db
    .select()
    .from(calibrations)
    .where(eq(calibrations.stationId, stationId))
    .orderBy(asc(calibrations.id));
  return readRows(
    'calibrations',
    rows,
    (r) => r.id,
    ({ at, json }) => ({ ...recordOf(json), at }),
    marks,
  );
}

function recordOf(json: string): Omit<CalibrationRecord, 'at'> {
  const { flowLpm, trials, calibration } = JSON.parse(json) as Omit<CalibrationRecord, 'at'>;
  return { flowLpm, trials, calibration };
}

/** Takes a calibration over: the station's figures become its, and it stands in the history. Once for each key. */
export async function takeCalibration(
  db: Session,
  stationId: string,
  { at, ...record }: CalibrationRecord,
  key: string,
): Promise<Station | undefined> {
  const before = await findStation(db, stationId);
  if (!before) return undefined;
  const added = await db
    .insert(calibrations)
    .values({ key, stationId, at, json: JSON.stringify({ ...record, before }) })
    .onConflictDoNothing({ target: calibrations.key })
    .returning({ id: calibrations.id });
  if (added.length === 0) return before;
  const station = stationSchema.parse(calibrated(before, record));
  await saveStation(db, station);
  return station;
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
export async function dropCalibration(db: Session, key: string): Promise<'dropped' | 'later' | 'none'> {
  const [row] = await db.select().from(calibrations).where(eq(calibrations.key, key));
  if (!row) return 'none';
  const { stationId } = row;
  const [last] = await db
    .select({ id: max(calibrations.id) })
    .from(calibrations)
    .where(eq(calibrations.stationId, stationId));
  const { before } = JSON.parse(row.json) as { before?: Station };
  if (last.id !== row.id || !before) return 'later';
  const [station] = await db.select().from(stations).where(eq(stations.id, stationId));
  const now = JSON.parse(station.json) as Station;
  await db
    .update(stations)
    .set({ json: JSON.stringify({ ...now, ...changedBy(before, recordOf(row.json)) }) })
    .where(eq(stations.id, stationId));
  await db.delete(calibrations).where(eq(calibrations.id, row.id));
  return 'dropped';
}

export async function findImageFamily(db: Session, id: string): Promise<ImageFamily | undefined> {
  const [row] = await db.select().from(imageFamilies).where(eq(imageFamilies.id, id));
  const read = row && readText(() => imageFamilySchema.parse(JSON.parse(row.json)));
  return read?.ok ? read.value : undefined;
}

export async function listImageFamilies(db: Session, marks?: UnreadableRow[]): Promise<ImageFamily[]> {
  const rows = await db.select().from(imageFamilies).orderBy(asc(imageFamilies.id));
  return readRows(
    'image_families',
    rows,
    (r) => r.id,
    (r) => imageFamilySchema.parse(JSON.parse(r.json)),
    marks,
  );
}

export async function saveImageFamily(db: Session, family: ImageFamily): Promise<void> {
  const json = JSON.stringify(family);
  await db
    .insert(imageFamilies)
    .values({ id: family.id, json })
    .onConflictDoUpdate({ target: imageFamilies.id, set: { json } });
}
