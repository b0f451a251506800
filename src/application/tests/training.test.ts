/** Nothing of a training job counts anywhere else, whatever is done in it; and a real job keeps nothing that was simulated. */
import fc from 'fast-check';
import { sql } from 'drizzle-orm';
import { demoPartTypes, demoStations } from '../../../demo/files';
import type { Origin, Story } from '../../core/job';
import type { Database } from '../../db/client';
import { jobEventsOf } from '../../db/jobs';
import { listReferences, markDemoWorld } from '../../db/knowledge';
import { saveStation } from '../../db/library';
import { listReports, savePartType } from '../../db/parts';
import { temporaryDatabase } from '../../db/tests/temporary';
import { stockEventsOf } from '../../db/stock';
import { keepMark } from '../calibrate-from-run';
import { chooseChip, loadChoice } from '../jobs/choose-chip';
import { closeJob, keepLesson, loadReport } from '../jobs/closeout';
import { enter, enterLine } from '../jobs/execute';
import { loadBench } from '../jobs/job-lists';
import { loadJob } from '../jobs/load-job';
import { openJob } from '../jobs/open-job';
import { learnFromJobs } from '../settings';
import { enterStockLine, loadQueuePlan } from '../stock/stock';

let db: Database;
let remove: () => void;
beforeEach(async () => {
  ({ db, remove } = await temporaryDatabase());
  for (const type of demoPartTypes()) await savePartType(db, type);
  for (const station of demoStations()) await saveStation(db, station);
  await enterStockLine(db, 'lot heron-pd-r2 10 at 8.5', 'lot');
});
afterEach(() => remove());

const SIMULATED: Origin = { kind: 'simulated', by: 'simulated meter' };
const METER: Origin = { kind: 'instrument', identification: 'Bench meter, 12' };
const STORY: Story = {
  kind: 'story',
  ...{ symptom: 'no light', history: [], dataMatters: false, locked: false, consent: true, pack: 'sound' },
};
let opened = 0;
const take = async (training: boolean): Promise<number> =>
  (await openJob(db, 'heronlog-4-c', STORY, `device ${(opened += 1)}`, training)).job!;

/** Everything that other jobs, statistics, the stock and the bench's knowledge are computed from. */
const outside = async (job: number) => ({
  references: await listReferences(db, 'heronlog-4-c'),
  reports: await listReports(db),
  stock: await stockEventsOf(db),
  learned: await learnFromJobs(db),
  calibrations: await db.all(sql`select * from calibrations`),
  stations: await db.all(sql`select * from stations`),
  queue: (await loadQueuePlan(db)).needs.filter((n) => n.job === job),
  others: await db.all(sql`select body, origin from job_events where job_number <> ${job} order by id`),
});

const LINES = [
  'tp7 1.62 ohm',
  'tp7 3.31 v',
  'tp8 1300 ohm',
  'off u4',
  'on u4 new',
  'on u4',
  'f1 0.02',
  'usb j1 a 20.1 1.02',
  'pack out',
  'mended AON33',
  'note seen it',
];

test('whatever is done in a training job, nothing outside it changes', async () => {
  const act = fc.oneof(
    fc.record({ do: fc.constant('line' as const), line: fc.constantFrom(...LINES), simulated: fc.boolean() }),
    fc.record({ do: fc.constantFrom('choose' as const, 'stock' as const, 'mark' as const, 'lesson' as const) }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 4, maxLength: 9 }), async (acts) => {
      const job = await take(true);
      const before = await outside(job);
      for (const a of acts) {
        if (a.do === 'line')
          await enterLine(db, job, a.line, 'ohm', `t ${job} ${(opened += 1)}`, a.simulated ? SIMULATED : METER);
        if (a.do === 'stock')
          expect(await enterStockLine(db, `take l-1 for ${job}`, `s ${(opened += 1)}`)).toMatchObject({ saved: false });
        if (a.do === 'mark')
          expect(await keepMark(db, { job, stationId: 'bench-1', plan: {} }, 40)).toMatchObject({ saved: false });
        if (a.do === 'lesson') expect(await keepLesson(db, job)).toMatchObject({ saved: false });
        if (a.do === 'choose') {
          const view = await loadJob(db, job);
          const choice = view.ok ? await loadChoice(db, view.value) : undefined;
          const way = choice?.routes.find((r) => r.goes);
          if (way) await chooseChip(db, job, way.offer, `c ${(opened += 1)}`);
        }
      }
      await closeJob(db, job, { outcome: 'repaired', cause: 'learned', reason: 'training' }, `close ${job}`);
      expect(await outside(job)).toEqual(before);
      expect(await keepLesson(db, job)).toMatchObject({ saved: false });
      expect(await loadReport(db, job)).toMatchObject({ training: true });
    }),
    { numRuns: 12, seed: 19 },
  );
});

test('a real job keeps nothing that was simulated, and says where its readings come from', async () => {
  const job = await take(false);
  expect(await enterLine(db, job, 'tp7 1.62 ohm', 'ohm', 'a', SIMULATED)).toMatchObject({
    saved: false,
    message: 'Expected what was really seen: simulated values are kept in training jobs only.',
  });
  expect(await enter(db, job, { kind: 'note', text: 'x' }, 'b', { origin: SIMULATED })).toMatchObject({ saved: false });
  await enterLine(db, job, 'tp7 1.62 ohm', 'ohm', 'c', METER);
  await enterLine(db, job, 'tp8 1300 ohm', 'ohm', 'd');
  expect((await jobEventsOf(db, job)).map((e) => e.origin?.kind)).toEqual(['typed', 'instrument', 'typed']);
  const view = await loadJob(db, job);
  expect(view.ok && [view.value.training, view.value.simulators]).toEqual([false, false]);
  expect(await loadReport(db, job)).toMatchObject({
    training: false,
    origins: 'Readings: 1 by Bench meter, 12, 1 typed.',
  });
  // A record from before origins were kept says so.
  await db.run(sql`update job_events set origin = null where job_number = ${job}`);
  expect((await loadReport(db, job))!.origins).toBe('Readings: 2 origin not recorded.');
});

test('an origin that is none is refused', async () => {
  const job = await take(true);
  for (const origin of [{ kind: 'instrument' }, { kind: 'hearsay' }, { kind: 'file', name: 'a', sha256: 'short' }])
    expect(await enterLine(db, job, 'tp7 1 ohm', 'ohm', `o ${(opened += 1)}`, origin as Origin)).toMatchObject({
      saved: false,
      code: 'badInput',
    });
});

test('simulators are offered in training jobs and in the demo world, nowhere else', async () => {
  const [real, training] = [await take(false), await take(true)];
  const offered = async (job: number) => {
    const view = await loadJob(db, job);
    return view.ok && view.value.simulators;
  };
  expect([await offered(real), await offered(training)]).toEqual([false, true]);
  await markDemoWorld(db);
  expect(await offered(real)).toBe(true);
});

test('on the bench a training job is marked and comes after those that owners wait for', async () => {
  const training = await take(true);
  const real = await take(false);
  expect((await loadBench(db)).open.map((r) => [r.number, r.training])).toEqual([
    [real, false],
    [training, true],
  ]);
});
