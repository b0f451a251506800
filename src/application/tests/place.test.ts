import { sql } from 'drizzle-orm';
import type { Database } from '../../db/client';
import { temporaryDatabase } from '../../db/tests/temporary';
import { closeJob, loadReport } from '../jobs/closeout';
import { openJob } from '../jobs/open-job';
import { keepPlace, loadPlace } from '../place';

let db: Database;
let remove: () => void;
beforeEach(async () => ({ db, remove } = await temporaryDatabase()));
afterEach(() => remove());

const BERLIN = { timeZone: 'Europe/Berlin', locale: 'de-DE', currency: 'EUR' };

test('what was never set is the zone of this machine, days as ISO 8601 writes them, and figures alone', async () => {
  expect(await loadPlace(db)).toEqual({
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    locale: '',
    currency: '',
  });
});

test.each([
  [{ ...BERLIN, timeZone: 'Mars/Base' }, 'Expected a time zone such as Europe/Berlin; got "Mars/Base".'],
  [{ ...BERLIN, locale: 'no such' }, 'Expected a language such as de-DE, or nothing; got "no such".'],
  [{ ...BERLIN, currency: 'euro' }, 'Expected a currency of three capitals such as EUR, or nothing; got "euro".'],
])('what is no place is refused with what was expected and got', async (place, message) => {
  await keepPlace(db, BERLIN);
  expect(await keepPlace(db, place)).toMatchObject({ saved: false, code: 'badInput', message });
  expect(await loadPlace(db)).toEqual(BERLIN);
});

test('a report has the day and the money of the place, and a torn setting counts as none', async () => {
  await keepPlace(db, BERLIN);
  const story = { symptom: 'dead', history: [], dataMatters: false, locked: false, consent: true };
  const opened = await openJob(db, 'heronlog-4-c', { kind: 'story', ...story, pack: 'sound' }, 'device');
  await closeJob(db, opened.job!, { outcome: 'stopped', cause: 'bent', price: 1234.5 }, 'close');
  // Half past eleven at night, universal time: the next day in Berlin.
  await db.run(sql`update jobs set opened_at = '2026-11-24T23:30:00.000Z'`);
  const report = (await loadReport(db, opened.job!))!;
  expect(report.opened).toBe('25.11.2026');
  expect(report.bill.map((b) => b.figure.replace(/\s/g, ' '))).toEqual(['1.234,50 €']);
  await db.run(sql`update settings set json = '{' where name = 'place'`);
  expect((await loadPlace(db)).locale).toBe('');
});
