import { resistorsBetween } from '../units';
import { sourcingDefaults, sourcingPracticeSchema } from './settings';

test('defaults: E24 at 1 %, reports by source, proven donors only', () => {
  const settings = sourcingDefaults(sourcingPracticeSchema.parse({}));
  expect(settings).toMatchObject({
    strapSeries: 'E24',
    strapTolerance: 0.01,
    fromDrawer: false,
    unprovenDonors: false,
  });
  expect(settings.weights).toEqual({ own: 1, mate: 0.7, hearsay: 0.3 });
  expect(settings.strapValues).toEqual(resistorsBetween('E24', 1000, 1e6));
});

test('what a bench sets stands beside the defaults', () => {
  const settings = sourcingDefaults(sourcingPracticeSchema.parse({ weights: { hearsay: 0 }, drawerOhm: [10_000] }));
  expect(settings.weights).toEqual({ own: 1, mate: 0.7, hearsay: 0 });
  expect([settings.strapValues, settings.fromDrawer]).toEqual([[10_000], true]);
  expect(sourcingDefaults(sourcingPracticeSchema.parse({ drawerOhm: [] })).fromDrawer).toBe(false);
});

test.each([{ strapTolerance: 0.5 }, { drawerOhm: [0] }, { weights: { own: -1 } }, { strapSeries: 'E7' }])(
  '%j is refused',
  (input) => {
    expect(sourcingPracticeSchema.safeParse(input).success).toBe(false);
  },
);
