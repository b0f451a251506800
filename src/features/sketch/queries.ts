import 'server-only';
import * as sketch from '@/application/library/sketch';
import { database } from '@/db/client';
import { listReferences } from '@/db/knowledge';

/** A board with its newest revision and its photographs, as the editor opens it. */
export const loadSketch = async (id: string) => sketch.loadSketch(await database(), id);

/** The same with the readings of good boards. */
export async function loadGoodWalk(id: string) {
  const [opened, references] = await Promise.all([loadSketch(id), listReferences(await database(), id)]);
  return { ...opened, references };
}
