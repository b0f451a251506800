import 'server-only';
import { loadPicture as loadKeptPicture } from '@/application/jobs/pictures';
import type { GoalSets, Station } from '@/core/heat';
import type { SitePractice } from '@/core/joints';
import { database } from '@/db/client';
import { findGoals, findSitePractice } from '@/db/knowledge';
import { listStations } from '@/db/library';

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
export const loadPicture = async (sha256: string) => loadKeptPicture(await database(), sha256);
