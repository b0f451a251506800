import {
  Predictor,
  measurementId,
  measurementTitle,
  outcomesOf,
  outlook,
  proposalOf,
  clearedFaults,
  whyNot,
  type Measurement,
  type WhyNot,
} from '../../diagnose';
import { formatMinutes } from '../../units';
import { takenOnBoardAsIs } from '../log';
import { rankJob } from './analysis';
import { isGated } from './gate';
import type { JobSnapshot } from './snapshot';

/** A test that somebody would rather take, against what is proposed. */
export interface WhyNotMine extends WhyNot {
  /** The whole answer, in a sentence or three. */
  readonly answer: string;
}

/**
 * "Why not mine?": weighs any test of the board against what is proposed, in minutes to a proven cure and in bits, and says
 * what its likeliest outcomes would mean.
 */
export function whyNotMine({ board, state, practice }: JobSnapshot, measurement: Measurement): WhyNotMine {
  const { belief, context, ranked } = rankJob(Predictor.of(board), state, practice);
  const weighed = whyNot(ranked, proposalOf(belief, measurement, context));
  const title = measurementTitle(board, measurement, context.near);
  const [first] = ranked.tests;
  const proposed = ranked.repairFirst ? undefined : first && measurementTitle(board, first.measurement, context.near);
  const outcomes = outcomesOf(belief, measurement, context.absent, clearedFaults(state));
  const id = measurementId(measurement);
  const isTaken = state.readings.some((r) => measurementId(r.measurement) === id && takenOnBoardAsIs(state, r));
  const answer = [
    `${title}: ${weighed.bits.toFixed(2)} bit in ${formatMinutes(weighed.minutes)}, job in ${formatMinutes(weighed.expectedMinutes)}.`,
    proposed === title ? 'It is what is proposed.' : weighed.words,
    ...(isGated(board, state, measurement) ? ['It needs power, and the port is not cleared for power yet.'] : []),
    ...(isTaken ? ['It was read on the board as it is.'] : []),
    ...outlook(belief, measurement, outcomes, state),
  ];
  return { ...weighed, answer: answer.join(' ') };
}
