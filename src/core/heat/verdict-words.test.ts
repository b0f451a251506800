import { startingPlan } from './plan';
import { PURPOSES, type Purpose } from './purpose';
import type { NeighbourVerdict } from './verdict-types';
import { verdictWords } from './verdict-words';

type Figures = Parameters<typeof verdictWords>[1];

const FIGURES: Figures = {
  ...{
    reachC: 220,
    reachedAtS: 50,
    actAtS: 53,
    untilS: 95,
    aboveReachS: 12,
    coldestPeakC: 231,
    hottestPeakC: 236,
    inTimeC: 230,
  },
  ...{ ownLimitC: null, bodyPeakC: 240, bodyLimitC: 260, fastestRiseCPerS: 2, neighbours: [], swimming: [] },
};
const told = (purpose: Purpose, more: Partial<Figures> = {}) =>
  verdictWords({ ...startingPlan('U4', 'SAC305', 4), purpose }, { ...FIGURES, ...more });

test.each<[Purpose, string]>([
  ['lift', 'Lift U4 at 53 s, not before'],
  ['place', 'Place U4: settles from 53 s, then nudge and hold still'],
  ['soften', 'Clear the edges of U4 from 53 s, stop at 95 s'],
  ['site', 'Level the pads of U4 from 53 s, while the air stays on'],
  ['partBoards', 'Lift the upper board at 53 s, straight up, not before'],
  ['reball', 'Balls of U4 molten at 53 s, let them settle, then air off'],
])('a plan to %s says what the hand does and when', (purpose, headline) => {
  expect(told(purpose).headline).toBe(headline);
});

test.each(PURPOSES)('a plan to %s that does not get there says how much is missing and what not to do', (purpose) => {
  const { headline, sentence } = told(purpose, { reachedAtS: null, actAtS: null, untilS: null, coldestPeakC: 205.2 });
  expect(headline).toMatch(/does not|do not|stays/);
  expect(sentence).toMatch(/ends at 205 °C, 15 °C short of 220\. More air/);
  expect(sentence.endsWith('longer. ')).toBe(false);
});

test('what gets too hot is named: its own body first, then its solder, then neighbours', () => {
  const u9: NeighbourVerdict = {
    ...{ ref: 'U9', what: 'memory', limited: 'joints', peakC: 211, limitC: 207, atS: 70, holds: false },
  };
  expect(told('lift', { neighbours: [u9] }).headline).toBe('Lift U4 at 53 s, but U9 gets too hot');
  expect(told('soften', { ownLimitC: 207 }).headline).toMatch(/but its solder gets too hot$/);
  const all = told('lift', { bodyPeakC: 270, neighbours: [u9, { ...u9, ref: 'Q1' }] });
  expect(all.headline).toMatch(/but it gets too hot$/);
  expect(all.sentence).toContain(
    'U4 itself reaches 270 °C against 260; U9 reaches 211 °C against 207 at 70 s and 1 more',
  );
});
