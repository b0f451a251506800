import { judgePadLook } from '.';

test('pads all there and level hold; otherwise each trouble is named with what to do about it', () => {
  const even = ['1', '2', '3'].map((pin) => ({ pin, state: 'even' as const }));
  expect(judgePadLook(even, [])).toEqual({ holds: true, headline: 'All 3 pads there and level', reasons: [] });
  const look = judgePadLook([{ pin: '1', state: 'lifted' }, { pin: '2', state: 'uneven' }, even[2]], [['2', '3']]);
  expect(look.holds).toBe(false);
  expect(look.headline).toBe('Pads: 1 gone, 1 bridge, 1 uneven');
  expect(look.reasons[0]).toMatch(/^1: .*touch with a needle/);
  expect(look.reasons[1]).toMatch(/^Solder from 2 to 3/);
});

test('a long list of pads is cut with how many more there are', () => {
  const gone = Array.from({ length: 12 }, (_, k) => ({ pin: String(k + 1), state: 'lifted' as const }));
  expect(judgePadLook(gone, []).reasons[0]).toMatch(/^1, 2, 3, 4, 5, 6, 7, 8 and 4 more:/);
});
