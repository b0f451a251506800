import type { Board } from '../board';
import { suspects, updateBelief, type Belief } from './belief';
import type { Fault, HistoryFlag } from './faults';
import { boardMeasurements, type Measurement, type Reading, type Value } from './measurement';
import { accessFor, deeper, testMinutes, type Access } from './minutes';
import { proposeTests } from './next';
import { OPEN_LOG_OHM, type Predictor } from './predict';
import { answerOf } from './outcomes';

/** The error-free reading that a board with this fault gives. */
export function idealReading(predictor: Predictor, m: Measurement, fault: Fault): Reading {
  const prediction = predictor.predict(m, fault, new Set(), new Set());
  if (prediction.kind === 'verdict')
    return { measurement: m, value: { kind: prediction.failChance > 0.5 ? 'fail' : 'pass' } };
  if (prediction.kind === 'choice') {
    const [[likeliest]] = Object.entries(prediction.chance).sort(([, a], [, b]) => b - a);
    return { measurement: m, value: answerOf(likeliest) };
  }
  const likeliest = [...prediction.alternatives].sort((a, b) => b.weight - a.weight)[0];
  return { measurement: m, value: asValue(m, likeliest.means) };
}

function asValue(m: Measurement, means: readonly number[]): Value {
  if (m.kind === 'usb') return { kind: 'pair', volts: means[0], amps: means[1] };
  if (m.kind === 'ohm' || m.kind === 'through' || m.kind === 'lift')
    return means[0] >= OPEN_LOG_OHM ? { kind: 'open' } : { kind: 'figure', value: 10 ** means[0] };
  return { kind: 'figure', value: means[0] };
}

export interface PolicyRun {
  readonly tests: number;
  readonly minutes: number;
  /** Place of the true part among the suspects, from 1. */
  readonly rank: number;
  readonly readings: readonly Reading[];
}

/** Stops when one part holds this share of the belief, when nothing informs any more, or after so many tests. */
const SURE_ENOUGH = 0.95;
const LEAST_BITS = 0.003;
const MOST_TESTS = 60;

/**
 * Plays a board with a known fault, error-free: takes tests until one part is sure enough.
 * @param choose gives the next test, or undefined to stop.
 */
export function runPolicy(
  predictor: Predictor,
  fault: Fault,
  choose: (belief: Belief, readings: readonly Reading[], access: Access) => Measurement | undefined,
  history: readonly HistoryFlag[] = [],
): PolicyRun {
  const readings: Reading[] = [];
  let access: Access = 'closed';
  let minutes = 0;
  let belief = updateBelief(predictor, readings, history);
  while (readings.length < MOST_TESTS && suspects(belief)[0].p < SURE_ENOUGH) {
    const m = choose(belief, readings, access);
    if (!m) break;
    minutes += testMinutes(predictor.board, m, access);
    access = deeper(access, accessFor(m));
    readings.push(idealReading(predictor, m, fault));
    belief = updateBelief(predictor, readings, history);
  }
  const ref = fault.ref || 'outside';
  return { tests: readings.length, minutes, rank: suspects(belief).findIndex((s) => s.ref === ref) + 1, readings };
}

/** The application's own choice: most information per minute. */
export function bestTest(belief: Belief, readings: readonly Reading[], access: Access): Measurement | undefined {
  const [best] = proposeTests(belief, { access, absent: new Set(), replaced: new Set(), taken: readings });
  return best && best.bits > LEAST_BITS ? best.measurement : undefined;
}

/** A sensible fixed checklist: outside first, then volts, then resistances, then part by part, then lifting suspects. */
export function fixedChecklist(
  board: Board,
): (belief: Belief, readings: readonly Reading[]) => Measurement | undefined {
  const order: Measurement['kind'][] = [
    'look',
    'usb',
    'shape',
    'talk',
    'tester',
    'swap',
    'works',
    'pin',
    'volts',
    'ohm',
    'through',
    'image',
  ];
  const list = boardMeasurements(board).sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind));
  return (belief, readings) => list[readings.length] ?? liftInTurn(belief, readings);
}

/** A checklist does not lift parts that hardly anything speaks for. Engineering estimate. */
const WORTH_LIFTING = 0.05;

function liftInTurn(belief: Belief, readings: readonly Reading[]): Measurement | undefined {
  const lifted = new Set(readings.flatMap((r) => (r.measurement.kind === 'lift' ? [r.measurement.ref] : [])));
  for (const s of suspects(belief)) {
    const shunt = s.fault.effects.find((e) => e.kind === 'shunt');
    if (s.p < WORTH_LIFTING) return undefined;
    if (shunt && !lifted.has(s.ref)) return { kind: 'lift', ref: s.ref, net: shunt.net };
  }
  return undefined;
}
