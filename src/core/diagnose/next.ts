import type { PartRef } from '../identities';
import { entropyBits } from '../math';
import { aliveNow, type Belief } from './belief';
import type { Access } from './access';
import type { OutsideThing } from './faults';
import { measurementId, testMinutes } from './measurement';
import type { Near } from './measurements/definition';
import { MEASUREMENT_KINDS, definitionOf, type Measurement } from './measurements/registry';
import type { OutcomeClass } from './outcome-classes';
import type { TestTable } from './outcome-partition';
import { DEFAULT_PRACTICE, errorRate, type Practice } from './practice';
import { clearedFaults, type Reading } from './reading';
import { likelyRowMass } from './likely';

/** A class of readings with its chance under the present belief. */
export interface Outcome extends OutcomeClass {
  readonly p: number;
}

export interface Proposal {
  readonly measurement: Measurement;
  readonly bits: number;
  readonly minutes: number;
  readonly bitsPerMinute: number;
}

/** The outcomes of a test with their chances, and the table behind them. */
export function outcomesOf(
  belief: Belief,
  m: Measurement,
  absent: ReadonlySet<PartRef>,
  cleared: Iterable<string>,
): { table: TestTable; mass: Float64Array; outcomes: Outcome[] } {
  const table = belief.case.table(m, absent, cleared);
  const mass = likelyRowMass(belief.likely, table);
  const outcomes = table.classes.map((o) => ({ ...o, p: dot(mass, o.given) }));
  return { table, mass, outcomes };
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}

/** Expected drop of entropy in bits: the mutual information of fault and outcome through a channel with slips. */
export function informationBits(outcomes: readonly Outcome[], mass: Float64Array, errorRate: number): number {
  const k = outcomes.length;
  if (k < 2) return 0;
  const throughSlips = (x: number): number => (1 - errorRate) * x + errorRate / k;
  const total = entropyBits(outcomes.map((o) => throughSlips(o.p)));
  const rest = new Float64Array(k);
  let noise = 0;
  for (let row = 0; row < mass.length; row++) {
    if (mass[row] < 1e-12) continue;
    for (let c = 0; c < k; c++) rest[c] = throughSlips(outcomes[c].given[row]);
    noise += mass[row] * entropyBits(rest);
  }
  return Math.max(0, total - noise);
}

/** The board and the bench as a test would find them. */
export interface TestContext {
  readonly access: Access;
  /** Shields that are off. */
  readonly bare?: ReadonlySet<string>;
  readonly absent: ReadonlySet<PartRef>;
  /** What was replaced or mended, a target as often as it was worked on. */
  readonly replaced: readonly string[];
  readonly swapped?: readonly OutsideThing[];
  readonly taken: readonly Reading[];
  readonly practice?: Practice;
  /** What the device is worth to its owner, in the shop's money. */
  readonly worth?: number;
  /** Where the probe is now: of tests as good as equal the nearest comes first. */
  readonly near?: Near;
}

/** What one test would say, and what it takes, whether or not it was taken before. */
export function proposalOf(belief: Belief, measurement: Measurement, context: TestContext): Proposal {
  const { board } = belief.case.predictor;
  const practice = context.practice ?? DEFAULT_PRACTICE;
  const cleared = clearedFaults({ replaced: context.replaced, swapped: context.swapped });
  const { outcomes, mass } = outcomesOf(belief, measurement, context.absent, cleared);
  const bits = informationBits(outcomes, mass, errorRate(measurement.kind, practice));
  const minutes = testMinutes(board, measurement, context.access, context.bare);
  return { measurement, bits, minutes, bitsPerMinute: bits / minutes };
}

/** Tests worth their minutes, best first. Tests already taken on the board as it is now are left out. */
export function proposeTests(belief: Belief, context: TestContext): Proposal[] {
  const { tests } = belief.case.predictor;
  const practice = context.practice ?? DEFAULT_PRACTICE;
  const swapped = context.swapped ?? [];
  const taken = takenAlready(context, swapped);
  return [...tests, ...proposedBy(belief, context)]
    .filter((m) => m.kind !== 'knownGoodSwap' || !swapped.includes(m.what))
    .filter((m) => !practice.without?.includes(m.kind) && !taken.has(measurementId(m)))
    .map((measurement) => proposalOf(belief, measurement, context))
    .sort((a, b) => b.bitsPerMinute - a.bitsPerMinute);
}

/** Ids of what was read on the board as it is now, with what stands in line now where that matters. */
function takenAlready({ taken, absent, replaced }: TestContext, swapped: readonly OutsideThing[]): Set<string> {
  const boardNow = stateKey(absent, replaced);
  const swappedNow = stateKey(swapped, []);
  return new Set(
    taken
      .filter(
        (r) =>
          stateKey(r.absent ?? [], r.replaced ?? []) === boardNow &&
          (!definitionOf(r.measurement).seesSwaps || stateKey(r.swapped ?? [], []) === swappedNow),
      )
      .map((r) => measurementId(r.measurement)),
  );
}

const stateKey = (absent: Iterable<string>, replaced: Iterable<string>): string =>
  `${[...absent].sort().join(' ')}|${[...replaced].sort().join(' ')}`;

/** Tests that only this belief makes worth proposing. */
function proposedBy(belief: Belief, { absent, replaced }: TestContext): Measurement[] {
  const kinds = MEASUREMENT_KINDS.filter((k) => k.proposed);
  if (kinds.length === 0) return [];
  const { board } = belief.case.predictor;
  const isAlive = aliveNow({ replaced });
  const likely = belief.faults
    .map((fault, i) => ({ fault, p: belief.marginal[i] }))
    .filter(({ fault }) => isAlive(fault))
    .sort((a, b) => b.p - a.p);
  return kinds.flatMap((k) => k.proposed!({ board, likely, absent, replaced: new Set(replaced) }));
}
