import { partByRef, type Board, type ProbePlace } from '../../board';
import {
  OUTSIDE,
  accessFor,
  entryStem,
  historyFactor,
  isGone,
  measurementId,
  measurementTitle,
  outcomesOf,
  proposalOf,
  outlook,
  placeOf,
  priceOf,
  rankRepairs,
  reasons,
  expectedShare,
  readingName,
  SURPRISING_BELOW,
  suspectPairs,
  suspects,
  curedFaults,
  standingOf,
  rankingFlips,
  valueLabel,
  updateBelief,
  shieldFor,
  targetKey,
  testCaution,
  rankActions,
  workNames,
  clearedFaults,
  type Access,
  type Belief,
  type Measurement,
  type JobPractice,
  type Practice,
  type Predictor,
  type Repair,
  type Suspect,
  type Standing,
  type SuspectPair,
  type RankedActions,
  type RankedTest,
} from '../../diagnose';
import { formatInHundred } from '../../units';
import { takenOnBoardAsIs, type JobState } from '../log';
import { differencesOf, type Difference } from './difference';
import { isGated, portGate } from './gate';

/** A test worth its minutes, in words and with its place on the board. */
export interface TestAdvice {
  readonly id: string;
  readonly title: string;
  /** What to type before the value. */
  readonly stem: string;
  readonly minutes: number;
  readonly bits: number;
  /** What the whole job is then expected to take, parts and risk counted as minutes. */
  readonly expectedMinutes?: number;
  readonly access: Access;
  readonly outlook: readonly string[];
  readonly place?: ProbePlace;
  /** The shield that has to come off first. */
  readonly shield?: string;
  /** What has to be minded where the test is taken. */
  readonly caution?: string;
  /** True where it was taken before and is taken once more before anything is replaced. */
  readonly again?: boolean;
}

/** Work that is expected to end the job sooner than any test first. */
export interface WorkNow {
  readonly repair: Repair;
  readonly expectedMinutes: number;
  /** What the best test first would be expected to take, where there is one. */
  readonly insteadOf?: number;
}

export interface JobAnalysis {
  readonly belief: Belief;
  readonly suspects: readonly Suspect[];
  readonly tests: readonly TestAdvice[];
  readonly repairs: readonly Repair[];
  /** Set where working now beats measuring on. */
  readonly workNow?: WorkNow;
  /** What the repair is expected to cost, where that is more than the device is worth to its owner. */
  readonly tooDear?: { readonly cost: number; readonly worth: number };
  /** Minutes to a proven cure by the better of the two, parts and risk counted as minutes. */
  readonly expectedMinutes?: number;
  /** Two parts at fault together, where that is likely enough to be told. */
  readonly pairs: readonly SuspectPair[];
  /** What to take twice, and why; none where the last reading was to be expected. */
  readonly surprise?: string;
  /** Outcomes of the best tests after which another part would lead. */
  readonly rankingFlips: readonly string[];
  /** Why each of the leading suspects is suspected, the first one's reasons first. */
  readonly reasons: readonly (readonly string[])[];
  /** What the work on the board changed in what was measured before. */
  readonly differences: readonly Difference[];
  /** Share of the belief that lies on parts already replaced or mended. */
  readonly curedChance: number;
  /** What was wrong and is mended by now. */
  readonly cured: readonly Suspect[];
  /** What is best done next, and how far the listed faults explain what was read. */
  readonly standing: Standing;
  /** Readings that the best listed explanation hardly allows, in words, worst first. */
  readonly strange: readonly string[];
}

const MOST_TESTS = 6;
const MOST_TURNS = 2;
/** So many suspects open into their reasons. */
const MOST_REASONED = 4;
/** Only the best tests are asked what would change the mind. */
const TURN_TESTS = 3;
/** From this chance on two faults together are told. Engineering estimate. */
const LEAST_PAIR = 0.08;
/** Below this a test says next to nothing, bits. Engineering estimate. */
const LEAST_BITS = 0.02;

/** What the readings of a job come to, and every test and work weighed on it. */
export function rankJob(predictor: Predictor, state: JobState, practice: JobPractice) {
  const { board } = predictor;
  const belief = updateBelief(predictor, state.readings, state.story?.history ?? [], practice, state.replaced);
  const { access, swapped, replaced, readings: taken } = state;
  const context = {
    ...{ access, swapped, replaced, taken, practice },
    near: lastPlace(board, state),
    removedShields: new Set(state.removedShields),
    absent: new Set(state.absent),
    worth: state.story?.worth,
  };
  return { belief, context, ranked: rankActions(belief, context, (t) => !isGated(board, state, t.measurement)) };
}

/** What the readings say, which tests are worth taking, and which repairs compete with them. */
export function analyseJob(predictor: Predictor, state: JobState, practice: JobPractice): JobAnalysis {
  const { board } = predictor;
  const { belief, context, ranked: weighed } = rankJob(predictor, state, practice);
  const { absent, removedShields, near, taken } = context;
  const done = clearedFaults(state);
  const mendedNow = new Set(workNames(done));
  const standing = standingOf(belief, taken, weighed, { ...context, failedProofs: failedProofs(state) });
  const proposed = lookFirst(board, state, weighed.tests).filter(
    (t) => t.bits > LEAST_BITS || t.measurement.kind === 'visualInspection',
  );
  const expectedMinutes = weighed.repairFirst ? weighed.work?.expectedMinutes : weighed.tests[0]?.expectedMinutes;
  const repairs = rankRepairs(belief, state.access, mendedNow, absent, context);
  const adviceOn = ({ measurement, minutes, bits, expectedMinutes }: RankedTest): TestAdvice => ({
    id: measurementId(measurement),
    title: measurementTitle(board, measurement, near),
    stem: entryStem(board, measurement, near),
    minutes,
    bits,
    expectedMinutes,
    access: accessFor(measurement),
    caution: testCaution(measurement),
    shield: shieldStillOn(board, measurement, removedShields),
    outlook: outlook(belief, measurement, outcomesOf(belief, measurement, absent, done), state),
    place: placeOf(board, measurement, near),
  });
  const { move } = standing;
  const again = move.kind === 'again' ? proposalOf(belief, taken[move.reading].measurement, context) : undefined;
  const tests = [
    ...(again ? [{ ...adviceOn(again), again: true }] : []),
    ...proposed.slice(0, MOST_TESTS - (again ? 1 : 0)).map(adviceOn),
  ];
  const ranked = suspects(belief, state);
  return {
    belief,
    suspects: ranked,
    tests,
    pairs: suspectPairs(belief, state).filter((pair) => pair.p >= LEAST_PAIR),
    surprise: surpriseOf(predictor, state, belief, practice),
    rankingFlips: rankingFlips(belief, proposed.slice(0, TURN_TESTS), absent, done, state)
      .slice(0, MOST_TURNS)
      .map((t) => t.summary),
    repairs,
    workNow: workNow(weighed, repairs, isUnlooked(board, state)),
    expectedMinutes,
    tooDear: tooDear(state, expectedMinutes, practice),
    reasons: ranked
      .slice(0, MOST_REASONED)
      .map((s) => [...storyReason(board, state, s, practice), ...reasons(board, belief, state.readings, s.ref, state)]),
    differences: differencesOf(predictor, state, ranked),
    curedChance: curedChance(belief, mendedNow),
    cured: curedFaults(belief, state),
    standing,
    strange: (standing.misfit?.strange ?? []).map(
      (i) => `${readingName(board, taken[i].measurement)} ${valueLabel(taken[i].measurement, taken[i].value)}`,
    ),
  };
}

/** Works after which a function was tried and failed. */
function failedProofs({ readings }: JobState): number {
  const works = readings
    .filter((r) => r.work > 0 && r.measurement.kind === 'functionTest' && r.value.kind === 'fail')
    .map((r) => r.work);
  return new Set(works).size;
}

/** The shield over a test's place, where it is still on. */
function shieldStillOn(board: Board, m: Measurement, removedShields: ReadonlySet<string>): string | undefined {
  const id = shieldFor(board, m)?.id;
  return id !== undefined && !removedShields.has(id) ? id : undefined;
}

/** A last reading that hardly anything expected is taken twice, unless it already was. */
function surpriseOf(predictor: Predictor, state: JobState, belief: Belief, practice: JobPractice): string | undefined {
  const last = state.readings.length - 1;
  if (last < 1) return undefined;
  const { measurement, value } = state.readings[last];
  const id = measurementId(measurement);
  const again = state.readings
    .slice(0, last)
    .some((r) => measurementId(r.measurement) === id && takenOnBoardAsIs(state, r));
  if (again) return undefined;
  const history = state.story?.history ?? [];
  const before = updateBelief(predictor, state.readings.slice(0, last), history, practice, state.replaced);
  const share = expectedShare(before, belief, last);
  if (share >= SURPRISING_BELOW) return undefined;
  const name = readingName(predictor.board, measurement);
  return `${name} ${valueLabel(measurement, value)} was expected ${formatInHundred(share)}: take it a second time before it counts for much.`;
}

/** Chance that every fault there was is mended by now. */
function curedChance({ space, faults, p }: Belief, mended: ReadonlySet<string>): number {
  const gone = faults.map((f) => isGone(f, new Set(), mended));
  let cured = 0;
  space.forEach((h, i, j) => {
    if (gone[i] && (j < 0 || gone[j])) cured += p[h];
  });
  return cured;
}

const isUnlooked = (board: Board, state: JobState): boolean =>
  board.ports.every((p) => portGate(state, p.id).state === 'unlooked');

/** The repair to begin with, where it beats every test: alone or as the pair that it belongs to. */
function workNow(
  { work, repairFirst, tests }: RankedActions,
  repairs: readonly Repair[],
  unlooked: boolean,
): WorkNow | undefined {
  if (!work || !repairFirst || unlooked || !work.need.onBoard) return undefined;
  const repair = repairs.find((r) => r.targets.some((t) => targetKey(t) === targetKey(work.need.target)));
  return repair && { repair, expectedMinutes: work.expectedMinutes, insteadOf: tests[0]?.expectedMinutes };
}

/** Hours already spent do not count; and where the data is what matters, the device's worth does not decide. */
function tooDear({ story }: JobState, expectedMinutes: number | undefined, practice: Practice): JobAnalysis['tooDear'] {
  if (story?.worth === undefined || story.dataMatters || expectedMinutes === undefined) return undefined;
  const cost = priceOf(expectedMinutes, practice);
  return cost > story.worth ? { cost, worth: story.worth } : undefined;
}

/** Before a device has had any power on the bench, the look into its port comes first, whatever its information. */
function lookFirst(board: Board, state: JobState, proposals: readonly RankedTest[]): readonly RankedTest[] {
  if (!isUnlooked(board, state)) return proposals;
  const first = proposals.find(
    (p) => p.measurement.kind === 'visualInspection' && p.measurement.ref === board.ports[0].id,
  );
  return first ? [first, ...proposals.filter((p) => p !== first)] : proposals;
}

function storyReason(board: Board, state: JobState, top: Suspect, practice: Practice): string[] {
  const part = partByRef(board, top.ref);
  // The story tells of the part that the device came with.
  const factor =
    part && top.fault.fitting === undefined
      ? historyFactor(part.kind, state.story?.history ?? [], practice.factors)
      : 1;
  return factor > 1 ? [`The story makes ${top.ref} ${formatTimes(factor)} likelier to start with.`] : [];
}

const formatTimes = (factor: number): string => (factor >= 2 ? `${Math.round(factor)} times` : 'somewhat');

function lastPlace(board: Board, state: JobState): ProbePlace | undefined {
  const last = state.readings[state.readings.length - 1];
  return last && placeOf(board, last.measurement);
}

export const isOutside = (suspect: Suspect): boolean => suspect.ref === OUTSIDE;
