import { copyFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { loadDemo } from '../../../demo/world';
import { openDatabase, type Database } from '@/db/client';

const shared = globalThis as { unisoldaDatabase?: Promise<Database> };

/** The demo world on disk, loaded once for a test file: loading it takes seconds. */
let loaded: string | undefined;

async function demoFile(folder: string): Promise<string> {
  const file = path.join(folder, 'bench.db');
  if (loaded) {
    copyFileSync(loaded, file);
    return file;
  }
  const first = mkdtempSync(path.join(tmpdir(), 'unisolda-demo-'));
  process.on('exit', () => rmSync(first, { recursive: true, force: true }));
  const template = path.join(first, 'bench.db');
  const db = await openDatabase(`file:${template}`, { begin: true });
  await db.transaction((tx) => loadDemo(tx));
  await db.run(sql`PRAGMA wal_checkpoint(TRUNCATE)`);
  loaded = template;
  return demoFile(folder);
}

/** The application's database for one test: a fresh file with the demo world; removed by the returned function. */
export async function demoBench(): Promise<{ db: Database; remove: () => void }> {
  const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-features-'));
  const db = await openDatabase(`file:${await demoFile(folder)}`);
  shared.unisoldaDatabase = Promise.resolve(db);
  return {
    db,
    remove: () => {
      shared.unisoldaDatabase = undefined;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
