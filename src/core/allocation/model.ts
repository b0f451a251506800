import { fail, ok, type Result } from '../result';
import type { AllocationOption, AllocationPlan, AllocationProblem } from './problem';

/** Takes a program in LP text and gives the variables that are not zero, or undefined when it is not solved to the end. */
export type IntegerSolver = (lp: string) => ReadonlyMap<string, number> | undefined;

/**
 * The queue as an integer program in LP text. Variables: `o` a donor is opened, `x` an option is taken, `u` a need is left.
 *
 *   min  Σ open · o + Σ cost · x + big · Σ u
 *   each need:              Σ x + u = 1
 *   each supply:            Σ x ≤ count (· o of its donor)
 *   each option of a donor: x ≤ o
 *
 * Only `o` has to be declared whole: with the donors fixed the rest is a transportation problem with whole supplies and
 * needs, whose optimal corners are whole (Dantzig 1951), so the search branches on donors alone.
 * @param opened fixes the donors; everything is then declared whole, so that of several best answers one is told.
 */
export function lpText({ needs, supplies, donors, options }: AllocationProblem, opened?: ReadonlySet<string>): string {
  const donorIndex = new Map(donors.map((d, i) => [d.id, i]));
  const supplyOf = new Map(supplies.map((s) => [s.id, s]));
  const openOf = (option: AllocationOption): number | undefined => {
    const donor = supplyOf.get(option.supply)?.donor;
    return donor === undefined ? undefined : donorIndex.get(donor);
  };
  const byNeed = indicesBy(options, (o) => o.need);
  const bySupply = indicesBy(options, (o) => o.supply);
  const big = penalty({ needs, supplies, donors, options });
  const objective = [
    ...donors.map((d, i) => term(d.cost, `o${i}`)),
    ...options.map((o, i) => term(o.cost, `x${i}`)),
    ...needs.map((_, i) => term(big, `u${i}`)),
  ];
  const rows = [
    ...needs.map((n, i) => `${[...(byNeed.get(n.id) ?? []).map((k) => `x${k}`), `u${i}`].join(' + ')} = 1`),
    ...supplies.flatMap((s) => {
      const taken = bySupply.get(s.id) ?? [];
      if (s.count === undefined || taken.length === 0) return [];
      const sum = taken.map((k) => `x${k}`).join(' + ');
      return s.donor === undefined
        ? [`${sum} <= ${s.count}`]
        : [`${sum} - ${s.count} o${donorIndex.get(s.donor)!} <= 0`];
    }),
    ...options.flatMap((option, k) => {
      const open = openOf(option);
      return open === undefined ? [] : [`x${k} - o${open} <= 0`];
    }),
  ];
  const shares = [...options.map((_, k) => `x${k}`), ...needs.map((_, i) => `u${i}`)];
  const fixed = opened ? donors.map((d, i) => `o${i} = ${Number(opened.has(d.id))}`) : [];
  const whole = opened ? shares : donors.map((_, i) => `o${i}`);
  return [
    'Minimize',
    ` cost: ${objective.join('\n + ')}`,
    'Subject To',
    ...rows.map((row, i) => ` r${i}: ${row}`),
    'Bounds',
    ...(opened ? fixed : shares.map((name) => `0 <= ${name} <= 1`)),
    ...(whole.length > 0 ? ['Binaries', ...whole] : []),
    'End',
  ].join('\n');
}

/** Leaving one need costs more than anything that would meet it: the most needs are met first, then at the least cost. */
function penalty({ needs, donors, options }: AllocationProblem): number {
  const dearest = options.reduce((most, o) => Math.max(most, o.cost), 0);
  return 1 + donors.reduce((sum, d) => sum + d.cost, 0) + needs.length * dearest;
}

const term = (factor: number, name: string): string => `${factor.toFixed(6)} ${name}`;

function indicesBy<T>(items: readonly T[], keyOf: (item: T) => string): Map<string, number[]> {
  const groups = new Map<string, number[]>();
  items.forEach((item, i) => {
    const key = keyOf(item);
    const group = groups.get(key);
    if (group) group.push(i);
    else groups.set(key, [i]);
  });
  return groups;
}

/** Solves the queue to the least expected cost. @param solve an exact integer-programming solver. */
export function allocate(problem: AllocationProblem, solve: IntegerSolver): Result<AllocationPlan> {
  if (problem.needs.length === 0) return ok({ cost: 0, open: [], assigned: [], unmet: [] });
  const first = solve(lpText(problem));
  const open = problem.donors.filter((_, i) => isOn(first, `o${i}`)).map((d) => d.id);
  const values = first && solve(lpText(problem, new Set(open)));
  if (!values) return fail('The plan was not solved to the end; expected an optimal answer.');
  const assigned = problem.options.filter((_, k) => isOn(values, `x${k}`));
  const unmet = problem.needs.filter((_, i) => isOn(values, `u${i}`)).map((n) => n.id);
  return ok({ cost: planCost(problem, open, assigned), open, assigned, unmet });
}

const isOn = (values: ReadonlyMap<string, number> | undefined, name: string): boolean => (values?.get(name) ?? 0) > 0.5;

/** What a plan costs, without anything for needs that are left. */
export function planCost(
  { donors }: AllocationProblem,
  open: readonly string[],
  assigned: readonly AllocationOption[],
): number {
  const opening = donors.filter((d) => open.includes(d.id)).reduce((sum, d) => sum + d.cost, 0);
  return opening + assigned.reduce((sum, o) => sum + o.cost, 0);
}
