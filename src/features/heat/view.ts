/** What the Heat screen can show; each has an address of its own. */
export const HEAT_VIEWS = [
  { id: 'plan', name: 'The plan', href: '?view=plan' },
  { id: 'foreign', name: 'From another bench', href: '?view=foreign' },
] as const;
export type HeatView = (typeof HEAT_VIEWS)[number]['id'];

export const heatView = (asked: string | undefined): HeatView =>
  HEAT_VIEWS.find(({ id }) => id === asked)?.id ?? 'plan';
