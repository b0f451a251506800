import { demoPartFamilies, demoPartTypes, demoReports } from '../../demo/files';
import { problemText } from '../core/result';
import { foldStock, type StockBody } from '../core/stock';
import type { Database } from './client';
import { addReport, listPartFamilies, listPartTypes, listReports, savePartFamily, savePartType } from './parts';
import { appendStock as append, stockEventsOf } from './stock';
import { temporaryDatabase } from './tests/temporary';

let db: Database;
let remove: () => void;
beforeEach(async () => ({ db, remove } = await temporaryDatabase()));
afterEach(() => remove());

const AT = '2026-11-24T08:00:00.000Z';
const meta = (key: string) => ({ key, at: AT, bench: 'Bench 1', actor: 'Apprentice' });
/** As the application does: in a transaction of its own. */
const appendStock = (on: Database, ...rest: Parameters<typeof append> extends [unknown, ...infer R] ? R : never) =>
  on.transaction((tx) => append(tx, ...rest), { behavior: 'immediate' });
const LOT: StockBody = { kind: 'lotIn', lot: 'L-1', typeId: 'heron-pd-r2', count: 3, unitPrice: 8, sealed: true };
const take = (chip: string): StockBody => ({ kind: 'take', lot: 'L-1', chip });
const forJob = (chip: string, job: number): StockBody => ({ kind: 'move', chips: [chip], to: { kind: 'bag', job } });

test('of fifty who want one chip at once, one gets it and the others a sentence', async () => {
  await appendStock(db, [LOT, take('C-1')], meta('start'));
  const answers = await Promise.all(
    Array.from({ length: 50 }, (_, i) => appendStock(db, [forJob('C-1', 101 + i)], meta(`want ${i}`))),
  );
  const refused = answers.flatMap((a) => (a.ok ? [] : [problemText(a.problems)]));
  expect(refused).toHaveLength(49);
  const { place } = foldStock(await stockEventsOf(db)).chips.get('C-1')!;
  if (place.kind !== 'bag') throw new Error(`expected C-1 in a bag; it is in ${place.kind}`);
  expect(new Set(refused)).toEqual(new Set([`Expected a free chip; C-1 is set aside for job ${place.job}.`]));
});

test('fifty who take from a lot of three empty it and no more', async () => {
  await appendStock(db, [LOT], meta('start'));
  const answers = await Promise.all(
    Array.from({ length: 50 }, (_, i) => appendStock(db, [take(`C-${i}`)], meta(`take ${i}`))),
  );
  expect(answers.filter((a) => a.ok)).toHaveLength(3);
  expect(foldStock(await stockEventsOf(db)).lots.get('L-1')!.left).toBe(0);
});

test('events that belong together are stored together or not at all', async () => {
  await appendStock(db, [LOT], meta('start'));
  const answer = await appendStock(db, [take('C-1'), forJob('C-2', 31)], meta('both'));
  expect(answer).toMatchObject({ ok: false, problems: [{ message: 'Expected a chip that exists; there is no C-2.' }] });
  expect(await stockEventsOf(db)).toHaveLength(1);
});

test('the same key delivered twice is stored once', async () => {
  await appendStock(db, [LOT], meta('start'));
  await appendStock(db, [take('C-1')], meta('same'));
  expect(await appendStock(db, [take('C-1')], meta('same'))).toMatchObject({ ok: true });
  expect(await stockEventsOf(db)).toHaveLength(2);
});

test('part types, families and reports come back as they were given', async () => {
  for (const type of demoPartTypes()) await savePartType(db, type);
  for (const family of demoPartFamilies()) await savePartFamily(db, family);
  for (const [i, report] of demoReports().entries()) await addReport(db, report, `r${i}`, AT);
  await addReport(db, demoReports()[0], 'r0', AT);
  const byId = <T extends { id: string }>(items: readonly T[]): T[] =>
    [...items].sort((a, b) => (a.id < b.id ? -1 : 1));
  expect(await listPartTypes(db)).toEqual(byId(demoPartTypes()));
  expect(await listPartFamilies(db)).toEqual(byId(demoPartFamilies()));
  expect(await listReports(db)).toEqual(demoReports());
  expect(await listReports(db, 'heronlog-4-c')).toEqual(demoReports().filter((r) => r.boardId === 'heronlog-4-c'));
});
