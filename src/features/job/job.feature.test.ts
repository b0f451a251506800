/** Entries as the interface makes them: read again on the server, stored, answered when they are on disk. */
import { demoBench } from '../tests/demo-bench';
import { jobEventsOf } from '@/db/jobs';
import type { Database } from '@/db/client';
import { enterEvent, enterLine, undoLast } from './actions';
import { loadJob } from './queries';

jest.mock('next/cache', () => ({ revalidatePath: jest.fn() }));

let db: Database;
let remove: () => void;
beforeAll(async () => ({ db, remove } = await demoBench()));
afterAll(() => remove());

const key = (() => {
  let n = 0;
  return () => `job-test-${n++}`;
})();

test('a line is stored and answered with its words and number', async () => {
  const before = (await jobEventsOf(db, 31)).length;
  const answer = await enterLine(31, 'tp7 1.62 ohm', 'ohm', key());
  expect(answer).toEqual({ saved: true, message: 'TP7 to ground, 1.62 Ω', seq: before + 1 });
  expect((await loadJob(31))!.readings.at(-1)).toMatchObject({
    name: 'AON33 to ground',
    value: '1.62 Ω',
    current: true,
  });
});

test('a line that cannot be read changes nothing', async () => {
  const before = await jobEventsOf(db, 31);
  for (const text of ['tp7 abc', 'tp99 1', '', 'usb a', 'fix vcore 3']) {
    const answer = await enterLine(31, text, 'ohm', key());
    expect(answer.saved).toBe(false);
    expect(answer.message).toMatch(/^Expected|has none yet/);
  }
  expect(await jobEventsOf(db, 31)).toEqual(before);
});

test('a correction and an undo leave everything in the record', async () => {
  await enterLine(31, 'vin 88k', 'ohm', key());
  await enterLine(31, 'c16 1.3k', 'ohm', key());
  const corrected = await enterLine(31, 'fix c16 1.4k', 'ohm', key());
  expect(corrected.message).toBe('Corrects PD18 to ground from 1.30 kΩ: C16 to ground, 1.40 kΩ');
  const shown = async (): Promise<string[]> =>
    (await loadJob(31))!.readings.filter((r) => r.name.startsWith('PD18')).map((r) => r.value);
  expect(await shown()).toEqual(['1.40 kΩ']);
  expect((await undoLast(31, key())).saved).toBe(true);
  expect(await shown()).toEqual(['1.30 kΩ']);
  expect((await jobEventsOf(db, 31)).filter((e) => e.body.kind === 'undo')).toHaveLength(1);
});

test('the story cannot be undone', async () => {
  expect(await undoLast(30, key())).toMatchObject({ saved: false, message: 'Nothing to undo: the story stays.' });
});

test('a button’s event is checked like any other', async () => {
  expect(await enterEvent(32, { kind: 'site', ref: 'U4', words: 'level' }, key())).toMatchObject({ saved: true });
  expect(await enterEvent(32, { kind: 'site', ref: 'nonsense', words: 'level' }, key())).toMatchObject({
    saved: false,
  });
  expect(await enterEvent(4711, { kind: 'note', text: 'x' }, key())).toMatchObject({
    saved: false,
    message: 'Expected a job that exists; there is no job 4711.',
  });
});

test('a job that is not there is not found', async () => {
  expect(await loadJob(4711)).toBeUndefined();
  expect(await enterLine(4711, 'tp7 1', 'ohm', key())).toMatchObject({ saved: false });
});
