/** The choice of a chip as the interface makes it: judged again on the server, set aside in the stock, kept as the job's plan. */
import { demoBench } from '../tests/demo-bench';
import { loadJob } from '../job/queries';
import { addPartTypes, keepEvidenceSettings, keepFamily, keepReport } from '../parts/actions';
import { loadParts } from '../parts/queries';
import { enterStockLine } from '../stock/actions';
import { loadPlan, loadShelf } from '../stock/queries';
import { foldStock } from '@/core/stock';
import type { Database } from '@/db/client';
import { stockEventsOf } from '@/db/stock';
import { chooseRoute, keepStrapSettings } from './actions';
import { loadChoice, loadStraps } from './queries';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

let db: Database;
let remove: () => void;
beforeEach(async () => ({ db, remove } = await demoBench()));
afterEach(() => remove());

let n = 0;
const key = (): string => `decide-test-${n++}`;
const choice = async (number: number) => (await loadChoice((await loadJob(number))!))!;
const placeOf = async (chip: string) => foldStock(await stockEventsOf(db)).chips.get(chip)?.place;

test('the chosen chip is set aside and becomes the plan of the stages to come', async () => {
  const best = (await choice(35)).routes[0];
  expect([best.offer, best.verdict, best.goes]).toEqual(['L-14', 'fitsAfter', true]);
  expect(await chooseRoute(35, 'L-14', key())).toMatchObject({
    saved: true,
    message: 'Chosen: marsh-pd-r2, C-108 of lot L-14',
  });
  expect(await placeOf('C-108')).toEqual({ kind: 'bag', job: 35 });
  const job = (await loadJob(35))!;
  expect(job.plan).toEqual({
    heat: 'Comes off for marsh-pd-r2: U12, R22',
    balls: 'Goes on: marsh-pd-r2, C-108 of lot L-14. Change strap R22 from 33 kΩ to 22 kΩ',
    prove: 'Shows whether U12 works: charges its pack, data over port 2',
  });
  expect(job.findings.decide).toBe('New U12: marsh-pd-r2, C-108 of lot L-14');
});

test('a new part that goes on is the chosen chip: the stock has it on the board, and the plan no longer asks for it', async () => {
  const { enterLine } = await import('../job/actions');
  await chooseRoute(35, 'L-14', key());
  await enterLine(35, 'off u12', 'ohm', key());
  expect(await placeOf('C-108')).toEqual({ kind: 'bag', job: 35 });
  await enterLine(35, 'on u12 new', 'ohm', key());
  expect(await placeOf('C-108')).toEqual({ kind: 'fitted', job: 35, ref: 'U12' });
  expect((await loadPlan()).needs.map((x) => x.job)).not.toContain(35);
});

test('a chip that was put back meanwhile stays where it is when the part goes on', async () => {
  const { enterLine } = await import('../job/actions');
  await chooseRoute(35, 'L-14', key());
  await enterStockLine('c-108 back', key());
  await enterLine(35, 'off u12', 'ohm', key());
  expect((await enterLine(35, 'on u12 new', 'ohm', key())).saved).toBe(true);
  expect(await placeOf('C-108')).toEqual({ kind: 'drawer' });
});

test('chips of one donor that are alike make one row, and the first of them is taken', async () => {
  const { routes } = await choice(35);
  const rows = routes.filter((r) => r.offer.startsWith('D-3/'));
  expect(rows.map((r) => r.summary)).toEqual(['donor D-3, U11, U12, U13']);
  // Fused ones are not alike: each serves its own place.
  expect(routes.filter((r) => r.offer.startsWith('D-4/')).map((r) => [r.offer, r.verdict])).toEqual([
    ['D-4/U12', 'fitsAfter'],
    ['D-4/U11', 'doesNotFit'],
    ['D-4/U13', 'doesNotFit'],
  ]);
});

test('what the chosen route asks for is kept by kind, in its order', async () => {
  await chooseRoute(35, 'D-3/U11', key());
  const { route } = (await loadJob(35))!.state;
  expect(route!.actions.map((a) => a.kind)).toEqual(['bake', 'verify']);
  expect(route!.off).toEqual(['U12']);
  expect((await choice(35)).routes.find((r) => r.offer === 'D-3/U11')!.chosen.actions).toEqual(route!.actions);
});

test('of two jobs that want the last chip, the second gets a sentence and stays as it was', async () => {
  await chooseRoute(35, 'L-14', key());
  const before = (await loadJob(36))!.version;
  expect(await chooseRoute(36, 'L-14', key())).toMatchObject({
    saved: false,
    message: 'Expected a chip that can be had; L-14 is not there any more.',
  });
  expect((await loadJob(36))!.version).toBe(before);
});

test('two benches that take from one lot at once get a part each, under names of their own', async () => {
  const answers = await Promise.all([
    enterStockLine('take l-12 for 32', key()),
    enterStockLine('take l-12 for 31', key()),
  ]);
  expect(answers.map((a) => a.saved)).toEqual([true, true]);
  expect(answers.map((a) => a.message).sort()).toEqual([
    expect.stringMatching(/^C-108 of L-12/),
    expect.stringMatching(/^C-109 of L-12/),
  ]);
});

test('another choice puts back what was set aside', async () => {
  await chooseRoute(35, 'L-14', key());
  expect((await chooseRoute(35, 'D-3/U11', key())).saved).toBe(true);
  expect(await placeOf('C-108')).toEqual({ kind: 'drawer' });
  expect((await loadJob(35))!.state.route).toMatchObject({
    supply: { kind: 'donor', donor: 'D-3', ref: 'U11' },
    typeId: 'marsh-pd-r1',
  });
});

test('what does not fit, or is held back, is refused here too', async () => {
  expect(await chooseRoute(35, 'buy rill-pd-r1', key())).toMatchObject({
    saved: false,
    message: expect.stringMatching(/^Expected a chip that fits; pins: Used pins differ/),
  });
  expect(await chooseRoute(35, 'D-5/U11', key())).toMatchObject({
    saved: false,
    message: 'Expected a chip that may be taken; prove donor D-5 first.',
  });
});

test('an optional part may be left off, with the words for the record', async () => {
  expect((await choice(34)).leaveOff).toBeDefined();
  expect((await chooseRoute(34, 'leave off', key())).saved).toBe(true);
  const { findings } = (await loadJob(34))!;
  expect(findings.decide).toBe('D1 off for good: none, left off: optional on this board');
});

test('a decision on another part drops the chip that was chosen for the first', async () => {
  await chooseRoute(35, 'L-14', key());
  const { enterEvent } = await import('../job/actions');
  await enterEvent(35, { kind: 'decision', action: 'stop', ref: null }, key());
  const job = (await loadJob(35))!;
  expect([job.state.route, job.plan]).toEqual([undefined, {}]);
});

test('a report, a school and a rule count at once', async () => {
  const before = (await choice(32)).routes[0].success;
  const report = {
    typeId: 'heron-pd-r2',
    boardId: 'heronlog-4-c',
    ref: 'U4',
    date: '2026-11-24',
    source: 'own',
    worked: true,
  };
  expect((await keepReport(report, key())).saved).toBe(true);
  const after = (await choice(32)).routes[0].success;
  expect([after.reports, after.mean > before.mean]).toEqual([before.reports + 1, true]);
  await keepFamily('heron-pd', { memory: 'always' });
  const always = await choice(32);
  expect([always.school, always.routes[0].actions[0].words]).toEqual(['always', 'Write a sound image to U9']);
  await keepFamily('heron-pd', { rules: { 'revision/later': 'blocks' } });
  expect((await choice(32)).routes.find((r) => r.typeId === 'heron-pd-r3')!.verdict).toBe('doesNotFit');
});

test('what a report counts, and whether unproven donors may be planned with, is the bench’s own', async () => {
  const hearsay = async () => (await choice(36)).routes.find((r) => r.typeId === 'marsh-pd-r4p')!;
  const before = await hearsay();
  expect([before.held, before.success.mean.toFixed(3)]).toEqual(['prove donor D-5 first', (1.3 / 2.3).toFixed(3)]);
  await keepEvidenceSettings({ weights: { own: 1, mate: 0.7, hearsay: 0 }, unprovenDonors: true });
  const after = await hearsay();
  expect([after.held, after.goes, after.success.mean]).toEqual([undefined, true, 0.5]);
  expect((await keepEvidenceSettings({ weights: { own: 'a lot' } })).message).toBe(
    'Expected weights from 0 to 5, such as 0.7.',
  );
});

test('what makes no sense is explained and changes nothing', async () => {
  expect((await keepReport({ typeId: 'heron-pd-r2', date: 'yesterday' }, key())).message).toMatch(
    /^Expected a report with/,
  );
  expect((await keepFamily('heron-pd', { memory: 'perhaps' })).message).toMatch(/^Expected a school/);
  expect((await addPartTypes('{')).message).toMatch(/^Expected part types in JSON; got text that is not JSON/);
  expect((await addPartTypes('[{"id":"X y"}]')).message).toMatch(/Nothing was kept\.$/);
  expect((await keepStrapSettings({ strapTolerance: 5 })).message).toMatch(/^Expected resistances/);
  expect((await loadParts()).types).toHaveLength(13);
});

test('part types come in from a file', async () => {
  const [type] = (await loadParts()).types;
  expect(await addPartTypes(JSON.stringify({ ...type, id: 'heron-pd-r4', order: 4, revision: 'R4' }))).toEqual({
    saved: true,
    message: 'Kept: 1 part type.',
  });
  expect((await choice(32)).routes.some((r) => r.typeId === 'heron-pd-r4')).toBe(true);
});

test('straps are made of what is in the drawer', async () => {
  await keepStrapSettings({ drawerOhm: [10_000, 18_000], strapTolerance: 0.05 });
  expect(await loadStraps()).toMatchObject({ drawerOhm: [10_000, 18_000], strapTolerance: 0.05, fromDrawer: true });
  const route = (await choice(35)).routes.find((r) => r.typeId === 'marsh-pd-r2')!;
  expect(route.actions[0].words).toBe('Change strap R22 from 33 kΩ to 18 kΩ');
});

test('the plan takes in the jobs that wait, and leaves out those with a chip set aside', async () => {
  const before = await loadPlan();
  expect(before.needs.map((x) => x.id)).toEqual(['32 U4', '35 U12', '36 U13', '37 U11']);
  await chooseRoute(35, 'L-14', key());
  const after = await loadPlan();
  expect(after.needs.map((x) => x.id)).toEqual(['32 U4', '36 U13', '37 U11']);
  expect(after.served).toEqual(['Job 35, U12: C-108, marsh-pd-r2, from lot L-14']);
});

test('a typed line moves the stock, and trays keep donor and patient apart', async () => {
  expect(await enterStockLine('off 32 u4 dead', key())).toMatchObject({ saved: true });
  expect((await enterStockLine('c-108 for 31', key())).message).toBe('Expected a chip that works; C-108 is dead.');
  const { trays, lots } = await loadShelf();
  expect(trays.map((t) => [t.title, t.kind])).toEqual([
    ['Tray of job 27', 'patient'],
    ['Tray of donor D-2', 'donor'],
    ['Tray of job 32', 'patient'],
  ]);
  expect(lots.find((l) => l.id === 'L-13')!.moisture).toMatchObject({ bake: true, bakeWords: '9 h at 125 °C' });
});
