import type { JobNumber, PartRef } from '../../identities';
import type { Board, ProbePlace } from '../../board';
import {
  Predictor,
  STOP_WORDS,
  entryStem,
  interpretReading,
  placeOf,
  readingName,
  valueLabel,
  type Interpretation,
  type JobPractice,
  type Measurement,
  type Repair,
  type SuspectPair,
  type Value,
  modelledOf,
} from '../../diagnose';
import type { ProofOrder } from '../../proof';
import type { ReferenceTable } from '../../reference';
import type { JobAnalysis, TestAdvice, WorkNow } from './analysis';
import { compareWithReferences, type Compared } from './comparison';
import type { Difference } from './difference';
import { cautionFor, type Caution } from './cautions';
import { eventLabel } from './event-label';
import type { Findings } from './findings';
import { takenOnBoardAsIs, type JobState, type Origin } from '../log';
import type { NextStep } from './next-step';
import { shortIsBackChance } from './residual';
import type { PriorClosureView } from './past';
import {
  diagnosisOf,
  historyOf,
  nextStepOf,
  proofOf,
  proofOrderOf,
  snapshotOf,
  stageFindingsOf,
  type JobPurpose,
  type JobSnapshot,
} from './snapshot';
import { stagePlan } from './stage-plan';
import type { JobProof } from '../proof/proof';
import { STAGES, type StageId } from './stages';
import { walkAway } from './walk-away';

/** A reading as the bench sees it. */
export interface ReadingView {
  readonly seq: number;
  readonly at: string;
  readonly name: string;
  readonly value: string;
  readonly meaning: Interpretation;
  /** What to type to correct it. */
  readonly stem: string;
  readonly measurement: Measurement;
  readonly raw: Value;
  /** False when work on the board came after it. */
  readonly current: boolean;
  /** Undefined where it was entered before origins were kept. */
  readonly origin?: Origin;
  readonly place?: ProbePlace;
}

export interface SuspectView {
  readonly ref: PartRef;
  readonly label: string;
  readonly p: number;
  /** The readings that made it a suspect, strongest first; none beyond the leading few. */
  readonly reasons: readonly string[];
}

/** Everything a screen shows of a job: plain data, computed from the board file and the events. */
export interface JobView extends JobPurpose {
  readonly number: JobNumber;
  readonly board: Board;
  readonly openedAt: string;
  readonly state: JobState;
  readonly readings: readonly ReadingView[];
  readonly suspects: readonly SuspectView[];
  readonly tests: readonly TestAdvice[];
  readonly repairs: readonly Repair[];
  readonly differences: readonly Difference[];
  readonly compared: readonly Compared[];
  readonly pairs: readonly SuspectPair[];
  /** What to take twice, and why. */
  readonly surprise?: string;
  readonly rankingFlips: readonly string[];
  readonly workNow?: WorkNow;
  readonly tooDear?: JobAnalysis['tooDear'];
  /** Reasons to stop, none where the job is worth doing. */
  readonly walkAway: readonly string[];
  readonly expectedMinutes?: number;
  readonly curedChance: number;
  /** What was wrong and is mended by now. */
  readonly cured: readonly SuspectView[];
  /** Why the job is better stopped or sent on, where it is. */
  readonly stop?: string;
  /** Set where no listed fault explains what was read: the readings that do not fit, worst first. */
  /** Of a large board: how many parts are modelled whole, and how many lie beyond. */
  readonly modelled?: { readonly parts: number; readonly beyond: number };
  readonly unexplained?: { readonly strange: readonly string[]; readonly unlisted: number };
  readonly proof: JobProof;
  /** Functions that are still to be tried, in the order that sends the job back soonest for least. */
  readonly proofOrder: ProofOrder;
  /** Chance that something shorts the board at its next power. */
  readonly shortChance: number;
  readonly findings: Findings;
  /** What the job was each time before it came back, the latest first. */
  readonly priorClosures: readonly PriorClosureView[];
  /** What the chosen chip asks of the stages to come, in words. */
  readonly plan: Readonly<Partial<Record<StageId, string>>>;
  readonly next: NextStep;
  readonly references: ReferenceTable;
  readonly practice: JobPractice;
  readonly cautions: Readonly<Record<StageId, Caution>>;
  /** Number of the newest event, undone ones counted. */
  readonly version: number;
  /** In words, what undo would take back. */
  readonly undoable?: string;
}

const MOST_SUSPECTS = 6;

/** Computes the view of a job: all that its pages draw. The arguments are those of a snapshot. */
export function viewJob(...of: Parameters<typeof snapshotOf>): JobView {
  const job = snapshotOf(...of);
  const { number, openedAt, board, version, state, practice, bench, purpose } = job;
  const analysis = diagnosisOf(job);
  const proof = proofOf(job);
  const { standing } = analysis;
  return {
    ...{ number, board, openedAt, version, state, practice, ...purpose },
    readings: readingsOf(job),
    suspects: analysis.suspects
      .slice(0, MOST_SUSPECTS)
      .map(({ ref, label, p }, i) => ({ ref, label, p, reasons: analysis.reasons[i] ?? [] })),
    tests: analysis.tests,
    repairs: analysis.repairs.slice(0, MOST_SUSPECTS),
    differences: analysis.differences,
    compared: compareWithReferences(board, state, bench.references ?? {}),
    pairs: analysis.pairs,
    surprise: analysis.surprise,
    rankingFlips: analysis.rankingFlips,
    workNow: analysis.workNow,
    tooDear: analysis.tooDear,
    walkAway: walkAway(state, analysis),
    expectedMinutes: analysis.expectedMinutes,
    curedChance: analysis.curedChance,
    cured: analysis.cured.map(({ ref, label, p }) => ({ ref, label, p, reasons: [] })),
    stop: standing.move.kind === 'stop' ? STOP_WORDS[standing.move.reason] : undefined,
    modelled: modelledOf(analysis.belief) ?? undefined,
    unexplained: standing.noneListed ? { strange: analysis.strange, unlisted: standing.unlisted } : undefined,
    proof,
    proofOrder: proofOrderOf(job),
    shortChance: shortIsBackChance(state, proof.shorts),
    findings: stageFindingsOf(job),
    priorClosures: historyOf(job),
    plan: stagePlan(board, state),
    next: nextStepOf(job),
    references: bench.references ?? {},
    cautions: Object.fromEntries(STAGES.map(({ id }) => [id, cautionFor(id, state)])) as JobView['cautions'],
    undoable: state.undoable && eventLabel(board, state.undoable),
  };
}

/** Every reading of the job as the bench sees it, in the order of the log. */
function readingsOf({ board, state, bench }: JobSnapshot): ReadingView[] {
  const predictor = Predictor.of(board);
  const originOf = new Map(state.live.map((e) => [e.seq, e.origin]));
  return state.readings.map((r) => ({
    seq: r.seq,
    at: r.at,
    name: readingName(board, r.measurement),
    value: valueLabel(r.measurement, r.value),
    meaning: interpretReading(predictor, r.measurement, r.value, new Set(r.absent), bench.references),
    stem: entryStem(board, r.measurement),
    measurement: r.measurement,
    raw: r.value,
    current: takenOnBoardAsIs(state, r),
    origin: originOf.get(r.seq),
    place: placeOf(board, r.measurement),
  }));
}
