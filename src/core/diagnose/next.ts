import type { Board } from '../board';
import { entropyBits } from '../math';
import type { Belief } from './belief';
import {
  boardMeasurements,
  mendedFor,
  measurementId,
  testMinutes,
  workMinutes,
  type Access,
  type Measurement,
  type Reading,
} from './measurement';
import type { OutcomeClass } from './outcomes';
import type { OutsideThing } from './faults';
import { DEFAULT_PRACTICE, errorRate, type Practice } from './practice';
import type { Predictor } from './predict';

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

/** The outcome classes of a test with their chances. */
export function outcomesOf(
  predictor: Predictor,
  m: Measurement,
  belief: Belief,
  absent: ReadonlySet<string>,
  replaced: ReadonlySet<string>,
): Outcome[] {
  return predictor
    .outcomeClasses(m, absent, replaced)
    .map((o) => ({ ...o, p: belief.p.reduce((s, v, i) => s + v * o.given[i], 0) }));
}

/** Expected drop of entropy in bits: the mutual information of fault and outcome through a channel with slips. */
export function informationBits(outcomes: readonly Outcome[], p: Float64Array, errorRate: number): number {
  const k = outcomes.length;
  if (k < 2) return 0;
  const throughSlips = (x: number): number => (1 - errorRate) * x + errorRate / k;
  const total = entropyBits(outcomes.map((o) => throughSlips(o.p)));
  const rest = new Float64Array(k);
  let noise = 0;
  for (let f = 0; f < p.length; f++) {
    if (p[f] < 1e-9) continue;
    for (let c = 0; c < k; c++) rest[c] = throughSlips(outcomes[c].given[f]);
    noise += p[f] * entropyBits(rest);
  }
  return Math.max(0, total - noise);
}

/** A lift is proposed only for parts that carry at least this share of the belief as a short. Engineering estimate. */
const LIFT_FROM = 0.02;

/** The board and the bench as a test would find them. */
export interface TestContext {
  readonly access: Access;
  readonly absent: ReadonlySet<string>;
  readonly replaced: ReadonlySet<string>;
  readonly swapped?: readonly OutsideThing[];
  readonly taken: readonly Reading[];
  readonly practice?: Practice;
}

/** Readings that another charger, cable or pack may change. */
const SEES_SWAPS: ReadonlySet<Measurement['kind']> = new Set(['usb', 'shape', 'talk', 'works', 'tester']);

/** Tests worth their minutes, best first. Tests already taken on the board as it is now are left out. */
export function proposeTests(predictor: Predictor, belief: Belief, context: TestContext): Proposal[] {
  const { board } = predictor;
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
      const bits = informationBits(
        outcomesOf(predictor, measurement, belief, context.absent, mended),
        belief.p,
        errorRate(measurement.kind, practice),
      );
      const minutes = testMinutes(board, measurement, context.access);
      return { measurement, bits, minutes, bitsPerMinute: bits / minutes };
    })
    .sort((a, b) => b.bitsPerMinute - a.bitsPerMinute);
}

const stateKey = (absent: Iterable<string>, replaced: Iterable<string>): string =>
  `${[...absent].sort().join(' ')}|${[...replaced].sort().join(' ')}`;

function lifts(belief: Belief, absent: ReadonlySet<string>, replaced: ReadonlySet<string>): Measurement[] {
  const list: Measurement[] = [];
  belief.faults.forEach((f, i) => {
    const shunt = f.effects.find((e) => e.kind === 'shunt');
    if (shunt && belief.p[i] >= LIFT_FROM && !absent.has(f.ref) && !replaced.has(f.ref))
      list.push({ kind: 'lift', ref: f.ref, net: shunt.net });
  });
  return list;
}

export interface Repair {
  readonly ref: string;
  readonly words: string;
  /** Chance that it cures the board, taken alone. */
  readonly cureChance: number;
  readonly minutes: number;
}

/**
 * Repairs in the order of cure chance per minute. For one fault and independent costs the order by p/C is optimal
 * (Heckerman, Breese, Rommelse 1995; Kalagnanam & Henrion 1988).
 */
export function rankRepairs(board: Board, belief: Belief, access: Access, done: ReadonlySet<string>): Repair[] {
  const cure = new Map<string, number>();
  const imageOnly = new Map<string, number>();
  belief.faults.forEach((f, i) => {
    if (f.ref === '' || done.has(f.ref)) return;
    const target = f.effects.length === 1 && f.effects[0].kind === 'imageBad' ? imageOnly : cure;
    target.set(f.ref, (target.get(f.ref) ?? 0) + belief.p[i]);
  });
  const opening =
    testMinutes(board, { kind: 'ohm', net: '' }, access) - testMinutes(board, { kind: 'ohm', net: '' }, 'out');
  const rewriting = testMinutes(board, { kind: 'image', ref: '' }, 'out');
  return [
    ...[...cure].map(([ref, p]) => ({
      ref,
      words: `Replace ${ref}`,
      cureChance: p,
      minutes: 2 * workMinutes(board, ref) + opening,
    })),
    ...[...imageOnly].map(([ref, p]) => ({
      ref,
      words: `Rewrite the image of ${ref}`,
      cureChance: p,
      minutes: rewriting + opening,
    })),
  ]
    .filter((r) => r.cureChance > 0.01)
    .sort((a, b) => b.cureChance / b.minutes - a.cureChance / a.minutes);
}
