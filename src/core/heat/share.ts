import { fail, ok, type Result } from '../result';
import { heatPlanSchema, type HeatPlan } from './plan';
import type { HeatCurves } from './simulate';

/** All curves of a run, one row a second: time, then joints (coldest, mean, hottest) and hottest body of every part, °C. */
export function curvesCsv({ timesS, parts }: HeatCurves): string {
  const heads = parts.flatMap(({ ref }) =>
    ['joint_min', 'joint_mean', 'joint_max', 'body_max'].map((what) => `${ref}_${what}_C`),
  );
  const rows = Array.from(timesS, (t, i) =>
    [t, ...parts.flatMap((p) => [p.jointMinC[i], p.jointMeanC[i], p.jointMaxC[i], p.bodyMaxC[i]])].map((v, c) =>
      c === 0 ? String(v) : v.toFixed(2),
    ),
  );
  return [['time_s', ...heads], ...rows].map((row) => row.join(',')).join('\n') + '\n';
}

/** The query of an address that opens a plan again. */
export const planLink = (plan: HeatPlan, stationId: string): string =>
  `?view=plan&station=${encodeURIComponent(stationId)}&plan=${encodeURIComponent(JSON.stringify(plan))}`;

/** Reads the plan of such an address. */
export function planOfLink(text: string): Result<HeatPlan> {
  let input: unknown;
  try {
    input = JSON.parse(text);
  } catch {
    return fail('Expected a heat plan in the address; got text that is not JSON.');
  }
  const parsed = heatPlanSchema.safeParse(input);
  if (parsed.success) return ok(parsed.data);
  const [{ path, message }] = parsed.error.issues;
  return fail(`Expected a heat plan in the address; ${path.map(String).join('.')}: ${message}.`);
}
