import { calendarOf } from '../day/calendar';

const line = (number: number, promisedAt?: string, late = false) => ({
  ...{
    number,
    device: 'Heronlog 4, a device with a name that is so long that its line has to be folded twice',
    next: 'Probe',
  },
  ...{ midAt: '', byAt: '', promisedAt, late },
});

/** Content lines unfolded, as a reader does. Source: RFC 5545, 3.1. */
const unfolded = (text: string): string[] => text.replace(/\r\n[ \t]/g, '').split('\r\n');

test('promises and soaks as RFC 5545 asks: lines of 75 octets, moments in UTC, an id that stays', () => {
  const text = calendarOf(
    [line(31, '2026-11-24T15:30:00.000Z', true), line(32)],
    [{ job: 27, startedAt: '2026-11-24T09:05:00.000Z', minutes: 90 }],
  );
  expect(text.split('\r\n').every((l) => Buffer.byteLength(l) <= 75)).toBe(true);
  const lines = unfolded(text);
  expect(lines.filter((l) => l === 'BEGIN:VEVENT')).toHaveLength(2);
  expect([lines[0], lines.includes('VERSION:2.0')]).toEqual(['BEGIN:VCALENDAR', true]);
  expect(lines.filter((l) => l.startsWith('DTSTART'))).toEqual([
    'DTSTART:20261124T153000Z',
    'DTSTART:20261124T103500Z',
  ]);
  expect(lines.filter((l) => l.startsWith('UID'))).toEqual(['UID:promise-31@unisolda', 'UID:soak-27@unisolda']);
  expect(lines.find((l) => l.startsWith('SUMMARY'))).toContain('Job 0031 promised');
  expect(lines.find((l) => l.startsWith('SUMMARY'))).toContain('will be late');
});

test('what is waited for stands at its day', () => {
  const awaits = { what: 'donor board', byAt: '2026-12-02T12:00:00.000Z', overdue: false };
  const lines = unfolded(calendarOf([{ ...line(34), awaits }], []));
  expect(lines).toContain('SUMMARY:Job 0034: donor board expected');
  expect(lines).toContain('DTSTART:20261202T120000Z');
  expect(lines).toContain('UID:delivery-34@unisolda');
});

test('nothing promised and nothing running is an empty calendar', () => {
  const lines = unfolded(calendarOf([line(32)], []));
  expect([lines[0], lines.some((l) => l === 'BEGIN:VEVENT')]).toEqual(['BEGIN:VCALENDAR', false]);
});
