import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { demoBoard } from '../../../demo/files';
import { saveBoard } from '../boards';
import { openDatabase, type Database } from '../client';

/** A fresh database in a file of its own, with one demo board; removed by the returned function. */
export async function temporaryDatabase(): Promise<{ db: Database; url: string; remove: () => void }> {
  const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-'));
  const url = `file:${path.join(folder, 'test.db')}`;
  const db = await openDatabase(url, { begin: true });
  await saveBoard(db, demoBoard('heronlog-4-c'), '2026-11-02T08:00:00.000Z');
  return { db, url, remove: () => rmSync(folder, { recursive: true, force: true }) };
}
