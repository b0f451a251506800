import type { Board } from '../board';
import { suspects, updateBelief, type Belief } from './belief';
import type { Fault, HistoryFlag } from './faults';
import { deeper, type Access } from './access';
import { accessFor, boardMeasurements, testMinutes } from './measurement';
import { definitionOf, type Measurement } from './measurements/registry';
import { proposeTests } from './next';
import type { Predictor } from './predictor';
import type { Reading } from './reading';

/** The error-free reading that a board with this fault gives. */
export function idealReading(predictor: Predictor, measurement: Measurement, fault: Fault): Reading {
  const prediction = predictor.predict(measurement, fault, new Set(), new Set());
  if (prediction.kind === 'verdict')
    return { measurement, value: { kind: prediction.failChance > 0.5 ? 'fail' : 'pass' } };
  if (prediction.kind === 'choice') {
    const [[choice]] = Object.entries(prediction.chance).sort(([, a], [, b]) => b - a);
    return { measurement, value: { kind: 'choice', choice } };
  }
  const likeliest = [...prediction.alternatives].sort((a, b) => b.weight - a.weight)[0];
  return { measurement, value: definitionOf(measurement).scale.ideal(likeliest.means) };
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
  const [best] = proposeTests(belief, { access, absent: new Set(), replaced: [], taken: readings });
  return best && best.bits > LEAST_BITS ? best.measurement : undefined;
}

/** A sensible fixed checklist: outside first, then volts, then resistances, then part by part, then lifting suspects. */
export function fixedChecklist(
  board: Board,
): (belief: Belief, readings: readonly Reading[]) => Measurement | undefined {
  const rank = (m: Measurement): number => definitionOf(m).checklistRank ?? Infinity;
  const list = boardMeasurements(board)
    .filter((m) => rank(m) < Infinity)
    .sort((a, b) => rank(a) - rank(b));
  return (belief, readings) => list[readings.length] ?? liftInTurn(belief, readings);
}

/** A checklist does not lift parts that hardly anything speaks for. Engineering estimate. */
const WORTH_LIFTING = 0.05;

function liftInTurn(belief: Belief, readings: readonly Reading[]): Measurement | undefined {
  const lifted = new Set(
    readings.flatMap((r) => (r.measurement.kind === 'liftedResistance' ? [r.measurement.ref] : [])),
  );
  for (const s of suspects(belief)) {
    const shunt = s.fault.effects.find((e) => e.kind === 'shunt');
    if (s.p < WORTH_LIFTING) return undefined;
    if (shunt && !lifted.has(s.ref)) return { kind: 'liftedResistance', ref: s.ref, net: shunt.net };
  }
  return undefined;
}
