import { benchMinutes, type EventBody } from '..';

const at = (minute: number, body: EventBody = { kind: 'note', text: 'at work' }) => ({
  body,
  at: new Date(Date.UTC(2026, 10, 24, 8) + minute * 60_000).toISOString(),
});

test('short gaps count in full, long ones as far as somebody was at it', () => {
  expect(benchMinutes([])).toBe(0);
  expect(benchMinutes([at(0), at(4), at(9)])).toBe(9);
  expect(benchMinutes([at(0), at(5), at(24 * 60)])).toBe(15);
  expect(benchMinutes([at(9), at(0), at(4)])).toBe(9);
});

test('a job that came back counts from then', () => {
  expect(benchMinutes([at(0), at(9), at(600, { kind: 'reopen', symptom: 'dead' }), at(601), at(604)])).toBe(3);
});
