import type { EventBody } from '../../core/job';
import type { Database } from '../../db/client';
import { temporaryDatabase } from '../../db/tests/temporary';
import { jobEventsOf, listJobs, openJob } from '../../db/jobs';
import { stockEventsOf } from '../../db/stock';
import { enter, enterLine, execute } from '../jobs/execute';
import { openJob as takeIn } from '../jobs/open-job';
import { settle } from '../once';
import { enterStockLine } from '../stock/stock';

let db: Database;
let remove: () => void;
beforeEach(async () => ({ db, remove } = await temporaryDatabase()));
afterEach(() => remove());

const AT = '2026-11-24T08:00:00.000Z';
const note = (text: string): EventBody => ({ kind: 'note', text });
const story = (symptom: string) => ({
  kind: 'story' as const,
  ...{ symptom, history: [], dataMatters: false, locked: false, consent: true, pack: 'sound' as const },
});

test('the same entry delivered again gets the same answer and is on disk once', async () => {
  const number = await openJob(db, 'heronlog-4-c', AT);
  const first = await enterLine(db, number, 'tp7 1.62 ohm', 'ohm', 'k1');
  expect(first).toMatchObject({ saved: true, seq: 1 });
  expect(await enterLine(db, number, 'tp7 1.62 ohm', 'ohm', 'k1')).toEqual(first);
  const many = await Promise.all(Array.from({ length: 20 }, () => enter(db, number, note('once'), 'k2')));
  expect(new Set(many.map((a) => a.seq))).toEqual(new Set([2]));
  expect(await jobEventsOf(db, number)).toHaveLength(2);
});

test('a key that was used for another body, another job or the stock is refused', async () => {
  const [a, b] = [await openJob(db, 'heronlog-4-c', AT), await openJob(db, 'heronlog-4-c', AT)];
  await enter(db, a, note('first'), 'k');
  const again = { saved: false, code: 'keyReused' };
  expect(await enter(db, a, note('second'), 'k')).toMatchObject(again);
  expect(await enter(db, b, note('first'), 'k')).toMatchObject(again);
  expect(await enterStockLine(db, 'donor heronlog-4-c 20', 'k')).toMatchObject(again);
  expect(await execute(db, a, { do: 'undoLast' }, 'k')).toMatchObject(again);
  expect([await jobEventsOf(db, a), await jobEventsOf(db, b)].map((e) => e.length)).toEqual([1, 0]);
  expect(await stockEventsOf(db)).toEqual([]);
});

test('what is refused leaves no trace, and its key is free', async () => {
  const number = await openJob(db, 'heronlog-4-c', AT);
  expect(await enterLine(db, number, 'on u4 new', 'ohm', 'k')).toMatchObject({ saved: false });
  expect(await enterLine(db, number, 'off u4', 'ohm', 'k')).toMatchObject({ saved: true });
  expect(await jobEventsOf(db, number)).toHaveLength(1);
});

test('a job and its story are one entry: delivered twice it is opened once, refused it is not opened', async () => {
  const first = await takeIn(db, 'heronlog-4-c', story('dead'), 'device');
  expect(first).toMatchObject({ saved: true, job: expect.any(Number), seq: 1 });
  expect(await takeIn(db, 'heronlog-4-c', story('dead'), 'device')).toEqual(first);
  expect(await takeIn(db, 'heronlog-4-c', { ...story('dead'), history: ['nonsense'] } as never, 'other')).toMatchObject(
    {
      saved: false,
    },
  );
  expect(await listJobs(db)).toHaveLength(1);
});

test('an entry whose answer was lost is found; one that never came is given up and refused should it still come', async () => {
  const number = await openJob(db, 'heronlog-4-c', AT);
  const kept = await enter(db, number, note('arrived'), 'there');
  expect(await settle(db, 'there')).toEqual({ known: true, answer: kept });
  expect(await settle(db, 'lost')).toMatchObject({ known: false, answer: { saved: false } });
  expect(await settle(db, 'lost')).toMatchObject({ known: false });
  expect(await enter(db, number, note('late'), 'lost')).toMatchObject({ saved: false, code: 'keyReused' });
  expect(await jobEventsOf(db, number)).toHaveLength(1);
});

test.each(['', 'k'.repeat(201)])('a key of the wrong length is refused', async (key) => {
  const number = await openJob(db, 'heronlog-4-c', AT);
  expect(await enter(db, number, note('x'), key)).toMatchObject({ saved: false, code: 'badInput' });
});

test('a reading that does not speak of this board is refused and nothing is stored', async () => {
  const number = await openJob(db, 'heronlog-4-c', AT);
  const refused = async (body: unknown): Promise<string> => {
    const result = await enter(db, number, body as EventBody);
    return result.saved ? '' : result.message;
  };
  expect(
    await refused({
      kind: 'reading',
      measurement: { kind: 'groundResistance', net: 'NOWHERE' },
      value: { kind: 'open' },
    }),
  ).toBe('Expected a net of this board; got "NOWHERE".');
  expect(
    await refused({ kind: 'reading', measurement: { kind: 'railVoltage', rail: 'AON33' }, value: { kind: 'beep' } }),
  ).toBe('Expected figure (voltages, battery connector too); got beep.');
  expect(await refused({ kind: 'gossip' })).toMatch(/^kind: Invalid/);
  expect(await refused(null)).not.toBe('');
  expect(await jobEventsOf(db, number)).toEqual([]);
  const nobody = await enter(db, 999, note('x'));
  expect(nobody.message).toBe('Expected a job that exists; there is no job 999.');
});
