import type { PartRef } from '../identities';
import type { Board } from '../board';
import { formatChance } from '../units';
import { glimpsed, suspectName, suspects, weightsFor, type Belief, type BoardNow } from './belief';
import { OUTSIDE } from './faults';
import { outcomeLabel, readingName, valueLabel } from './measurement';
import type { Measurement } from './measurements/registry';
import type { Outcome } from './next';
import type { TestTable } from './outcome-partition';
import type { Reading } from './reading';
import { likelyRows } from './likely';

/** Outcomes rarer than this are not told. */
const LEAST_CHANCE = 0.02;

/** What each likely outcome of a test would say: "Near 1.60 Ω: U4, 88 %." At most `most` sentences, likeliest first. */
export function outlook(
  belief: Belief,
  m: Measurement,
  { table, outcomes }: { readonly table: TestTable; readonly outcomes: readonly Outcome[] },
  now?: BoardNow,
  most = 2,
): string[] {
  const rows = likelyRows(belief.likely, table);
  return [...outcomes]
    .filter((o) => o.p > LEAST_CHANCE)
    .sort((a, b) => b.p - a.p)
    .slice(0, most)
    .map((o) => {
      const top = suspects(glimpsed(belief, rows, o.given), now)[0];
      return `${capital(outcomeLabel(m, o))}: then ${suspectName(top.ref)}, ${formatChance(top.p)}.`;
    });
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** Why the leading suspect leads: the readings that made it so, in words. */
export function reasons(
  board: Board,
  belief: Belief,
  readings: readonly Reading[],
  ref: PartRef,
  now?: BoardNow,
  most = 3,
): string[] {
  return weightsFor(belief, ref, now)
    .filter((w) => Math.abs(w.decades) > 0.15)
    .slice(0, most)
    .map((w) => {
      const r = readings[w.reading];
      const factor = 10 ** Math.abs(w.decades);
      const times = factor > 20 ? 'far' : factor > 3 ? `${Math.round(factor)} times` : 'somewhat';
      const what = `${readingName(board, r.measurement)} ${valueLabel(r.measurement, r.value)}`;
      const fault = ref === OUTSIDE ? 'a sound board' : `${ref} at fault`;
      return `${what}: ${times} ${w.decades > 0 ? 'likelier' : 'less likely'} with ${fault}.`;
    });
}
