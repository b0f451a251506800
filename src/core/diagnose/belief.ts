import type { PartRef } from '../identities';
import { FaultCase } from './case';
import { tellApart, type FaultClasses } from './classes';
import { dropScaleOf, scaled } from './drop-scale';
import { bestSets, type RowEvidence } from './fault-sets';
import { OUTSIDE, UNLISTED, isGone, workNames, type Fault, type HistoryFlag } from './faults';
import { measurementId, powerNeedOf } from './measurement';
import { changedShare, likelihood, type Around } from './likelihood';
import type { TestTable } from './outcome-partition';
import { DEFAULT_PRACTICE, type JobPractice } from './practice';
import type { Predictor } from './predictor';
import { clearedFaults, type Reading } from './reading';
import { HypothesisSpace, type FaultSet, type SetPrior } from './space';
import type { Value } from './value';
import { hypothesesWith, likelyRow, type Likely } from './likely';

export interface Evidence {
  readonly table: TestTable;
  /** The reading as it counts: drops on the scale of the board file. */
  readonly value: Value;
  readonly around: Around;
  /** Likelihood of the reading by row of its table; rows that came later are asked of {@link likelihoodOf}. */
  readonly likelihood: Float64Array;
  readonly likelihoodOf: (row: number) => number;
}

export interface Belief {
  readonly case: FaultCase;
  readonly space: HypothesisSpace;
  readonly faults: readonly Fault[];
  /** Probability of each hypothesis before any reading: worked out when it is asked for; numbered as in the space. */
  readonly prior: () => Float64Array;
  /** What it comes to by row of a reading's table. */
  readonly priorMass: (reading: number) => Float64Array;
  /** And now. */
  readonly p: Float64Array;
  /** Sets of three and four faults; with {@link p} they sum to one. */
  readonly sets: readonly FaultSet[];
  /** Share of each fault within its class. */
  readonly within: Float64Array;
  readonly likely: Likely;
  /** Chance of each fault, alone or with another. */
  readonly marginal: Float64Array;
  /** One for each reading, in order. */
  readonly evidence: readonly Evidence[];
}

/** Spaces and priors are the same for every job with the same story: kept by case. */
const priors = new WeakMap<FaultClasses, Map<string, { space: HypothesisSpace; prior: SetPrior }>>();
/** So many priors of one case are kept. */
const MOST_PRIORS = 24;

function priorFor(
  faultCase: FaultCase,
  classes: FaultClasses,
  history: readonly HistoryFlag[],
  practice: JobPractice,
): { space: HypothesisSpace; prior: SetPrior } {
  let kept = priors.get(classes);
  if (!kept) priors.set(classes, (kept = new Map<string, { space: HypothesisSpace; prior: SetPrior }>()));
  const { factors, records, doubleShare, deadOnArrival, unlisted, again } = practice;
  const key = JSON.stringify([[...history].sort(), factors, records, doubleShare, deadOnArrival, unlisted, again]);
  let found = kept.get(key);
  if (!found) {
    const space = new HypothesisSpace(faultCase.faults, classes);
    found = { space, prior: space.prior(faultCase.predictor.board, history, practice) };
    if (kept.size >= MOST_PRIORS) kept.delete(kept.keys().next().value!);
    kept.set(key, found);
  }
  return found;
}

/** Classes likelier than this are told apart into their faults, as far as there is room. */
const APART_FROM = 0.002;

/** Parts that were off or new when something was read. */
const workedParts = (readings: readonly Reading[]): string[] =>
  readings.flatMap((r) => [...(r.absent ?? []), ...(r.replaced ?? []).map(refOfWork)]);

/** A proof on the board as it was then: the complaint was gone, or still there. */
export interface Proof extends Pick<Reading, 'absent' | 'replaced' | 'swapped'> {
  readonly holds: boolean;
}

/**
 * Counts readings into the prior. Readings are independent given the faults; one that was taken again and reads the same
 * counts once, since what misled it the first time misleads it again.
 * @param replaced parts that are new by now, each as often as it was replaced: what their fittings may have left behind is
 * reckoned with.
 */
export function updateBelief(
  predictor: Predictor,
  readings: readonly Reading[],
  history: readonly HistoryFlag[],
  practice: JobPractice = DEFAULT_PRACTICE,
  replaced: Iterable<string> = readings.at(-1)?.replaced ?? [],
  proofs: readonly Proof[] = [],
): Belief {
  const faultCase = FaultCase.of(
    predictor.openedFor(readings, [...workedParts(readings), ...Array.from(replaced, refOfWork)]),
    replaced,
  );
  const { faults } = faultCase;
  const scale = dropScaleOf(predictor, readings);
  const tables = readings.map((r) => faultCase.table(r.measurement, new Set(r.absent ?? []), clearedFaults(r)));
  const values = readings.map((r) => scaled(r, scale));
  const names = readings.map(answerName);
  const counts = names.map((name, i) => names.indexOf(name) === i);
  const changed = broadShares(readings, values, tables, counts);
  const evidence = readings.map((r, i): Evidence => {
    const [table, value] = [tables[i], values[i]];
    const around = { before: earlierValue(readings, values, i), broadShare: changed[i] };
    const likelihoodOf = (row: number): number =>
      counts[i] ? likelihood(r.measurement, value, table.rows[row], practice, around) : 1;
    const known: number[] = [];
    return {
      ...{ table, value, around },
      likelihood: Float64Array.from(table.rows, (_, row) => likelihoodOf(row)),
      likelihoodOf: (row) => (known[row] ??= likelihoodOf(row)),
    };
  });
  // In one order, whichever way round they were taken: what is cut off among near-equals is then the same.
  const inOrder = [...names.keys()].sort((a, b) => (names[a] < names[b] ? -1 : 1)).map((i) => evidence[i]);
  const all: readonly RowEvidence[] = [
    ...inOrder,
    ...proofs.map((proof) => proofEvidence(faultCase.proofTable(clearedFaults(proof)), proof)),
  ];
  const worked = new Set(workedParts(readings));
  for (const r of readings) if (r.measurement.kind === 'liftedResistance') worked.add(r.measurement.ref);
  for (const name of replaced) worked.add(refOfWork(name));
  const whole = faultCase.classes(
    worked,
    all.map((e) => e.table.keyOf),
  );
  const wide = counted(faultCase, whole, all, history, practice);
  const { prior, logTotal } = wide;
  const classes = tellApart(whole, wide.space.classMarginal(wide.p), APART_FROM);
  const isWhole = classes.members.length === whole.members.length;
  const space = isWhole ? wide.space : new HypothesisSpace(faults, classes);
  const spread = (of: Float64Array): Float64Array => (isWhole ? of : space.spreadFrom(wide.space, of, prior.share));
  const p = spread(wide.p);
  const shares = space.classShares(prior.share);
  const weighSet = (set: readonly number[]): number => prior.ofSet(set, space, shares);
  const sets = all.length === 0 ? [] : bestSets(space, weighSet, p, all, logTotal);
  const total = sets.reduce((sum, s) => sum + s.p, 1);
  for (let h = 0; h < p.length; h++) p[h] /= total;
  const priorP = once(() => spread(prior.p));
  const priorMasses = evidence.map(({ table }) => once(() => space.rowMass(priorP(), table)));
  return settled({
    case: faultCase,
    space,
    faults,
    prior: priorP,
    priorMass: (reading) => priorMasses[reading](),
    p,
    sets: sets.map((s) => ({ ...s, p: s.p / total })),
    within: isWhole ? prior.within : Float64Array.from(prior.share, (v, f) => (v > 0 ? v / shares[classes.of[f]] : 0)),
    evidence,
  });
}

/** A proof is a yes or no of its own; there are no slips beside what it overlooks. */
function proofEvidence(table: TestTable, { holds }: Proof): RowEvidence {
  const likelihoodOf = (row: number): number => {
    const prediction = table.rows[row];
    const fails = prediction.kind === 'verdict' ? prediction.failChance : 0.5;
    return holds ? 1 - fails : fails;
  };
  return { table, likelihoodOf, likelihood: Float64Array.from(table.rows, (_, row) => likelihoodOf(row)) };
}

/** A value that is made when it is first asked for. */
function once<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}

/** What follows from the probabilities. */
const settled = (belief: Omit<Belief, 'likely' | 'marginal'>): Belief => ({
  ...belief,
  likely: belief.space.likely(belief.p, undefined, belief.sets),
  marginal: belief.space.marginal(belief.p, belief.within, belief.sets),
});

function counted(
  faultCase: FaultCase,
  classes: FaultClasses,
  evidence: readonly RowEvidence[],
  history: readonly HistoryFlag[],
  practice: JobPractice,
): { space: HypothesisSpace; prior: SetPrior; p: Float64Array; logTotal: number } {
  const { space, prior } = priorFor(faultCase, classes, history, practice);
  const p = prior.p.slice();
  return { space, prior, logTotal: space.updateAll(p, evidence), p };
}

/** What the same test read before, on the board as it was then. */
function earlierValue(readings: readonly Reading[], values: readonly Value[], i: number): Value | undefined {
  const id = measurementId(readings[i].measurement);
  for (let k = i - 1; k >= 0; k--) if (measurementId(readings[k].measurement) === id) return values[k];
  return undefined;
}

/**
 * Share of readings that something unlisted changes, for each reading, given the others: a fault that left nine readings of
 * its nets as they should be mostly leaves the tenth too. Laplace's rule over the other readings, with power or without,
 * that touch the same nets; independent of their order.
 */
function broadShares(
  readings: readonly Reading[],
  values: readonly Value[],
  tables: readonly TestTable[],
  counts: readonly boolean[],
): (number | undefined)[] {
  const changed = readings.map(({ measurement: m }, i) =>
    changedShare(m, values[i], tables[i].rows[0], tables[i].unlistedHere),
  );
  const isPowered = readings.map(({ measurement: m }) => powerNeedOf(m).kind !== 'none');
  // A port or a function that works says by itself that nothing keeps it from working.
  const isProbed = readings.map(({ measurement: m }, i) => m.kind === 'railVoltage' || !isPowered[i]);
  return readings.map((_, i) => {
    if (!isProbed[i]) return undefined;
    let [sum, count] = [1, 2];
    readings.forEach((_other, k) => {
      if (
        k === i ||
        !counts[k] ||
        !isProbed[k] ||
        isPowered[k] !== isPowered[i] ||
        !meet(tables[i].touched, tables[k].touched)
      )
        return;
      sum += changed[k];
      count++;
    });
    return sum / count;
  });
}

function meet(a: ReadonlySet<string>, b: ReadonlySet<string>): boolean {
  for (const net of a) if (b.has(net)) return true;
  return false;
}

/** The part that a piece of work was done to: `U9` of `U9/image`. */
const refOfWork = (key: string): string => key.split(/[/@]/)[0];

/** Names the test, its answer and the board as it was then: what is of one name says the same once more. */
const answerName = ({ measurement, value, absent = [], replaced = [], swapped = [] }: Reading): string =>
  JSON.stringify([measurementId(measurement), value, absent, replaced, swapped]);

/** The belief if a test came out in one of its classes. */
export function conditioned(belief: Belief, table: TestTable, given: Float64Array): Belief {
  const { space, sets } = belief;
  const p = belief.p.slice();
  const plain = p.reduce((sum, v) => sum + v, 0);
  const weighed = sets.map((s) => ({ ...s, p: s.p * given[table.rowOfAll(s.faults.map((f) => table.keyOf[f]))] }));
  const total = space.update(p, table, given);
  const all = weighed.reduce((sum, s) => sum + s.p, total);
  for (let h = 0; h < p.length; h++) p[h] *= total / all;
  return plain > 0 ? settled({ ...belief, p, sets: weighed.map((s) => ({ ...s, p: s.p / all })) }) : belief;
}

/**
 * The belief if a test came out in one of its classes, as far as suspects go: over the likely hypotheses alone, which is
 * some hundred times quicker than {@link conditioned} and right to what those leave out.
 * @param rows of the likely hypotheses in the test's table.
 */
export function glimpsed(belief: Belief, rows: Uint32Array, given: Float64Array): Pick<Belief, 'faults' | 'marginal'> {
  const { faults, within, likely, space } = belief;
  const { of, members } = space.classes;
  const byClass = new Float64Array(members.length);
  const { first, second, singles, pairsEnd, sets } = likely;
  let total = 0;
  for (let k = 0; k < pairsEnd; k++) {
    const p = likely.p[k] * given[rows[k]];
    total += p;
    byClass[of[first[k]]] += p;
    if (k >= singles) byClass[of[second[k]]] += p;
  }
  for (let s = 0; s < sets.length; s++) {
    const p = likely.p[pairsEnd + s] * given[rows[pairsEnd + s]];
    total += p;
    for (const f of sets[s]) byClass[of[f]] += p;
  }
  return { faults, marginal: within.map((share, f) => (share * byClass[of[f]]) / total) };
}

export interface Suspect {
  /** The part, or {@link OUTSIDE}. */
  readonly ref: PartRef;
  readonly label: string;
  /** Chance that it is at fault, alone or with another. */
  readonly p: number;
  /** The likeliest fault mode of the part. */
  readonly fault: Fault;
}

export const refOf = (f: Fault): string => f.ref || OUTSIDE;

/** The board as it is now: what is off, and what was worked on, a target as often as that was. */
export interface BoardNow {
  readonly absent?: Iterable<string>;
  readonly replaced?: Iterable<string>;
  readonly swapped?: Reading['swapped'];
}

/** True for faults that the board still has, if it ever had them. A part that is off comes back with what it has. */
export function aliveNow({ replaced = [], swapped = [] }: BoardNow): (f: Fault) => boolean {
  const cleared = new Set(workNames(clearedFaults({ replaced: [...replaced], swapped })));
  return (f) => !isGone(f, NONE, cleared);
}

const NONE: ReadonlySet<string> = new Set();

/**
 * Parts by probability, each with its likeliest fault mode. With two faults at once the chances sum to more than one.
 * @param now the board as it is: what was mended is no suspect any more. Left out, every fault there ever was counts.
 */
export function suspects(belief: Pick<Belief, 'faults' | 'marginal'>, now?: BoardNow): Suspect[] {
  const { faults, marginal } = belief;
  const isAlive = now ? aliveNow(now) : () => true;
  const byRef = new Map<string, { p: number; best: number }>();
  faults.forEach((f, i) => {
    if (!isAlive(f)) return;
    const entry = byRef.get(refOf(f));
    if (!entry) byRef.set(refOf(f), { p: marginal[i], best: i });
    else {
      entry.p += marginal[i];
      if (marginal[i] > marginal[entry.best]) entry.best = i;
    }
  });
  return [...byRef]
    .map(([ref, { p, best }]) => {
      // What no list holds is named by its net only where it is mostly there.
      const label = ref === UNLISTED && marginal[best] < p / 2 ? 'Something that no list holds' : faults[best].label;
      return { ref, p: Math.min(1, p), fault: faults[best], label };
    })
    .sort((a, b) => b.p - a.p);
}

/** A suspect's name within a sentence. */
export const suspectName = (ref: PartRef): string =>
  ref === OUTSIDE ? 'nothing on this board' : ref === UNLISTED ? 'something unlisted' : ref;

/** From this chance on something that was mended is told as found and cured. Engineering estimate. */
const CURED_FROM = 0.2;

/** What was at fault and is mended by now, likeliest first. */
export function curedFaults(belief: Belief, now: BoardNow): Suspect[] {
  const isAlive = aliveNow(now);
  return belief.faults
    .flatMap((fault, i): Suspect[] =>
      fault.fitting === undefined && !isAlive(fault) && belief.marginal[i] >= CURED_FROM
        ? [{ ref: refOf(fault), label: fault.label, p: belief.marginal[i], fault }]
        : [],
    )
    .sort((a, b) => b.p - a.p);
}

export interface Weight {
  /** Index of the reading. */
  readonly reading: number;
  /** log10 of how much likelier the reading is with the suspect at fault than with it sound, before any reading. */
  readonly decades: number;
}

/** The readings that speak for or against a suspect as it is now, strongest first. */
export function weightsFor(belief: Belief, ref: PartRef, now?: BoardNow): Weight[] {
  const { space, faults, likely, evidence } = belief;
  if (evidence.length === 0) return [];
  const isAlive = now ? aliveNow(now) : () => true;
  const isMine = Uint8Array.from([...faults.map((f) => Number(refOf(f) === ref && isAlive(f))), 0]);
  // With the suspect at fault: as it is believed now. Without: as it was before any reading.
  const own = hypothesesWith(likely, isMine);
  const ownP = own.reduce((sum, k) => sum + likely.p[k], 0);
  return evidence
    .map((e, reading) => {
      const guilty = own.reduce((sum, k) => sum + likely.p[k] * e.likelihoodOf(likelyRow(likely, e.table, k)), 0);
      const without = meanOver(
        space.rowMassWithout(belief.priorMass(reading), belief.prior(), e.table, isMine),
        e.likelihoodOf,
      );
      return { reading, decades: Math.log10(guilty / ownP / without) };
    })
    .sort((a, b) => Math.abs(b.decades) - Math.abs(a.decades));
}

/** Mean of a figure per row, by the rows' mass. */
function meanOver(mass: Float64Array, perRow: (row: number) => number): number {
  let total = 0;
  let value = 0;
  for (let row = 0; row < mass.length; row++) {
    total += mass[row];
    if (mass[row] > 0) value += mass[row] * perRow(row);
  }
  return value / total;
}
