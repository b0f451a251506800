import type { JobAnalysis } from './analysis';
import type { JobState } from '../log';

/** From this share of the belief on, a suspect counts for the advice to stop. Engineering estimate. */
const LIKELY = 0.3;

/** When to walk away, as experienced people say it: a reason a line, none when the job is worth doing. */
export function walkAway({ story, readings }: JobState, analysis: JobAnalysis): string[] {
  const reasons: string[] = [];
  const cracked = analysis.repairs.some((r) => r.cureChance >= LIKELY && r.targets.some((t) => t.kind === 'rail'));
  const bent = story?.history.includes('bend') ?? false;
  if (bent && comesAndGoes(readings)) reasons.push('The board was bent and readings come and go: recommend stopping.');
  if (cracked) reasons.push('An inner trace is likely cracked: recommend stopping, unless the data is what matters.');
  if (analysis.tooDear) {
    const { cost, worth } = analysis.tooDear;
    reasons.push(`About ${Math.round(cost)} still to spend on a device worth ${worth}: recommend stopping.`);
  }
  if (reasons.length > 0) reasons.push('Record what was found. Hours already spent do not count.');
  return reasons;
}

/** A contract that is there once and not the next time differs by far more than a meter does, V. Engineering estimate. */
const ANOTHER_LEVEL_V = 3;

/** The same test taken twice on the same board, good once and bad once. */
function comesAndGoes(readings: JobState['readings']): boolean {
  const first = new Map<string, number>();
  return readings.some(({ measurement, value, absent, replaced }) => {
    const level =
      value.kind === 'pair'
        ? value.volts
        : value.kind === 'pass'
          ? ANOTHER_LEVEL_V
          : value.kind === 'fail'
            ? 0
            : undefined;
    if (level === undefined) return false;
    const key = JSON.stringify([measurement, absent, replaced]);
    const before = first.get(key) ?? level;
    first.set(key, before);
    return Math.abs(level - before) >= ANOTHER_LEVEL_V;
  });
}
