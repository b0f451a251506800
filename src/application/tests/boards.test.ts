import { demoBoard, demoPartTypes } from '../../../demo/files';
import { sql } from 'drizzle-orm';
import { readBoard } from '../../db/boards';
import type { Database } from '../../db/client';
import { findJob, openJob } from '../../db/jobs';
import { listReferences } from '../../db/knowledge';
import { savePartType } from '../../db/parts';
import { temporaryDatabase } from '../../db/tests/temporary';
import { enterLine } from '../jobs/execute';
import { loadBench, loadBoardChoices, loadJobPage, loadSoakClocks } from '../jobs/job-lists';
import { loadJob } from '../jobs/load-job';
import {
  addBoard,
  addReferences,
  copyBoard,
  dropReferenceImport,
  keepGoodReading,
  loadRevisionChoice,
  moveJobToFile,
  setBoardRetired,
} from '../library/boards';
import { loadUnreadable } from '../library/unreadable';
import { loadShelfFacts, enterStockLine } from '../stock/stock';

let db: Database;
let remove: () => void;
beforeEach(async () => ({ db, remove } = await temporaryDatabase()));
afterEach(() => remove());

const AT = '2026-11-24T08:00:00.000Z';
const heron = demoBoard('heronlog-4-c');
/** The same board from somebody who calls its test points and one of its nets otherwise. */
const renamed = (): string =>
  JSON.stringify(heron).replaceAll('"TP7"', '"TP70"').replaceAll('"VPACK"', '"VBATT"').replaceAll('"AON33"', '"AON3"');

describe('a known-good board', () => {
  const read = (value: number, key: string, more: object = {}) =>
    keepGoodReading(db, { boardId: heron.id, point: 'ohm:VIN', value, source: 'good board 1', ...more }, key);

  test('is kept reading by reading, corrected where a point is read again, and taken back as one', async () => {
    expect(await read(12_000, 'k1')).toEqual(
      expect.objectContaining({ saved: true, message: 'Kept of good board 1.' }),
    );
    await read(340, 'k2', { point: 'ohm:AON33' });
    await read(11_900, 'k3');
    await read(12_100, 'k4', { source: 'good board 2' });
    const values = async () => (await listReferences(db, heron.id)).map((r) => [r.point, r.value, r.source]);
    expect(await values()).toEqual([
      ['ohm:VIN', 11_900, 'good board 1'],
      ['ohm:AON33', 340, 'good board 1'],
      ['ohm:VIN', 12_100, 'good board 2'],
    ]);
    // The same key once more keeps nothing again; another reading under it is refused.
    expect(await read(12_000, 'k1')).toMatchObject({ saved: true });
    expect(await read(9, 'k3')).toMatchObject({ saved: false });
    expect((await values())[0][1]).toBe(11_900);
    expect(await dropReferenceImport(db, heron.id, 'good board 1')).toMatchObject({ saved: true });
    expect(await values()).toEqual([['ohm:VIN', 12_100, 'good board 2']]);
  });

  test('a point that the board does not have, or a board that is not there, changes nothing', async () => {
    expect(await read(1, 'k1', { point: 'ohm:NOWHERE' })).toMatchObject({ saved: false, code: 'badInput' });
    expect(await read(1, 'k2', { point: 'anything' })).toMatchObject({ saved: false, code: 'badInput' });
    expect(await read(1, 'k3', { boardId: 'no-such-board' })).toMatchObject({ saved: false, code: 'notFound' });
    expect(await listReferences(db, heron.id)).toEqual([]);
  });
});

describe('revisions of a board’s file', () => {
  test('a job stays on the file it was opened with; a new job is on the new one', async () => {
    const before = await openJob(db, 'heronlog-4-c', AT);
    await enterLine(db, before, 'tp7 1.62 ohm', 'ohm', 'k1');
    expect(await addBoard(db, renamed())).toMatchObject({ saved: true, message: expect.stringContaining('file 2') });
    const job = await loadJob(db, before);
    expect(job.ok && job.value.board.nets.VPACK).toBeDefined();
    const after = await openJob(db, 'heronlog-4-c', AT);
    expect((await findJob(db, after))!.boardRevision).toBe(2);
    // The same file once more makes no revision.
    await addBoard(db, renamed());
    expect(await readBoard(db, 'heronlog-4-c', 3)).toMatchObject({ ok: false });
  });

  test('moving a job says first what does not fit, and moves only where that is agreed to', async () => {
    const number = await openJob(db, 'heronlog-4-c', AT);
    await enterLine(db, number, 'tp7 1.62 ohm', 'ohm', 'k1');
    await enterLine(db, number, 'off u4', 'ohm', 'k2');
    await addBoard(db, renamed());
    const choice = (await loadRevisionChoice(db, number))!;
    expect(choice).toMatchObject({ on: 1, newest: 2, misfits: [expect.stringMatching(/^Entry 1, .*Expected a net/)] });
    expect(await moveJobToFile(db, number, { revision: 2 })).toMatchObject({ saved: false, problems: choice.misfits });
    expect((await findJob(db, number))!.boardRevision).toBe(1);
    expect(await moveJobToFile(db, number, { revision: 2 }, { acceptMisfits: true })).toMatchObject({ saved: true });
    expect((await loadJob(db, number)).ok).toBe(true);
    expect(await loadRevisionChoice(db, number)).toBeUndefined();
    expect(await moveJobToFile(db, number, { revision: 7 })).toMatchObject({ saved: false, code: 'notFound' });
  });

  test('a board is copied under an id of its own, and retired: new jobs are not opened on it', async () => {
    expect(await copyBoard(db, 'heronlog-4-c', 'heronlog-4-e')).toMatchObject({ saved: true });
    expect(await copyBoard(db, 'heronlog-4-c', 'heronlog-4-e')).toMatchObject({ saved: false });
    expect(await copyBoard(db, 'heronlog-4-c', 'Not An Id')).toMatchObject({ saved: false, code: 'badInput' });
    await setBoardRetired(db, 'heronlog-4-c', true);
    const ids = async () => (await loadBoardChoices(db)).boards.map((b) => b.id);
    expect(await ids()).toEqual(['heronlog-4-e']);
    await setBoardRetired(db, 'heronlog-4-c', false);
    expect(await ids()).toEqual(['heronlog-4-c', 'heronlog-4-e']);
  });
});

describe('reference readings', () => {
  const csv = (...rows: string[]) => ['board,point,value,source', ...rows.map((r) => `heronlog-4-c,${r}`)].join('\n');

  test('are checked against the board: a net that it does not have is named with its line, and nothing is kept', async () => {
    const answer = await addReferences(db, 'heronlog-4-c', csv('ohm:AON33,2200,good 1', 'ohm:NOWHERE,3,good 1'));
    expect(answer).toMatchObject({ saved: false, code: 'badInput' });
    expect(answer.message).toMatch(/^line 3: Expected a net of this board; got "NOWHERE"/);
    expect(await listReferences(db, 'heronlog-4-c')).toEqual([]);
  });

  test('an import is taken back as one, and no other with it', async () => {
    await addReferences(db, 'heronlog-4-c', csv('ohm:AON33,2200,good 1', 'ohm:VPACK,5100,good 1'));
    await addReferences(db, 'heronlog-4-c', csv('ohm:AON33,2300,good 2'));
    const { listImports } = await import('../../db/knowledge');
    const first = (await listImports(db, 'heronlog-4-c')).find((i) => i.readings === 2)!;
    expect(await dropReferenceImport(db, 'heronlog-4-c', first.key)).toMatchObject({ saved: true });
    expect((await listReferences(db, 'heronlog-4-c')).map((r) => r.source)).toEqual(['good 2']);
    expect(await dropReferenceImport(db, 'heronlog-4-c', first.key)).toMatchObject({ saved: false, code: 'notFound' });
  });
});

describe('a row that cannot be read', () => {
  test.each([
    ['boards', sql`update board_revisions set json = '{"format":' where board_id = 'heronlog-4-d'`],
    ['stations', sql`insert into stations (id, json) values ('torn', '{')`],
    ['image_families', sql`insert into image_families (id, json) values ('torn', '[]')`],
    ['part_types', sql`insert into part_types (id, json) values ('torn', '{}')`],
    ['part_families', sql`insert into part_families (id, json) values ('torn', 'x')`],
    [
      'evidence',
      sql`insert into evidence (key, type_id, board_id, json, added_at) values ('t', 'a', 'b', '{}', 'now')`,
    ],
    ['stock_events', sql`insert into stock_events (key, at, bench, actor, body) values ('t', 'now', 'b', 'a', '{')`],
    ['settings', sql`insert into settings (name, json) values ('practice', '{')`],
  ])('of %s is marked, and every list goes on', async (table, tear) => {
    await copyBoard(db, 'heronlog-4-c', 'heronlog-4-d');
    const number = await openJob(db, 'heronlog-4-d', AT);
    await openJob(db, 'heronlog-4-c', AT);
    await db.run(tear);
    expect((await loadUnreadable(db)).map((r) => r.table)).toEqual([table]);
    expect((await loadBench(db)).open).toHaveLength(2);
    expect((await loadJobPage(db)).total).toBe(2);
    expect((await loadBoardChoices(db)).boards.length).toBeGreaterThan(0);
    expect((await loadShelfFacts(db)).state.lots.size).toBe(0);
    const job = await loadJob(db, number);
    expect(job.ok).toBe(table !== 'boards');
  });

  test('of what is kept to save time is computed anew, or left out', async () => {
    const number = await openJob(db, 'heronlog-4-c', AT);
    await enterLine(db, number, 'soak 30', 'ohm', 'soak');
    expect(await loadSoakClocks(db)).toMatchObject([{ job: number, minutes: 30 }]);
    const before = (await loadBench(db)).open;
    await db.run(sql`update job_summaries set step = '{', soak = '{'`);
    await db.run(sql`update entries set answer = '{'`);
    expect((await loadBench(db)).open).toEqual(before);
    expect(await loadSoakClocks(db)).toEqual([]);
    expect(await enterLine(db, number, 'soak 30', 'ohm', 'soak')).toMatchObject({ saved: true });
  });

  test('of a job’s board marks that job in the lists, with the sentence', async () => {
    await copyBoard(db, 'heronlog-4-c', 'heronlog-4-d');
    const number = await openJob(db, 'heronlog-4-d', AT);
    await db.run(sql`update board_revisions set json = 'torn' where board_id = 'heronlog-4-d'`);
    const row = (await loadBench(db)).open.find((r) => r.number === number)!;
    expect(row.problem).toMatch(/^The file of board "heronlog-4-d" cannot be read/);
    expect((await loadJobPage(db)).jobs.find((j) => j.number === number)!.problem).toBeDefined();
    expect(await enterLine(db, number, 'tp7 1.62 ohm', 'ohm', 'k')).toMatchObject({ saved: false });
  });

  test('of the stock takes with it only what cannot have happened without it', async () => {
    for (const type of demoPartTypes()) await savePartType(db, type);
    for (const [i, line] of ['lot heron-pd-r2 10 at 8.5', 'lot heron-pd-r2 5 at 9', 'take l-1 for 31'].entries())
      expect(await enterStockLine(db, line, `s${i}`)).toMatchObject({ saved: true });
    const rows = await db.all<{ seq: number }>(sql`select seq from stock_events order by seq`);
    await db.run(sql`update stock_events set body = '{' where seq = ${rows[0].seq}`);
    const { state, unreadable } = await loadShelfFacts(db);
    expect([...state.lots.keys()]).toEqual(['L-2']);
    expect(unreadable[0]).toMatchObject({ table: 'stock_events', id: String(rows[0].seq) });
    // Taking from the lot that is not there any more rests on it, and so does the move of what was taken.
    expect(unreadable.slice(1).every((r) => r.problem.startsWith('It rests on a row before it'))).toBe(true);
    expect(unreadable).toHaveLength(rows.length - 1);
  });
});
