import 'server-only';
import type { GoalSets, Station } from '@/core/heat';
import type { SitePractice } from '@/core/joints';
import { database } from '@/db/client';
import { imageBytes } from '@/db/images';
import { findGoals, findSitePractice } from '@/db/knowledge';
import { listStations } from '@/db/library';
import { pictureType } from '@/core/picture';

/** What the Balls stage knows of the bench. */
export interface SiteBench {
  readonly practice: SitePractice;
  readonly stations: readonly Station[];
  readonly goals: GoalSets;
}

export async function loadSiteBench(): Promise<SiteBench> {
  const db = await database();
  const [practice, stations, goals] = await Promise.all([findSitePractice(db), listStations(db), findGoals(db)]);
  return { practice, stations, goals };
}

/** A kept picture with its type; undefined for anything else. */
export async function loadPicture(
  sha256: string,
): Promise<{ bytes: Uint8Array<ArrayBuffer>; type: string } | undefined> {
  const bytes = await imageBytes(await database(), sha256);
  const type = bytes && pictureType(bytes);
  return bytes && type ? { bytes: Uint8Array.from(bytes), type } : undefined;
}
