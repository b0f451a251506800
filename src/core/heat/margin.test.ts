import { limitsOf, marginOf } from './margin';
import type { HeatVerdict, NeighbourVerdict } from './verdict';

const neighbour = (ref: string, peakC: number, limitC: number): NeighbourVerdict => ({
  ref,
  what: 'a neighbour',
  limited: 'joints',
  peakC,
  limitC,
  atS: 60,
  holds: peakC <= limitC,
});
const verdict = (more: Partial<HeatVerdict>): HeatVerdict => ({
  reachC: 220,
  reachedAtS: 50,
  actAtS: 53,
  untilS: 62,
  hottestPeakC: 240,
  ownLimitC: null,
  aboveReachS: 12,
  coldestPeakC: 232,
  inTimeC: 232,
  bodyPeakC: 245,
  bodyLimitC: 260,
  fastestRiseCPerS: 2.5,
  neighbours: [],
  swimming: [],
  breaks: [],
  holds: true,
  headline: '',
  sentence: '',
  ...more,
});

test('the nearest limit is the margin: the joint that has to melt, the body, or a neighbour', () => {
  expect(marginOf(verdict({}))).toEqual({ marginK: 12, fragile: 'the coldest joint only just melts' });
  expect(marginOf(verdict({ bodyPeakC: 256 }))).toEqual({ marginK: 4, fragile: 'the part’s own body' });
  const neighbours = [neighbour('U9', 204, 207), neighbour('Q1', 190, 207)];
  expect(marginOf(verdict({ neighbours }))).toEqual({ marginK: 3, fragile: 'U9 joints', ref: 'U9' });
});

test('where its solder must not melt, the hottest joint counts as well', () => {
  expect(
    marginOf(verdict({ reachC: 150, coldestPeakC: 165, inTimeC: 165, hottestPeakC: 202, ownLimitC: 207 })),
  ).toEqual({
    marginK: 5,
    fragile: 'its own solder',
  });
});

test('what does not melt or gets too hot has a negative margin', () => {
  expect(marginOf(verdict({ coldestPeakC: 206, inTimeC: 205, reachedAtS: null, actAtS: null })).marginK).toBe(-15);
  expect(marginOf(verdict({ neighbours: [neighbour('L1', 214, 207)] }))).toMatchObject({ marginK: -7, ref: 'L1' });
});

test('of two that are equally near the first is told', () => {
  const neighbours = [neighbour('U9', 200, 207), neighbour('Q1', 200, 207)];
  expect(marginOf(verdict({ neighbours })).ref).toBe('U9');
});

test('limits come in the verdict’s order after the two of the part itself, each with its distance', () => {
  const neighbours = [neighbour('U9', 199, 207), neighbour('Q1', 190, 207)];
  expect(limitsOf(verdict({ neighbours }))).toEqual([
    { marginK: 12, fragile: 'the coldest joint only just melts' },
    { marginK: 15, fragile: 'the part’s own body' },
    { marginK: 8, fragile: 'U9 joints', ref: 'U9' },
    { marginK: 17, fragile: 'Q1 joints', ref: 'Q1' },
  ]);
});
