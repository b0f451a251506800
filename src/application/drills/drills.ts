import { readFile } from 'node:fs/promises';
import { z } from 'zod';
import { DEFAULT_PRACTICE, placeOf, Predictor } from '../../core/diagnose';
import {
  courseOn,
  drillOfWork,
  drillSchema,
  drillStepSchema,
  exerciseCourse,
  EXERCISE_NAMES,
  EXERCISES,
  NEW_LEARNER,
  nextGrade,
  rated,
  readDrillLine,
  replay,
  scoreOf,
  stemOf,
  tourStop,
  unknownFaults,
  type Drill,
  type DrillPlay,
  type DrillScore,
  type DrillStep,
  type ExerciseName,
  type ExerciseSpec,
  type Rating,
  type StepReview,
  type TourStop,
} from '../../core/drill';
import { foldJob } from '../../core/job';
import { problemText } from '../../core/result';
import type { Board, ProbePlace } from '../../core/board';
import { findBoard, listBoardsInUse } from '../../db/boards';
import type { Database } from '../../db/client';
import { addDrill, allDrills, drillsOf, findDrill, saveDrill, type DrillRow } from '../../db/drills';
import { knowledgeOf } from '../../db/knowledge';
import type { Session } from '../../db/session';
import { work } from '../../server-work/pool';
import { noJob, refused, saved, type ActionResult } from '../action-result';
import { entrant } from '../entrant';
import { loadRecord } from '../jobs/load-job';
import { addBoard } from '../library/boards';
import { once } from '../once';
import { isExercise, specOf } from './row-spec';

/** Drills whose play is held ready, so that a step does not play all before it again. */
const HELD = 20;
const held = new Map<string, DrillPlay>();

/** So many drills are taken in the order of the course before the skill says which. Engineering estimate. */
const IN_ORDER = 3;

/** Seeds that are tried for one that the program itself solves. */
const MOST_TRIES = 12;

const stepsOf = (row: DrillRow): DrillStep[] => z.array(drillStepSchema).parse(JSON.parse(row.steps));

/** The play of a drill as far as it has come, from memory or from its steps. */
function playOf(row: DrillRow, spec: Drill, board: Board): DrillPlay {
  const steps = stepsOf(row);
  const key = `${row.id} ${row.at} ${steps.length}`;
  const ready = held.get(key);
  if (ready?.reviews.length === steps.length) return ready;
  return hold(key, replay(Predictor.of(board), spec, steps));
}

function hold(key: string, play: DrillPlay): DrillPlay {
  held.delete(key);
  held.set(key, play);
  const [oldest] = held.keys();
  if (held.size > HELD) held.delete(oldest);
  return play;
}

/** What a learner sees of a drill that goes on, and all of one that is over. */
export interface DrillView {
  readonly id: number;
  readonly name: string;
  readonly grade: number;
  readonly board: Board;
  readonly story: string;
  readonly minutes: number;
  readonly steps: readonly Pick<StepReview, 'words' | 'answer' | 'minutes'>[];
  /** Where the probe has been. */
  readonly places: readonly ProbePlace[];
  /** What the last hint named, as it is typed. */
  readonly hinted?: string;
  readonly end?: string;
  /** What a newcomer is told here, where the drill doubles as the tour of the program. */
  readonly tour: TourStop;
  /** With what was hidden; only once it is over. */
  readonly review?: { readonly truth: string; readonly score: DrillScore; readonly steps: readonly StepReview[] };
}

export async function loadDrill(db: Session, id: number): Promise<DrillView | undefined> {
  const row = await findDrill(db, id);
  if (!row) return undefined;
  const spec = specOf(row);
  if (isExercise(spec)) return undefined;
  const board = await findBoard(db, spec.boardId);
  if (!board) return undefined;
  const play = playOf(row, spec, board);
  const steps = stepsOf(row);
  const lastStep = steps.at(-1);
  const proposal = lastStep?.do === 'hint' && !play.end ? play.proposal() : undefined;
  return {
    ...{ id, name: spec.name, grade: spec.grade, board, story: play.drawn.story, minutes: play.minutes },
    steps: play.reviews.map(({ words, answer, minutes }) => ({ words, answer, minutes })),
    places: steps.flatMap((s) => (s.do === 'measure' ? (placeOf(board, s.measurement) ?? []) : [])),
    hinted:
      proposal && (proposal.kind === 'test' || proposal.kind === 'again')
        ? stemOf(board, proposal.measurement)
        : undefined,
    end: play.end,
    tour: tourStop(board, steps, play.end),
    review: play.end && {
      truth: play.truth(),
      score: scoreOf(play, row.parMinutes),
      steps: play.reviews,
    },
  };
}

/** Exercises of a kind: what it trains, how each of its course went last, and how sure the hand is. */
export interface ExerciseList {
  readonly kind: ExerciseName;
  readonly title: string;
  readonly about: string;
  readonly skill: Rating;
  readonly course: readonly { readonly spec: ExerciseSpec; readonly last?: DrillLine }[];
}

export interface DrillLine {
  readonly id: number;
  readonly name: string;
  readonly grade: number;
  readonly person: string;
  readonly at: string;
  readonly end?: string;
  readonly score?: number;
}

export interface DrillList {
  /** Ten graded drills; those that were begun here by this person say how they went last. */
  readonly course: readonly (Drill & { readonly last?: DrillLine })[];
  readonly mine: readonly DrillLine[];
  readonly skill: Rating;
  readonly next: number;
  /** What is practised beside finding faults, by its kind. */
  readonly exercises: readonly ExerciseList[];
  /** Everybody's skill, for the lead's sheet. */
  readonly people: readonly { readonly person: string; readonly skill: Rating }[];
}

const lineOf = (row: DrillRow): DrillLine => {
  const { name, grade } = specOf(row);
  const { id, person, end, score, at } = row;
  return { id, name, grade, person, at, end: end ?? undefined, score: score ?? undefined };
};

const skillOf = (lines: readonly DrillLine[]): Rating =>
  lines.reduce((skill, l) => (l.score === undefined ? skill : rated(skill, l.grade, l.score)), NEW_LEARNER);

function exerciseLists(boards: readonly Board[], own: readonly DrillRow[]): ExerciseList[] {
  return EXERCISE_NAMES.map((kind): ExerciseList => {
    const lines = own.flatMap((row) => {
      const spec = specOf(row);
      return isExercise(spec) && spec.kind === kind ? [lineOf(row)] : [];
    });
    const { title, about } = EXERCISES[kind];
    const course = exerciseCourse(kind, boards).map((spec) => ({
      spec,
      last: lines.findLast((l) => l.name === spec.name),
    }));
    return { kind, title, about, skill: skillOf(lines), course };
  });
}

export async function loadDrills(db: Session): Promise<DrillList> {
  const { actor } = await entrant('');
  const [boards, all, own] = await Promise.all([listBoardsInUse(db), allDrills(db), drillsOf(db, actor)]);
  const isOfFaults = (row: DrillRow): boolean => !isExercise(specOf(row));
  const lines = all.filter(isOfFaults).map(lineOf);
  const mine = own.filter(isOfFaults).map(lineOf);
  const skill = skillOf(mine);
  const people = [...new Set(lines.map((l) => l.person))].map((person) => ({
    person,
    skill: skillOf(lines.filter((l) => l.person === person).toReversed()),
  }));
  return {
    ...{ mine: mine.toReversed(), skill, people },
    // Before anything is known of a learner the course is taken in its order.
    next: skill.drills < IN_ORDER ? skill.drills + 1 : nextGrade(skill),
    exercises: exerciseLists(boards, own),
    course: courseOn(boards).map((drill) => ({ ...drill, last: mine.findLast((l) => l.name === drill.name) })),
  };
}

/** Begins a drill; its seed goes on until the program itself solves it: nobody is asked what cannot be found. */
export async function beginDrill(db: Database, input: unknown, key: string): Promise<ActionResult> {
  const parsed = drillSchema.safeParse(input);
  if (!parsed.success) return refused(`Expected a drill; ${parsed.error.issues[0].message}.`, 'badInput');
  const board = await findBoard(db, parsed.data.boardId);
  if (!board) return refused(`Expected a board of the library; got ${parsed.data.boardId}.`, 'notFound');
  const [unknown] = unknownFaults(Predictor.of(board), parsed.data);
  if (unknown) return refused(`Expected faults of ${board.id}; got "${unknown}".`, 'badInput');
  let drill = parsed.data;
  let par = await work('par', { board, drill });
  for (let k = 1; k < MOST_TRIES && !par.isSolved; k++) {
    drill = { ...drill, seed: drill.seed + 1000 };
    par = await work('par', { board, drill });
  }
  if (!par.isSolved) return refused('Expected a drill that can be solved; on this board none of twelve was.');
  const parMinutes = par.minutes;
  return once(db, { key, scope: 'drill', request: parsed.data }, async (tx, { at, actor }) => {
    const row = { at, person: actor, spec: JSON.stringify(drill), parMinutes, steps: '[]' };
    return saved(`Begun: ${drill.name}.`, { seq: await addDrill(tx, row) });
  });
}

/** A board of the demo world, for a shop that has none to practise on. */
const PRACTICE_BOARD = 'demo/boards/heronlog-4-c.json';

/** Begins the first drill of the course, as the tour of the program; a shop without a board takes one to practise on. */
export async function beginTour(db: Database, key: string): Promise<ActionResult> {
  if ((await listBoardsInUse(db)).length === 0) {
    const taken = await addBoard(db, await readFile(PRACTICE_BOARD, 'utf8'));
    if (!taken.saved) return taken;
  }
  const [first] = courseOn(await listBoardsInUse(db));
  return beginDrill(db, first, key);
}

/** Begins a drill with the faults of a job that was closed as repaired; nothing of its owner goes along. */
export async function beginDrillOfJob(db: Database, number: number, key: string): Promise<ActionResult> {
  const record = await loadRecord(db, number);
  if (!record.ok) return noJob(number);
  const state = foldJob(record.value.shown);
  if (state.closed?.outcome !== 'repaired')
    return refused(
      `Expected a job that was closed as repaired; ${number} was not: what was wrong with it nobody knows.`,
    );
  const { practice = DEFAULT_PRACTICE } = await knowledgeOf(db, record.value.board.id);
  const { readings, replaced, story } = state;
  const done = { number, readings, replaced, history: story?.history ?? [], practice };
  const drill = drillOfWork(Predictor.of(record.value.board), done);
  if (!drill)
    return refused(`Expected readings that show what was mended; those of job ${number} do not say what was wrong.`);
  return beginDrill(db, drill, key);
}

/** Takes a typed line of a drill: the reading comes back, or the proof after a work. */
export function takeDrillLine(db: Database, id: number, text: string, key: string): Promise<ActionResult> {
  return once(db, { key, scope: `drill ${id}`, request: { text } }, async (tx, { actor }) => {
    const row = await findDrill(tx, id);
    const spec = row && specOf(row);
    const board = spec && !isExercise(spec) ? await findBoard(tx, spec.boardId) : undefined;
    if (!row || !spec || isExercise(spec) || !board)
      return refused(`Expected a drill that was begun; there is none with number ${id}.`, 'notFound');
    if (row.person !== actor) return refused(`Expected your own drill; this one is ${row.person}’s.`);
    const play = playOf(row, spec, board);
    const steps = stepsOf(row);
    const proposal = steps.at(-1)?.do === 'hint' ? play.proposal() : undefined;
    const also = proposal && (proposal.kind === 'test' || proposal.kind === 'again') ? [proposal.measurement] : [];
    const step = readDrillLine(board, text, also);
    if (!step.ok) return refused(problemText(step.problems), 'badInput');
    const taken = play.take(step.value);
    if (!taken.ok) return refused(problemText(taken.problems));
    const next = [...steps, step.value];
    const score = play.end && scoreOf(play, row.parMinutes);
    await saveDrill(tx, id, {
      steps: JSON.stringify(next),
      ...(score && { end: play.end, score: score.score, regretMinutes: score.regretMinutes }),
    });
    hold(`${row.id} ${row.at} ${next.length}`, play);
    return { ...saved(`${taken.value.words}: ${taken.value.answer}`), seq: next.length };
  });
}
