import { copyFileSync, existsSync, mkdirSync, mkdtempSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { openDatabase, type Database } from '@/db/client';

const shared = globalThis as { unisoldaDatabase?: Promise<Database> };

/** Where the demo world lies that all test files of a run copy; `scripts/jest-run.mjs` makes the folder. */
const RUN = process.env.UNISOLDA_TEST_RUN!;
const WORLD = path.join(RUN, 'demo.db');
/** How often whoever waits for the world looks whether it is there, ms. */
const LOOK_AGAIN_MS = 50;

/** Loads the demo world once for a run: the first test file that needs it does, the others wait. */
async function demoWorld(): Promise<string> {
  const isFirst = mkdirSync(path.join(RUN, 'loading'), { recursive: true }) !== undefined;
  if (isFirst) {
    const made = path.join(RUN, 'loading', 'demo.db');
    const { loadDemo } = await import('../../../demo/world');
    const db = await openDatabase(`file:${made}`, { begin: true });
    await db.transaction((tx) => loadDemo(tx));
    await db.run(sql`PRAGMA wal_checkpoint(TRUNCATE)`);
    copyFileSync(made, `${WORLD}.part`);
    renameSync(`${WORLD}.part`, WORLD);
  }
  while (!existsSync(WORLD)) await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN_MS));
  return WORLD;
}

/** The application's database for one test: a fresh file with the demo world; removed by the returned function. */
export async function demoBench(): Promise<{ db: Database; remove: () => void }> {
  const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-features-'));
  const file = path.join(folder, 'bench.db');
  copyFileSync(await demoWorld(), file);
  const db = await openDatabase(`file:${file}`);
  shared.unisoldaDatabase = Promise.resolve(db);
  return {
    db,
    remove: () => {
      shared.unisoldaDatabase = undefined;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
