import type { TestTable } from './outcome-partition';
import type { FaultSet, HypothesisSpace } from './space';

/** What a reading says to any row of its table. */
export interface RowEvidence {
  readonly table: TestTable;
  readonly likelihoodOf: (row: number) => number;
  /** The same for the rows that were there from the start. */
  readonly likelihood: Float64Array;
}

/** So many of the likeliest sets are extended by one more fault at each step. */
const KEPT = 500;
/** So many extended sets are worked out; the others could hardly count. */
const MOST_WEIGHED = 400;
/** Sets that are so much less likely than the likeliest are not extended. */
const LEAST_SHARE = 1e-4;
/** Nor are sets worked out that look so much less likely than the likeliest. */
const LEAST_GUESS = 1e-6;
/** A reading that is as likely as this, against the likeliest fault for it, needs no other explanation. */
const EXPLAINED = 0.2;
/** One more fault has to make the worst explained reading so much likelier, or be a likely one by itself. */
const LEAST_GAIN = 1.5;
/** So many of the likeliest faults are added to the likeliest sets whatever they explain. */
const COMPANIONS = 24;
const ACCOMPANIED = 8;
/** The largest set. */
const MOST_FAULTS = 4;

interface Weighed {
  readonly faults: readonly number[];
  readonly p: number;
}

/**
 * Sets of three and four faults, best first: the likeliest sets are extended by the faults that raise the likelihood of
 * their worst explained reading. Probabilities are in the scale of `p`, before they are made to sum to one together.
 * @param p singles and pairs after all readings. @param total what the readings came to, as the product of the sums of each.
 */
export function bestSets(
  space: HypothesisSpace,
  priorOf: (faults: readonly number[]) => number,
  p: Float64Array,
  evidence: readonly RowEvidence[],
  logTotal: number,
): FaultSet[] {
  const keys: number[] = [];
  const likelihoods = (faults: readonly number[]): number[] =>
    evidence.map(({ table, likelihoodOf }) => {
      for (let i = 0; i < faults.length; i++) keys[i] = table.keyOf[faults[i]];
      keys.length = faults.length;
      return likelihoodOf(table.rowOfAll(keys));
    });
  const weigh = (faults: readonly number[]): number =>
    priorOf(faults) * Math.exp(likelihoods(faults).reduce((sum, l) => sum + Math.log(Math.max(l, 1e-300)), -logTotal));
  const top = evidence.map((e) => e.likelihood.reduce((most, l) => Math.max(most, l), 0));
  const marginal = space.classMarginal(p);
  const companions = [...space.standsFor.keys()]
    .sort((a, b) => marginal[b] - marginal[a])
    .slice(0, COMPANIONS)
    .map((c) => space.standsFor[c]);

  // Where there are few faults at all, every set is extended by every one of them.
  const areFew = space.standsFor.length <= COMPANIONS;
  const accompanied = areFew ? Infinity : ACCOMPANIED;
  const alone = Float64Array.from(space.standsFor, (f) => priorOf([f]));
  const byKey = evidence.map(({ table }) => likeliestByKey(space.standsFor, table.keyOf, alone));
  let parents = likeliest(space, p, areFew ? 0 : LEAST_SHARE);
  const likeliestP = p.reduce((most, v) => Math.max(most, v), 0);
  const found: FaultSet[] = [];
  const seen = new Set<string>();
  for (let size = 3; size <= MOST_FAULTS && parents.length > 0; size++) {
    const candidates: Weighed[] = [];
    const least = areFew ? 0 : LEAST_GUESS * likeliestP;
    const offer = (faults: readonly number[], guess: number): void => {
      if (guess < least) return;
      const set = [...faults].sort((a, b) => a - b);
      const name = set.join(' ');
      if (seen.has(name) || !areOfDifferentParts(space, set)) return;
      seen.add(name);
      candidates.push({ faults: set, p: guess });
    };
    parents.forEach((parent, rank) => {
      const each = likelihoods(parent.faults);
      const worst = each.reduce((w, l, r) => (l / top[r] < each[w] / top[w] ? r : w), 0);
      if (each[worst] < EXPLAINED * top[worst]) {
        const most = parent.p * (top[worst] / Math.max(each[worst], 1e-300));
        for (const [key, classes] of byKey[worst]) {
          // Not even if it explained the reading as well as anything does.
          if (most * alone[classes[0]] < least) continue;
          const gain = gainOf(evidence[worst], parent.faults, key, each[worst]);
          if (gain < LEAST_GAIN) continue;
          for (const c of classes) {
            const guess = parent.p * gain * alone[c];
            if (guess < least) break;
            offer([...parent.faults, space.standsFor[c]], guess);
          }
        }
      }
      if (rank < accompanied) for (const f of companions) offer([...parent.faults, f], parent.p * priorOf([f]));
    });
    candidates.sort((a, b) => b.p - a.p);
    const weighed = candidates
      .slice(0, areFew ? Infinity : MOST_WEIGHED)
      .map(({ faults }): FaultSet => ({ faults, p: weigh(faults) }));
    parents = weighed
      .sort((a, b) => b.p - a.p)
      .slice(0, KEPT)
      .filter((s) => s.p > 0);
    found.push(...parents);
  }
  return found;
}

/** Classes by their key in a test that they change, those of one key likeliest first. */
function likeliestByKey(standsFor: Uint16Array, keyOf: Uint16Array, alone: Float64Array): Map<number, number[]> {
  const byKey = new Map<number, number[]>();
  standsFor.forEach((f, c) => {
    if (keyOf[f] === 0) return;
    const classes = byKey.get(keyOf[f]);
    if (classes) classes.push(c);
    else byKey.set(keyOf[f], [c]);
  });
  for (const classes of byKey.values()) classes.sort((a, b) => alone[b] - alone[a]);
  return byKey;
}

/** How much likelier a reading gets with one more fault of a key. */
const gainOf = ({ table, likelihoodOf }: RowEvidence, faults: readonly number[], key: number, now: number): number =>
  likelihoodOf(table.rowOfAll([...faults.map((f) => table.keyOf[f]), key])) / Math.max(now, 1e-300);

function likeliest(space: HypothesisSpace, p: Float64Array, leastShare: number): Weighed[] {
  let from = 0;
  for (const v of p) from = Math.max(from, v);
  from *= leastShare;
  const list: Weighed[] = [];
  space.forEach((h, i, j) => {
    if (j >= 0 && p[h] > from) list.push({ faults: [i, j], p: p[h] });
  });
  return list.sort((a, b) => b.p - a.p).slice(0, KEPT);
}

/** No fault twice, and no two of one part: those are one hypothesis of their own. */
function areOfDifferentParts({ faults, classes }: HypothesisSpace, set: readonly number[]): boolean {
  const parts = set.map((f) => (classes.members[classes.of[f]].length > 1 ? `class ${f}` : partOf(faults[f])));
  return new Set(parts).size === set.length;
}

const partOf = ({ ref, id, fitting }: HypothesisSpace['faults'][number]): string =>
  ref === '' ? id : `${ref} ${fitting ?? ''}`;
