import { dayIn, isLocale, isoDayIn, isTimeZone, momentIn, moneyIn, NOWHERE } from './place';

const at = (timeZone: string, locale = '') => ({ timeZone, locale, currency: '' });

// 23:30 UTC is another day east of Greenwich and the same one west of it; offsets of the IANA time zone database.
test.each([
  ['UTC', '2026-11-24T23:30:00.000Z', '2026-11-24'],
  ['Europe/Berlin', '2026-11-24T23:30:00.000Z', '2026-11-25'],
  ['Asia/Kolkata', '2026-11-24T18:45:00.000Z', '2026-11-25'],
  ['America/Los_Angeles', '2026-11-24T07:59:00.000Z', '2026-11-23'],
  // The last hour before the clocks go back: 24 October, 21:30 UTC is 23:30 in summer time; a day later it is 22:30.
  ['Europe/Berlin', '2026-10-24T21:59:00.000Z', '2026-10-24'],
  ['Europe/Berlin', '2026-10-24T22:00:00.000Z', '2026-10-25'],
  ['Europe/Berlin', '2026-10-25T22:59:00.000Z', '2026-10-25'],
])('in %s the day of %s is %s', (zone, iso, day) => {
  expect(dayIn(at(zone), iso)).toBe(day);
});

// Offsets of the IANA zones: Berlin +1 and +2, Kolkata +5:30, Los Angeles −8; Chatham's +13:45 in its summer.
test.each([
  ['UTC', '2026-12-01', '17:00', '2026-12-01T17:00:00.000+00:00'],
  ['Europe/Berlin', '2026-12-01', '17:00', '2026-12-01T17:00:00.000+01:00'],
  ['Europe/Berlin', '2026-07-01', '09:30', '2026-07-01T09:30:00.000+02:00'],
  ['Asia/Kolkata', '2026-12-01', '00:15', '2026-12-01T00:15:00.000+05:30'],
  ['America/Los_Angeles', '2026-12-01', '17:00', '2026-12-01T17:00:00.000-08:00'],
  ['Pacific/Chatham', '2026-12-01', '12:00', '2026-12-01T12:00:00.000+13:45'],
  // 29 March 2026: Berlin's clocks go from 2 to 3; an hour that is left out is the one after.
  ['Europe/Berlin', '2026-03-29', '02:30', '2026-03-29T03:30:00.000+02:00'],
])('in %s %s at %s is %s', (zone, day, hour, moment) => {
  expect(momentIn(at(zone), day, hour)).toBe(moment);
  expect(dayIn(at(zone), moment)).toBe(day);
});

test.each([
  ['2026-02-30', '12:00'],
  ['2026-13-01', '12:00'],
  ['2026-12-01', '24:00'],
  ['2026-12-01', '12:60'],
  ['', '12:00'],
])('no clock shows %s at %s', (day, hour) => expect(momentIn(at('Europe/Berlin'), day, hour)).toBeUndefined());

test('a language writes the day its own way', () => {
  expect(dayIn(at('UTC', 'de-DE'), '2026-11-24T12:00:00.000Z')).toBe('24.11.2026');
  expect(dayIn(at('UTC', 'en-GB'), '2026-11-24T12:00:00.000Z')).toBe('24 Nov 2026');
  expect(isoDayIn(at('Pacific/Auckland', 'de-DE'), '2026-11-24T12:00:00.000Z')).toBe('2026-11-25');
});

test('what is no moment is shown as it is', () => {
  expect(dayIn(NOWHERE, 'garbage')).toBe('garbage');
});

test('money has its currency where one is set', () => {
  expect(moneyIn(NOWHERE, 1234.5)).toBe('1234.50');
  expect(moneyIn({ ...NOWHERE, locale: 'de-DE', currency: 'EUR' }, 1234.5).replace(/\s/g, ' ')).toBe('1.234,50 €');
  expect(moneyIn({ ...NOWHERE, currency: 'GBP' }, 8)).toBe('£8.00');
});

test('zones and languages that are none are known as such', () => {
  expect(['Europe/Berlin', 'UTC', 'Mars/Base', ''].map(isTimeZone)).toEqual([true, true, false, false]);
  expect(['', 'en', 'de-DE', 'no such language'].map(isLocale)).toEqual([true, true, true, false]);
});
