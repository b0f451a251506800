import { DEFAULT_BUSINESS } from '../../core/day';
import type { Database } from '../../db/client';
import { temporaryDatabase } from '../../db/tests/temporary';
import { keepBusiness, loadBusiness } from '../day/business';
import { closedMinutes } from '../day/hours';

let db: Database;
let remove: () => void;
beforeEach(async () => ({ db, remove } = await temporaryDatabase()));
afterEach(() => remove());

const SATURDAYS = { days: [6], spans: [[600, 840]] as [number, number][] };

test('what the shop settles is there again; before that the defaults are', async () => {
  expect(await loadBusiness(db)).toEqual(DEFAULT_BUSINESS);
  const business = { ...DEFAULT_BUSINESS, hours: SATURDAYS, flat: 90, taxPercent: 19 };
  expect(await keepBusiness(db, business)).toMatchObject({ saved: true });
  expect(await loadBusiness(db)).toEqual(business);
});

test.each([
  [{ hours: { days: [], spans: [[600, 840]] } }, /^Expected days of the week/],
  [{ hours: { days: [1], spans: [[840, 600]] } }, /^Expected days of the week/],
  [{ diagnosisFee: Number.NaN }, /^Expected a fee/],
  [{ flat: -1 }, /^Expected a price/],
  [{ taxPercent: 80 }, /^Expected a tax/],
  [{ message: 'Dear {owner}' }, /^Expected a message to the owner: .*got "\{owner\}"/],
])('%j is refused, and what was settled stays', async (change, message) => {
  await keepBusiness(db, { ...DEFAULT_BUSINESS, flat: 90 });
  const answer = await keepBusiness(db, { ...DEFAULT_BUSINESS, ...change });
  expect(answer).toMatchObject({ saved: false, code: 'badInput' });
  expect(answer.message).toMatch(message);
  expect((await loadBusiness(db)).flat).toBe(90);
});

test('hours are by the shop’s clocks, over the night in which they are set back', () => {
  // Los Angeles, Friday 30 October 2026, 18:00 (UTC −7); on Sunday, 1 November, its clocks go back to −8.
  const now = Date.parse('2026-10-31T01:00:00.000Z');
  const [first] = closedMinutes({ ...SATURDAYS, days: [1], spans: [[9 * 60, 17 * 60]] }, 'America/Los_Angeles', now);
  // To Monday, 9:00: 63 hours by the wall and one more.
  expect(first).toEqual([0, 64 * 60]);
});

test('a shop that works on Saturdays is closed until the next one, and after it for six days', () => {
  // Friday 2026-11-27, 10:00 by the clock of the shop.
  const now = Date.parse('2026-11-27T10:00:00.000Z');
  const [first, second] = closedMinutes(SATURDAYS, 'UTC', now);
  expect(first).toEqual([0, 24 * 60]);
  expect(second).toEqual([28 * 60, 24 * 60 + 7 * 24 * 60]);
});
