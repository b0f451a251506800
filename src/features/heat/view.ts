import { planOfLink, type HeatPlan } from '@/core/heat';
import { problemText } from '@/core/result';

/** What the Heat screen can show; each has an address of its own. */
export const HEAT_VIEWS = [
  { id: 'plan', name: 'The plan', href: '?view=plan' },
  { id: 'foreign', name: 'From another bench', href: '?view=foreign' },
  { id: 'bake', name: 'Baking', href: '?view=bake' },
  { id: 'goals', name: 'Goals and limits', href: '?view=goals' },
] as const;
export type HeatView = (typeof HEAT_VIEWS)[number]['id'];

export const heatView = (asked: string | undefined): HeatView =>
  HEAT_VIEWS.find(({ id }) => id === asked)?.id ?? 'plan';

/** What an address opens: a plan and its station, or a sentence where the plan is torn. */
export function openedBy({ plan, station }: { readonly plan?: string; readonly station?: string }): {
  readonly plan?: HeatPlan;
  readonly stationId?: string;
  readonly problem?: string;
} {
  const read = plan ? planOfLink(plan) : undefined;
  return {
    plan: read?.ok ? read.value : undefined,
    stationId: station,
    problem: read && !read.ok ? problemText(read.problems) : undefined,
  };
}
