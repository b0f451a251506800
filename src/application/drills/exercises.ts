import { partByRef, type Board } from '../../core/board';
import { exerciseSchema, type ExerciseReview, type ExerciseSpec } from '../../core/drill';
import { problemText } from '../../core/result';
import { findBoard } from '../../db/boards';
import type { Database } from '../../db/client';
import { addDrill, findDrill, saveDrill, type DrillRow } from '../../db/drills';
import type { Session } from '../../db/session';
import { work } from '../../server-work/pool';
import { refused, saved, type ActionResult } from '../action-result';
import { once, oncePrepared } from '../once';
import { isExercise, specOf } from './row-spec';

/** An exercise as its page shows it; judged once it was done. */
export interface ExerciseView {
  readonly id: number;
  readonly spec: ExerciseSpec;
  readonly board: Board;
  readonly review?: ExerciseReview;
}

/** Begins an exercise of the course, or one that somebody made. */
export async function beginExercise(db: Database, input: unknown, key: string): Promise<ActionResult> {
  const parsed = exerciseSchema.safeParse(input);
  if (!parsed.success) return refused(`Expected an exercise; ${parsed.error.issues[0].message}.`, 'badInput');
  const spec = parsed.data;
  const board = await findBoard(db, spec.boardId);
  if (!board) return refused(`Expected a board of the library; got ${spec.boardId}.`, 'notFound');
  if (spec.kind === 'air' && !partByRef(board, spec.ref))
    return refused(`Expected a part of ${board.id}; got "${spec.ref}".`, 'badInput');
  return once(db, { key, scope: 'drill', request: spec }, async (tx, { at, actor }) => {
    const row = { at, person: actor, spec: JSON.stringify(spec), parMinutes: 0, steps: 'null' };
    return saved(`Begun: ${spec.name}.`, { seq: await addDrill(tx, row) });
  });
}

/** The exercise of a row, and its board; nothing where the row is none, or its board is gone. */
async function exerciseOf(db: Session, row: DrillRow | undefined) {
  const spec = row && specOf(row);
  if (!row || !spec || !isExercise(spec)) return undefined;
  const board = await findBoard(db, spec.boardId);
  return board && { row, spec, board };
}

export async function loadExercise(db: Session, id: number): Promise<ExerciseView | undefined> {
  const found = await exerciseOf(db, await findDrill(db, id));
  if (!found) return undefined;
  const { row, spec, board } = found;
  if (row.end === null) return { id, spec, board };
  const review = await work('exercise', { board, spec, done: JSON.parse(row.steps) });
  return { id, spec, board, review: review.ok ? review.value : undefined };
}

/** Takes what was done, judges it and keeps both; an exercise is done once. */
export function finishExercise(db: Database, id: number, done: unknown, key: string): Promise<ActionResult> {
  return oncePrepared(
    db,
    { key, scope: `drill ${id}`, request: { done } },
    async (before) => {
      const found = await exerciseOf(before, await findDrill(before, id));
      return found && (await work('exercise', { board: found.board, spec: found.spec, done }));
    },
    async (tx, { actor }, review) => {
      const row = await findDrill(tx, id);
      if (!row || !review)
        return refused(`Expected an exercise that was begun; there is none with number ${id}.`, 'notFound');
      if (row.person !== actor) return refused(`Expected your own exercise; this one is ${row.person}’s.`);
      if (row.end !== null) return refused('Expected an exercise that goes on; this one is over.');
      if (!review.ok) return refused(problemText(review.problems), 'badInput');
      const { end, score, lesson } = review.value;
      await saveDrill(tx, id, { steps: JSON.stringify(done), end, score });
      return saved(lesson);
    },
  );
}
