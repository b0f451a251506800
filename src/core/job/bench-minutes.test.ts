import { benchMinutes } from '.';

const at = (minute: number) => ({ at: new Date(Date.UTC(2026, 10, 24, 8) + minute * 60_000).toISOString() });

test('short gaps count in full, long ones as far as somebody was at it', () => {
  expect(benchMinutes([])).toBe(0);
  expect(benchMinutes([at(0), at(4), at(9)])).toBe(9);
  expect(benchMinutes([at(0), at(5), at(24 * 60)])).toBe(15);
  expect(benchMinutes([at(9), at(0), at(4)])).toBe(9);
});
