import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { loadDemo } from '../../../demo/world';
import { openDatabase, type Database } from '@/db/client';

const shared = globalThis as { unisoldaDatabase?: Promise<Database> };

/** The application's database for one test file: a fresh file with the demo world; removed by the returned function. */
export async function demoBench(): Promise<{ db: Database; remove: () => void }> {
  const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-features-'));
  const db = await openDatabase(`file:${path.join(folder, 'bench.db')}`);
  await loadDemo(db);
  shared.unisoldaDatabase = Promise.resolve(db);
  return {
    db,
    remove: () => {
      shared.unisoldaDatabase = undefined;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
