import type { JobNumber } from '../../identities';
import type { Board } from '../../board';
import { DEFAULT_PRACTICE, Predictor, type JobPractice, type Practice } from '../../diagnose';
import type { SitePractice } from '../../joints';
import { orderProofs, type ProofOrder } from '../../proof';
import type { ReferenceTable } from '../../reference';
import { foldJob, type JobEvent, type JobState } from '../log';
import { proveJob, type JobProof } from '../proof/proof';
import { analyseJob, type JobAnalysis } from './analysis';
import { findingsOf, type Findings } from './findings';
import { nextStep, type NextStep } from './next-step';
import { jobPractice, pastOf, type PriorClosureView } from './past';
import { residualRisk } from './residual';

/** What a bench has settled for itself and learned from good boards. */
export interface BenchKnowledge {
  readonly practice?: Practice;
  /** Readings on known-good boards of this revision, by point. */
  readonly references?: ReferenceTable;
  /** How the bench cleans and balls. */
  readonly site?: SitePractice;
}

/** What kind of job it is, beside its record. */
export interface JobPurpose {
  /** A job to learn on: nothing of it counts anywhere else, and simulated instruments may be used. */
  readonly training: boolean;
  /** Whether simulated instruments are offered: in training jobs, and in the demo world. */
  readonly simulators: boolean;
}

const REAL: JobPurpose = { training: false, simulators: false };

/**
 * A job at one moment: its board, what was entered, what the bench knows. It never changes, so that whatever is asked of it is
 * computed once: the selectors below, each from those it stands on.
 */
export interface JobSnapshot {
  readonly number: JobNumber;
  readonly openedAt: string;
  readonly board: Board;
  /** Number of the newest event, undone ones counted. */
  readonly version: number;
  readonly state: JobState;
  readonly practice: JobPractice;
  readonly bench: BenchKnowledge;
  readonly purpose: JobPurpose;
}

/** Folds a job's events. The board object should be one and the same between calls: predictions are kept by it. */
export function snapshotOf(
  number: JobNumber,
  openedAt: string,
  board: Board,
  events: readonly JobEvent[],
  bench: BenchKnowledge = {},
  purpose: JobPurpose = REAL,
): JobSnapshot {
  const state = foldJob(events);
  return {
    number,
    openedAt,
    board,
    version: events.reduce((newest, e) => Math.max(newest, e.seq), 0),
    state,
    practice: jobPractice(state, bench.practice ?? DEFAULT_PRACTICE),
    bench,
    purpose,
  };
}

/** A question to a job, answered once for each snapshot; answers go when their snapshot goes. */
export function selector<T>(answer: (job: JobSnapshot) => T): (job: JobSnapshot) => T {
  const answers = new WeakMap<JobSnapshot, { readonly answer: T }>();
  return (job) => {
    const known = answers.get(job) ?? { answer: answer(job) };
    answers.set(job, known);
    return known.answer;
  };
}

/** What the readings say, which tests are worth taking, which work competes with them. */
export const diagnosisOf = selector<JobAnalysis>(({ board, state, practice }) =>
  analyseJob(Predictor.of(board), state, practice),
);

/** What is proven of the board as it is now, and what still has to be. */
export const proofOf = selector<JobProof>(({ board, state, bench }) =>
  proveJob(Predictor.of(board), state, bench.references),
);

/** Functions that are still to be tried, in the order that sends the job back soonest for least. */
export const proofOrderOf = selector<ProofOrder>((job) => {
  const { functions, joints } = proofOf(job);
  const untried = job.board.functions.filter((f) => functions.some((p) => p.id === f.id && p.works === undefined));
  return orderProofs(untried, residualRisk(job.board, job.state, diagnosisOf(job), joints));
});

export const nextStepOf = selector<NextStep>((job) =>
  nextStep(job.board, job.state, diagnosisOf(job), proofOf(job), proofOrderOf(job)),
);

/** What was found at each stage, in a few words. */
export const stageFindingsOf = selector<Findings>((job) =>
  findingsOf(job.board, job.state, diagnosisOf(job), proofOf(job), job.bench.site),
);

/** What the job was each time before it came back, the latest first. */
export const historyOf = selector<PriorClosureView[]>((job) =>
  pastOf(Predictor.of(job.board), job.state, diagnosisOf(job).suspects),
);
