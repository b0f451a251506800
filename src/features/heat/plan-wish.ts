import type { HeatPlan } from '@/core/heat';

/** What is asked of the simulation, and whether a look for a plan that holds still goes on. */
export interface PlanWish {
  readonly plan: HeatPlan;
  /** The dial is set before the run; the plan that comes back differs. */
  readonly aim: boolean;
  /** The plan that the look went out from; undefined once the hand has taken over. */
  readonly lookFrom?: HeatPlan;
}

/** What hands and workers do to the plan. What a worker sends after the hand took over finds nothing to change. */
export type WishStep =
  | { readonly by: 'hand'; readonly plan: HeatPlan }
  | { readonly by: 'begin'; readonly plan: HeatPlan }
  | { readonly by: 'aim' }
  | { readonly by: 'takeOver' }
  | { readonly by: 'look'; readonly from: HeatPlan; readonly plan: HeatPlan }
  | { readonly by: 'aimed'; readonly asked: HeatPlan; readonly plan: HeatPlan };

/** A plan is looked for by itself where a part is taken off or put on. */
const isLookedFor = ({ purpose }: HeatPlan): boolean => purpose === 'lift' || purpose === 'place';

/** A plan with its dial to be set, and the look for one that holds where there is one. */
export const beginning = (plan: HeatPlan): PlanWish => ({
  plan,
  aim: true,
  ...(isLookedFor(plan) && { lookFrom: plan }),
});

/** The wish after a step; the same object where the step came too late to count. */
export function afterStep(wish: PlanWish, step: WishStep): PlanWish {
  switch (step.by) {
    case 'hand':
      return { plan: step.plan, aim: false };
    case 'begin':
      return beginning(step.plan);
    case 'aim':
      return { plan: wish.plan, aim: true };
    case 'takeOver':
      return wish.lookFrom ? { plan: wish.plan, aim: wish.aim } : wish;
    case 'look':
      return wish.lookFrom === step.from ? { ...wish, plan: step.plan, aim: false } : wish;
    case 'aimed':
      return wish.aim && wish.plan === step.asked ? { ...wish, plan: step.plan, aim: false } : wish;
  }
}
