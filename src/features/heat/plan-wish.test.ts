import { startingPlan, type HeatPlan } from '@/core/heat';
import { afterStep, beginning, type PlanWish, type WishStep } from './plan-wish';

const planAt = (airSetC: number, purpose: HeatPlan['purpose'] = 'lift'): HeatPlan => {
  const plan = startingPlan('U4', 'SAC305', { name: 'round', diameterMm: 8 } as never, purpose);
  return { ...plan, steps: plan.steps.map((step) => ({ ...step, airSetC: step.airSetC && airSetC })) };
};
const all = (wish: PlanWish, ...steps: WishStep[]): PlanWish => steps.reduce(afterStep, wish);

const first = planAt(350);
const better = planAt(370);
const typed = planAt(410);

it('shows what the look finds while nobody has touched the plan', () => {
  expect(all(beginning(first), { by: 'look', from: first, plan: better })).toEqual({
    plan: better,
    aim: false,
    lookFrom: first,
  });
});

it.each<[string, WishStep]>([
  ['the look', { by: 'look', from: first, plan: better }],
  ['the aimed dial', { by: 'aimed', asked: first, plan: better }],
])('keeps what the hand has typed when the answer of %s comes after it', (_, late) => {
  const byHand = all(beginning(first), { by: 'hand', plan: typed });
  expect(afterStep(byHand, late)).toBe(byHand);
});

it('takes no more from a look once a figure is being typed, and leaves the plan that is shown', () => {
  const wish = all(beginning(first), { by: 'look', from: first, plan: better }, { by: 'takeOver' });
  expect(wish.plan).toBe(better);
  expect(all(wish, { by: 'look', from: first, plan: planAt(380) }).plan).toBe(better);
  expect(afterStep(wish, { by: 'takeOver' })).toBe(wish);
});

it('lets the dial be set that was being set when a figure was begun', () => {
  const wish = all(beginning(first), { by: 'takeOver' }, { by: 'aimed', asked: first, plan: better });
  expect(wish).toEqual({ plan: better, aim: false });
});

it('takes nothing from the look of another beginning', () => {
  const again = all(beginning(first), { by: 'begin', plan: typed });
  expect(all(again, { by: 'look', from: first, plan: better }).plan).toBe(typed);
});

it('looks for a plan where a part is lifted or placed, for nothing else', () => {
  expect(beginning(planAt(350, 'place')).lookFrom).toBeDefined();
  expect(beginning(planAt(350, 'soften')).lookFrom).toBeUndefined();
});

it('asks for the dial again with the plan that is shown', () => {
  expect(all({ plan: typed, aim: false }, { by: 'aim' })).toEqual({ plan: typed, aim: true });
});
