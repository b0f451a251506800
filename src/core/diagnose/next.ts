import { entropyBits } from '../math';
import type { Belief } from './belief';
import { boardMeasurements, mendedFor, measurementId, type Measurement, type Reading } from './measurement';
import { testMinutes, type Access } from './minutes';
import type { OutcomeClass } from './outcomes';
import type { TestTable } from './table';
import type { OutsideThing } from './faults';
import { DEFAULT_PRACTICE, errorRate, type Practice } from './practice';

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
  absent: ReadonlySet<string>,
  mended: ReadonlySet<string>,
): { table: TestTable; mass: Float64Array; outcomes: Outcome[] } {
  const table = belief.case.table(m, absent, mended);
  const mass = belief.case.space.likelyRowMass(belief.likely, table);
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

/** A lift is proposed only for parts that carry at least this share of the belief as a short. Engineering estimate. */
const LIFT_FROM = 0.02;

/** The board and the bench as a test would find them. */
export interface TestContext {
  readonly access: Access;
  /** Shields that are off. */
  readonly bare?: ReadonlySet<string>;
  readonly absent: ReadonlySet<string>;
  readonly replaced: ReadonlySet<string>;
  readonly swapped?: readonly OutsideThing[];
  readonly taken: readonly Reading[];
  readonly practice?: Practice;
  /** What the device is worth to its owner, in the shop's money. */
  readonly worth?: number;
}

/** Readings that another charger, cable or pack may change. */
const SEES_SWAPS: ReadonlySet<Measurement['kind']> = new Set(['usb', 'shape', 'talk', 'works', 'tester']);

/** Tests worth their minutes, best first. Tests already taken on the board as it is now are left out. */
export function proposeTests(belief: Belief, context: TestContext): Proposal[] {
  const { board } = belief.case.predictor;
  const practice = context.practice ?? DEFAULT_PRACTICE;
  const swapped = context.swapped ?? [];
  const mended = new Set(mendedFor({ replaced: [...context.replaced], swapped }));
  const boardNow = stateKey(context.absent, context.replaced);
  const taken = new Set(
    context.taken
      .filter(
        (r) =>
          stateKey(r.absent ?? [], r.replaced ?? []) === boardNow &&
          (!SEES_SWAPS.has(r.measurement.kind) || stateKey(r.swapped ?? [], []) === stateKey(swapped, [])),
      )
      .map((r) => measurementId(r.measurement)),
  );
  return [...boardMeasurements(board), ...lifts(belief, context.absent, context.replaced)]
    .filter((m) => m.kind !== 'swap' || !swapped.includes(m.what))
    .filter((m) => !taken.has(measurementId(m)))
    .map((measurement) => {
      const { outcomes, mass } = outcomesOf(belief, measurement, context.absent, mended);
      const bits = informationBits(outcomes, mass, errorRate(measurement.kind, practice));
      const minutes = testMinutes(board, measurement, context.access, context.bare);
      return { measurement, bits, minutes, bitsPerMinute: bits / minutes };
    })
    .sort((a, b) => b.bitsPerMinute - a.bitsPerMinute);
}

const stateKey = (absent: Iterable<string>, replaced: Iterable<string>): string =>
  `${[...absent].sort().join(' ')}|${[...replaced].sort().join(' ')}`;

/** Only the likeliest parts are worth lifting. */
const MOST_LIFTS = 4;

function lifts(belief: Belief, absent: ReadonlySet<string>, replaced: ReadonlySet<string>): Measurement[] {
  const likely = belief.faults
    .map((fault, i) => ({ fault, p: belief.marginal[i] }))
    .filter(({ fault, p }) => p >= LIFT_FROM && !absent.has(fault.ref) && !replaced.has(fault.ref))
    .sort((a, b) => b.p - a.p);
  const list = new Map<string, Measurement>();
  for (const { fault } of likely) {
    const shunt = fault.effects.find((e) => e.kind === 'shunt');
    if (!shunt || list.size >= MOST_LIFTS) continue;
    const m: Measurement = { kind: 'lift', ref: fault.ref, net: shunt.net };
    list.set(measurementId(m), m);
  }
  return [...list.values()];
}
