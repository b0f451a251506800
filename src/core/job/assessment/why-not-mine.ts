import {
  Predictor,
  againstProposed,
  clearedTarget,
  currentKey,
  measurementId,
  measurementTitle,
  outcomesOf,
  outlook,
  proposalOf,
  clearedFaults,
  repairLabel,
  targetKey,
  whyNot,
  type BoardTarget,
  type Measurement,
  type WhyNot,
} from '../../diagnose';
import type { Board } from '../../board';
import { formatInHundred, formatMinutes } from '../../units';
import type { JobQuestion } from '../decide/command';
import { takenOnBoardAsIs } from '../log';
import { rankJob } from './analysis';
import { isGated } from './gate';
import type { JobSnapshot } from './snapshot';

/** A test that somebody would rather take, against what is proposed. */
interface WhyNotMine extends WhyNot {
  /** The whole answer, in a sentence or three. */
  readonly answer: string;
}

/**
 * "Why not mine?": weighs any test of the board against what is proposed, in minutes to a proven cure and in bits, and says
 * what its likeliest outcomes would mean.
 */
function testAgainstBest({ board, state, practice }: JobSnapshot, measurement: Measurement): WhyNotMine {
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

/** Work as it is named where it is proposed. @param key of a target of this board. */
export function workLabel(board: Board, key: string): string {
  const target = clearedTarget(board, key);
  return target ? repairLabel(target as BoardTarget) : key;
}

/** Work held against what is proposed: what it cures, and what the job is then expected to take. */
function workAgainstBest({ board, state, practice }: JobSnapshot, key: string): string {
  const { ranked } = rankJob(Predictor.of(board), state, practice);
  const target = clearedTarget(board, key);
  const weighed = target && ranked.weighWork(currentKey(target, state.replaced));
  const name = workLabel(board, key);
  if (!weighed) return `${name}: nothing that is suspected asks for it.`;
  const { cureChance, expectedMinutes } = weighed;
  const { repairFirst, work } = ranked;
  const isProposed = repairFirst && work !== undefined && targetKey(work.need.target) === key;
  return [
    `${name}: part of the cure ${formatInHundred(cureChance)}, job in ${formatMinutes(expectedMinutes)}.`,
    isProposed ? 'It is what is proposed.' : againstProposed(ranked, expectedMinutes),
  ].join(' ');
}

/** Answers a question to a job, in words. */
export const answerOf = (job: JobSnapshot, asked: JobQuestion): string =>
  asked.do === 'weigh' ? testAgainstBest(job, asked.measurement).answer : workAgainstBest(job, asked.work);
