import { outlookOf } from './outlook';

const fit = { success: { mean: 0.8 } } as Parameters<typeof outlookOf>[0]['fit'];

test('chances multiply, costs add, and the worth at which it pays follows (by hand)', () => {
  const outlook = outlookOf({ fit, cost: 20 }, { cureChance: 0.5, minutes: 30, harm: 0.1 }, 60, 200);
  expect(outlook.chance).toBeCloseTo(0.5 * 0.8 * 0.9, 12);
  expect(outlook.cost).toBe(50);
  expect(outlook.breakEven).toBeCloseTo(50 / 0.36, 9);
  expect(outlook.gain).toBeCloseTo(200 * 0.36 - 50, 9);
});

test('the break-even worth gains exactly nothing; without a worth no gain is claimed', () => {
  const repair = { cureChance: 0.7, minutes: 20, harm: 0.02 };
  const { breakEven } = outlookOf({ fit, cost: 10 }, repair, 60);
  expect(outlookOf({ fit, cost: 10 }, repair, 60, breakEven).gain).toBeCloseTo(0, 9);
  expect(outlookOf({ fit, cost: 10 }, repair, 60).gain).toBeUndefined();
});
