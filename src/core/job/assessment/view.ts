import type { Board, ProbePlace } from '../../board';
import {
  DEFAULT_PRACTICE,
  Predictor,
  STOP_WORDS,
  entryStem,
  interpretReading,
  placeOf,
  readingName,
  valueLabel,
  type Interpretation,
  type Measurement,
  type JobPractice,
  type Practice,
  type Repair,
  type SuspectPair,
  type Value,
} from '../../diagnose';
import type { SitePractice } from '../../joints';
import { orderProofs, type FunctionTest, type ProofOrder } from '../../proof';
import type { ReferenceTable } from '../../reference';
import { analyseJob, type JobAnalysis, type TestAdvice, type WorkNow } from './analysis';
import { compareWithReferences, type Compared } from './comparison';
import type { Difference } from './difference';
import { cautionFor, type Caution } from './cautions';
import type { JobEvent } from '../log';
import { eventLabel } from './event-label';
import { findingsOf, type Findings } from './findings';
import { foldJob, takenOnBoardAsIs, type JobState, type Origin } from '../log';
import { nextStep, type NextStep } from './next-step';
import { residualRisk, shortIsBackChance } from './residual';
import { jobPractice, pastOf, type Past } from './past';
import { stagePlan } from './stage-plan';
import { proveJob, type JobProof } from '../proof/proof';
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
  readonly ref: string;
  readonly words: string;
  readonly p: number;
  /** The readings that made it a suspect, strongest first; none beyond the leading few. */
  readonly reasons: readonly string[];
}

/** Everything a screen shows of a job: plain data, computed from the board file and the events. */
export interface JobView {
  readonly number: number;
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
  readonly turns: readonly string[];
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
  readonly unexplained?: { readonly strange: readonly string[]; readonly unlisted: number };
  readonly proof: JobProof;
  /** Functions that are still to be tried, in the order that sends the job back soonest for least. */
  readonly proofOrder: ProofOrder;
  /** Chance that something shorts the board at its next power. */
  readonly shortChance: number;
  readonly findings: Findings;
  /** What the job was each time before it came back, the latest first. */
  readonly past: readonly Past[];
  /** What the chosen chip asks of the stages to come, in words. */
  readonly plan: Readonly<Partial<Record<StageId, string>>>;
  readonly next: NextStep;
  readonly references: ReferenceTable;
  readonly practice: JobPractice;
  readonly cautions: Readonly<Record<StageId, Caution>>;
  /** A job to learn on: nothing of it counts anywhere else, and simulated instruments may be used. */
  readonly training: boolean;
  /** Whether simulated instruments are offered: in training jobs, and in the demo world. */
  readonly simulators: boolean;
  /** Number of the newest event, undone ones counted. */
  readonly version: number;
  /** In words, what undo would take back. */
  readonly undoable?: string;
}

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
  readonly training: boolean;
  readonly simulators: boolean;
}

const REAL: JobPurpose = { training: false, simulators: false };

const MOST_SUSPECTS = 6;

/** Computes the view of a job. The board object should be one and the same between calls: predictions are kept by it. */
export function viewJob(
  number: number,
  openedAt: string,
  board: Board,
  events: readonly JobEvent[],
  bench: BenchKnowledge = {},
  purpose: JobPurpose = REAL,
): JobView {
  const predictor = Predictor.of(board);
  const state = foldJob(events);
  const practice = jobPractice(state, bench.practice ?? DEFAULT_PRACTICE);
  const analysis = analyseJob(predictor, state, practice);
  const proof = proveJob(predictor, state, bench.references);
  const originOf = new Map(state.live.map((e) => [e.seq, e.origin]));
  const proofOrder = orderProofs(untried(board, proof), residualRisk(board, state, analysis, proof.joints));
  return {
    ...{ number, board, openedAt, state, ...purpose },
    readings: state.readings.map((r) => ({
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
    })),
    suspects: analysis.suspects.slice(0, MOST_SUSPECTS).map(({ ref, words, p }, i) => ({
      ref,
      words,
      p,
      reasons: analysis.reasons[i] ?? [],
    })),
    tests: analysis.tests,
    repairs: analysis.repairs.slice(0, MOST_SUSPECTS),
    differences: analysis.differences,
    compared: compareWithReferences(board, state, bench.references ?? {}),
    pairs: analysis.pairs,
    surprise: analysis.surprise,
    turns: analysis.turns,
    workNow: analysis.workNow,
    tooDear: analysis.tooDear,
    walkAway: walkAway(state, analysis),
    expectedMinutes: analysis.expectedMinutes,
    curedChance: analysis.curedChance,
    cured: analysis.cured.map(({ ref, words, p }) => ({ ref, words, p, reasons: [] })),
    stop: analysis.standing.move.kind === 'stop' ? STOP_WORDS[analysis.standing.move.reason] : undefined,
    unexplained: analysis.standing.noneListed
      ? { strange: analysis.strange, unlisted: analysis.standing.unlisted }
      : undefined,
    proof,
    proofOrder,
    shortChance: shortIsBackChance(state, proof.shorts),
    findings: findingsOf(board, state, analysis, proof, bench.site),
    past: pastOf(predictor, state, analysis.suspects),
    plan: stagePlan(board, state),
    next: nextStep(board, state, analysis, proof, proofOrder),
    references: bench.references ?? {},
    practice,
    cautions: Object.fromEntries(STAGES.map(({ id }) => [id, cautionFor(id, state)])) as JobView['cautions'],
    version: events.reduce((newest, e) => Math.max(newest, e.seq), 0),
    undoable: state.undoable && eventLabel(board, state.undoable),
  };
}

/** Functions without a verdict on the board as it is now. */
const untried = (board: Board, { functions }: JobProof): FunctionTest[] =>
  board.functions.filter((f) => functions.some((p) => p.id === f.id && p.works === undefined));
