import { sql } from 'drizzle-orm';
import { demoBoard } from '../../../demo/files';
import { loadYear, pastYear } from '../../../demo/year';
import { NOMINAL_STATION, startingPlan } from '../../core/heat';
import type { EventBody } from '../../core/job';
import { saveBoard } from '../../db/boards';
import { openDatabase, type Database } from '../../db/client';
import { appendEvents, openJob } from '../../db/jobs';
import { saveStation } from '../../db/library';
import { ledgerJobs, ledgerReadings } from '../../db/schema';
import { temporaryDatabase } from '../../db/tests/temporary';
import { loadDurations } from '../day/durations';
import { keepLearning, loadLearning, loadPoint, loadRecords, recordsCsv } from '../records/records';

let db: Database;
let url: string;
let remove: () => void;
const AT = '2025-11-24T08:00:00.000Z';
beforeAll(async () => {
  ({ db, url, remove } = await temporaryDatabase());
  await db.transaction(async (tx) => {
    for (const id of ['heronlog-4-c', 'marshdesk-2-b'] as const) await saveBoard(tx, demoBoard(id), AT);
    await loadYear(tx, 40, 7);
  });
});
afterAll(() => remove());

const rows = async () => [await db.select().from(ledgerJobs), await db.select().from(ledgerReadings)] as const;

test('every closing is an entry, and the table sums to what was drawn', async () => {
  const past = pastYear(40, 7);
  const closes = past.flatMap((j) => j.events.filter((e) => e.body.kind === 'close'));
  const repaired = closes.filter((e) => e.body.kind === 'close' && e.body.outcome === 'repaired').length;
  const { all, rows: byPerson } = await loadRecords(db, { by: 'person' });
  expect(all).toMatchObject({ jobs: closes.length, repaired });
  expect(byPerson.reduce((sum, r) => sum + r.jobs, 0)).toBe(closes.length);
  const paid = closes.reduce((sum, e) => sum + (e.body.kind === 'close' ? (e.body.price ?? 0) : 0), 0);
  expect(byPerson.reduce((sum, r) => sum + (r.money ?? 0), 0)).toBe(paid);
  const csv = await recordsCsv(db, { by: 'person' });
  expect(csv.slice(1).map((r) => r[0])).toEqual(byPerson.map((r) => r.name));
});

test('a filter by board and by day leaves the others out', async () => {
  const all = await loadRecords(db, { by: 'month' });
  const half = await loadRecords(db, { by: 'month', before: '2026-06-01' });
  expect(half.rows).toEqual(all.rows.filter((r) => r.name < '2026-06'));
  const heron = await loadRecords(db, { by: 'board', boardId: 'heronlog-4-c' });
  expect(heron.rows.map((r) => r.name)).toEqual(['Heronlog 4, power board C']);
});

test('what is computed comes out the same when it is computed anew, and a training job is in none', async () => {
  const [jobs, readings] = await rows();
  await db.run(sql`update ledger_jobs set form = 0`);
  await db.run(sql`delete from ledger_readings`);
  await db.transaction(async (tx) => {
    const number = await openJob(tx, 'heronlog-4-c', AT, undefined, true);
    const body = { kind: 'close', outcome: 'returned', cause: 'learned' } as const;
    await appendEvents(tx, number, [{ body }], [], { key: 'training', at: AT, bench: 'b', actor: 'a' });
  });
  // Another handle has not looked yet.
  db = await openDatabase(url);
  await loadRecords(db, { by: 'board' });
  const [again, readAgain] = await rows();
  expect(again).toEqual(jobs);
  expect(readAgain.map((r) => ({ ...r, id: 0 }))).toEqual(readings.map((r) => ({ ...r, id: 0 })));
});

test('a point says what it read, by what was at fault', async () => {
  const { groups, points, near } = await loadPoint(db, { boardId: 'heronlog-4-c', point: 'usb:J1:A', near: 0.6 });
  expect(groups[0].name).toBe('good boards');
  expect(groups.reduce((n, g) => n + g.count, 0)).toBe(points.find((p) => p.point === 'usb:J1:A')!.readings);
  expect(near!.jobs).toBe(near!.causes.reduce((n, [, jobs]) => n + jobs, 0));
});

test('learning can be switched back: plans then count with what ships', async () => {
  const { steps, isUsed } = await loadLearning(db);
  expect(isUsed).toBe(true);
  const probe = steps.find((s) => s.kind === 'probe')!;
  expect(probe.learned).not.toBeCloseTo(probe.ships, 1);
  expect((await loadDurations(db)).durations.probe.minutes).toBeCloseTo(probe.learned, 9);
  expect(await keepLearning(db, false)).toMatchObject({ saved: true });
  expect((await loadDurations(db)).durations.probe.minutes).toBeCloseTo(probe.ships, 9);
  expect(await keepLearning(db, 'no')).toMatchObject({ saved: false });
});

test('jobs are put together by the station of their plan, by its name', async () => {
  await saveStation(db, { ...NOMINAL_STATION, id: 'bench-9', name: 'Bench 9, hot air' });
  const plan = startingPlan('U4', 'SAC305', 6);
  const bodies: EventBody[] = [
    { kind: 'heatPlan', plan, stationId: 'bench-9', shown: { actAtS: null, tightest: null, breaks: [] } },
    { kind: 'close', outcome: 'stopped', cause: '' },
  ];
  await db.transaction(async (tx) => {
    const number = await openJob(tx, 'heronlog-4-c', AT);
    const decided = bodies.map((body) => ({ body }));
    await appendEvents(tx, number, decided, [], { key: 'plan', at: AT, bench: 'b', actor: 'a' });
  });
  const { rows: groups, all } = await loadRecords(db, { by: 'station' });
  expect(groups.find((r) => r.name === 'Bench 9, hot air')).toMatchObject({ jobs: 1, repaired: 0, isThin: true });
  expect(groups.reduce((sum, r) => sum + r.jobs, 0)).toBe(all!.jobs);
  expect(groups.map((r) => r.name)).toContain('not noted');
});
