import { eq } from 'drizzle-orm';
import { stationSchema, type Station } from '../core/heat';
import { imageFamilySchema, type ImageFamily } from '../core/image';
import type { Database } from './client';
import { imageFamilies, stations } from './schema';

export async function listStations(db: Database): Promise<Station[]> {
  const rows = await db.select().from(stations).orderBy(stations.id);
  return rows.map((row) => stationSchema.parse(JSON.parse(row.json)));
}

export async function saveStation(db: Database, station: Station): Promise<void> {
  const json = JSON.stringify(station);
  await db.insert(stations).values({ id: station.id, json }).onConflictDoUpdate({ target: stations.id, set: { json } });
}

export async function findImageFamily(db: Database, id: string): Promise<ImageFamily | undefined> {
  const [row] = await db.select().from(imageFamilies).where(eq(imageFamilies.id, id));
  return row && imageFamilySchema.parse(JSON.parse(row.json));
}

export async function saveImageFamily(db: Database, family: ImageFamily): Promise<void> {
  const json = JSON.stringify(family);
  await db
    .insert(imageFamilies)
    .values({ id: family.id, json })
    .onConflictDoUpdate({ target: imageFamilies.id, set: { json } });
}
