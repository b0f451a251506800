import { chmodSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Journal, entryOf, journalFolder } from '../journal';

let folder: string;
beforeEach(() => (folder = mkdtempSync(path.join(tmpdir(), 'unisolda-journal-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const AT = new Date('2026-11-30T08:00:00.000Z');

/** Lines are written behind the caller's back: looked for until they are there. */
async function linesOf(count: number): Promise<Record<string, unknown>[]> {
  for (let k = 0; k < 100; k++) {
    const files = readdirSync(folder).filter((n) => n.endsWith('.jsonl'));
    const lines = files.flatMap((n) => readFileSync(path.join(folder, n), 'utf8').split('\n')).filter(Boolean);
    if (lines.length >= count) return lines.map((l) => JSON.parse(l) as Record<string, unknown>);
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  throw new Error(`fewer than ${count} lines`);
}

test('an error is told by its kind and code; what is in quotation marks may be an owner’s, and is left out', () => {
  const full = Object.assign(new Error('no room for "Mrs. Brown’s photographs"\nand more'), { code: 'SQLITE_FULL' });
  expect(entryOf('keeping an entry', full, AT)).toEqual({
    ...{ at: AT.toISOString(), doing: 'keeping an entry' },
    ...{ error: 'Error SQLITE_FULL', message: 'no room for …' },
  });
  expect(entryOf('x', 'thrown as text', AT)).toMatchObject({ error: 'string', message: 'thrown as text' });
  expect(entryOf('x', new Error('y'.repeat(5000)), AT).message).toHaveLength(300);
});

test('every line is JSON with its time, in files that only their owner reads', async () => {
  const journal = new Journal(folder);
  journal.note('started');
  journal.problem('copying', new RangeError('the folder is gone'));
  const [first, second] = await linesOf(2);
  expect(first).toMatchObject({ level: 30, doing: 'started' });
  expect(second).toMatchObject({ level: 50, doing: 'copying', error: 'RangeError', message: 'the folder is gone' });
  expect(Number.isNaN(Date.parse(String(second.time)))).toBe(false);
  const [file] = readdirSync(folder).filter((n) => n.endsWith('.jsonl'));
  expect(statSync(path.join(folder, file)).mode & 0o077).toBe(0);
});

test('the newest dozen stands first for the lead', () => {
  const journal = new Journal(undefined);
  for (let k = 0; k < 20; k++) journal.problem(`try ${k}`, new Error('no'));
  expect(
    journal
      .last()
      .map((e) => e.doing)
      .slice(0, 2),
  ).toEqual(['try 19', 'try 18']);
  expect(journal.last()).toHaveLength(12);
});

test('a place that takes no files keeps nobody from working', async () => {
  const blocked = path.join(folder, 'a-file');
  writeFileSync(blocked, '');
  chmodSync(blocked, 0o400);
  const journal = new Journal(path.join(blocked, 'journal'));
  journal.problem('copying', new Error('no'));
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(journal.last()).toHaveLength(1);
});

test('the journal lies beside the database file, and nowhere for one in memory or on another machine', () => {
  expect(journalFolder('file:/shop/data/bench.db')).toBe('/shop/data/journal');
  expect(journalFolder('file::memory:')).toBeUndefined();
  expect(journalFolder('libsql://shop.example')).toBeUndefined();
});
