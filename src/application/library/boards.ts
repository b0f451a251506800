import { parseBoardText } from '../../core/board';
import { referenceProblem } from '../../core/diagnose';
import { foldJob, misfits } from '../../core/job';
import { parseReferencesCsv, type ReferenceReading } from '../../core/reference';
import { fail, ok } from '../../core/result';
import { STAND_IN_ID } from '../../core/sketch';
import { findBoard, listRevisions, listShelf, readBoard, retireBoard, saveBoard } from '../../db/boards';
import type { Database } from '../../db/client';
import { findJob, moveJob } from '../../db/jobs';
import { dropImport, keepReferences } from '../../db/knowledge';
import type { Session } from '../../db/session';
import { refused, refusedFor, saved, type ActionResult } from '../action-result';
import { keep, once } from '../once';
import { loadRecord } from '../jobs/load-job';

/** Adds a board file to the library after checking it, or a new revision of one that is there; a file with problems changes nothing. */
export async function addBoard(db: Database, text: string): Promise<ActionResult> {
  const parsed = parseBoardText(text);
  if (!parsed.ok) {
    const { problems } = parsed;
    return {
      ...refused(
        `This board file was not kept: ${problems.length === 1 ? 'one problem' : `${problems.length} problems`}.`,
        'badInput',
      ),
      problems: problems.map((p) => (p.at ? `${p.at}: ${p.message}` : p.message)),
    };
  }
  return keep(db, `board ${parsed.value.id}`, async (tx, at) => {
    const board = parsed.value;
    const before = (await listShelf(tx)).find((b) => b.id === board.id)?.revision;
    const revision = await saveBoard(tx, board, at);
    const name = `${board.device}, ${board.name}, revision ${board.revision}`;
    if (before === undefined) return `${name}: added, ${board.parts.length} parts.`;
    if (revision === before) return `${name}: this file is there already, as file ${revision}.`;
    return `${name}: kept as file ${revision}, ${board.parts.length} parts. Open jobs stay on the file they were opened with.`;
  });
}

/** Adds a board that was made from open files; a board that is there already is not written over. */
export async function addDraft(db: Database, text: string): Promise<ActionResult> {
  const parsed = parseBoardText(text);
  if (!parsed.ok) return refusedFor(parsed.problems, 'badInput');
  const { id, device, name } = parsed.value;
  return once(db, { scope: `board ${id}`, request: null }, async (tx, { at }) => {
    if (await findBoard(tx, id))
      return refused(`Expected an id that no board has yet; got ${id}, which is in the library.`);
    await saveBoard(tx, parsed.value, at);
    return saved(`${device}, ${name}: added.`);
  });
}

const BOARD_ID = /^[a-z0-9][a-z0-9-]{0,60}$/;

/** Copies a board under another id: the start of a sister board. */
export async function copyBoard(db: Database, id: string, newId: string): Promise<ActionResult> {
  if (!BOARD_ID.test(newId))
    return refused(`Expected an id in small letters, digits and hyphens; got "${newId}".`, 'badInput');
  return once(db, { scope: `board ${newId}`, request: { copyOf: id } }, async (tx, { at }) => {
    const board = await readBoard(tx, id);
    if (!board.ok) return refusedFor(board.problems, 'notFound');
    if ((await listShelf(tx)).some((b) => b.id === newId))
      return refused(`Expected an id that no board has yet; got ${newId}, which is in the library.`);
    await saveBoard(tx, { ...board.value, id: newId }, at);
    return saved(`Copied as ${newId}.`);
  });
}

/** Takes a board out of use, so that no new job is opened on it, or back into it. */
export function setBoardRetired(db: Database, id: string, retired: boolean): Promise<ActionResult> {
  return once(db, { scope: `board ${id}`, request: { retired } }, async (tx, { at }) => {
    if (!(await listShelf(tx)).some((b) => b.id === id))
      return refused(`Expected a board of the library; there is no "${id}".`, 'notFound');
    await retireBoard(tx, id, retired ? at : null);
    return saved(retired ? 'Retired: no new job is opened on it.' : 'In use again.');
  });
}

/** What a board's page shows of its file. */
export async function loadBoardFile(db: Session, id: string) {
  const [shelf, revisions] = await Promise.all([listShelf(db), listRevisions(db, id)]);
  return { retiredAt: shelf.find((b) => b.id === id)?.retiredAt, revisions };
}

/** A file that a job can be moved to: another revision of its own board's, or another board's. */
export interface MoveGoal {
  readonly boardId?: string;
  readonly revision: number;
}

/** What of a job's record would not fit another file, in sentences; nothing is changed. */
export async function misfitsOfMove(db: Session, number: number, { boardId, revision }: MoveGoal) {
  const job = await loadRecord(db, number);
  if (!job.ok) return job;
  const { row, events, board: from } = job.value;
  if (boardId !== undefined && foldJob(events).closed)
    return fail(`Expected an open job to say its board of; job ${number} is closed.`);
  const board = await readBoard(db, boardId ?? row.boardId, revision);
  return board.ok ? ok(misfits(from, board.value, events)) : board;
}

/** A newer file of a job's board than the one that it is on. */
export interface RevisionChoice {
  readonly on: number;
  readonly newest: number;
  /** What of the record would not fit it, in sentences. */
  readonly misfits: readonly string[];
}

/** The newer file that a job could be moved to; none where it is on the newest. */
export async function loadRevisionChoice(db: Session, number: number): Promise<RevisionChoice | undefined> {
  const row = await findJob(db, number);
  const newest = row && (await listShelf(db)).find((b) => b.id === row.boardId)?.revision;
  if (!row || newest === undefined || newest <= row.boardRevision) return undefined;
  const found = await misfitsOfMove(db, number, { revision: newest });
  return found.ok ? { on: row.boardRevision, newest, misfits: found.value } : undefined;
}

/** Moves a job to another file. What does not fit has been said before, and is agreed to here. */
export function moveJobToFile(
  db: Database,
  number: number,
  goal: MoveGoal,
  { acceptMisfits = false }: { readonly acceptMisfits?: boolean } = {},
): Promise<ActionResult> {
  return once(db, { scope: `job ${number}`, request: { ...goal, acceptMisfits } }, async (tx) => {
    const found = await misfitsOfMove(tx, number, goal);
    if (!found.ok) return refusedFor(found.problems, 'notFound');
    if (found.value.length > 0 && !acceptMisfits)
      return {
        ...refused(`Expected a record that fits ${fileName(goal)}; ${found.value.length} entries do not.`),
        problems: found.value,
      };
    await moveJob(tx, number, { boardId: goal.boardId, boardRevision: goal.revision });
    return saved(`On ${fileName(goal)} now.`);
  });
}

const fileName = ({ boardId, revision }: MoveGoal): string =>
  boardId === undefined ? `file ${revision}` : `file ${revision} of ${boardId}`;

/** Says which board a job has, by the newest file of it in the library. */
export async function chooseBoard(
  db: Database,
  number: number,
  boardId: string,
  acceptMisfits: boolean,
): Promise<ActionResult> {
  const shelf = (await listShelf(db)).find((b) => b.id === boardId);
  if (!shelf || boardId === STAND_IN_ID)
    return refused(`Expected a board of the library; there is no "${boardId}".`, 'notFound');
  return moveJobToFile(db, number, { boardId, revision: shelf.revision }, { acceptMisfits });
}

/** Takes reference readings of a board in from CSV; a file with problems changes nothing. */
export async function addReferences(db: Database, boardId: string, text: string): Promise<ActionResult> {
  const parsed = parseReferencesCsv(text);
  if (!parsed.ok) return refusedFor(parsed.problems, 'badInput');
  const other = parsed.value.find((r) => r.boardId !== boardId);
  if (other) return refused(`Expected readings of ${boardId} only; got one of ${other.boardId}.`, 'badInput');
  return once(db, { scope: `references of ${boardId}`, request: null }, async (tx, { key, at }) => {
    const board = await readBoard(tx, boardId);
    if (!board.ok) return refusedFor(board.problems, 'notFound');
    const problems = parsed.value.flatMap((r, i) => {
      const message = referenceProblem(board.value, r);
      return message ? [{ at: `line ${i + 2}`, message }] : [];
    });
    if (problems.length > 0) return refusedFor(problems, 'badInput');
    await keepReferences(tx, parsed.value, at, key);
    return saved(`${parsed.value.length} ${parsed.value.length === 1 ? 'reading' : 'readings'} kept.`);
  });
}

/**
 * Keeps one reading of a known-good board. The same point of the same board once more corrects it; all of one board are taken
 * back as one import.
 */
export function keepGoodReading(db: Database, reading: ReferenceReading, key: string): Promise<ActionResult> {
  const { boardId, source } = reading;
  return once(db, { key, scope: `references of ${boardId}`, request: reading }, async (tx, { at }) => {
    const board = await readBoard(tx, boardId);
    if (!board.ok) return refusedFor(board.problems, 'notFound');
    const problem = referenceProblem(board.value, reading);
    if (problem !== undefined) return refused(problem, 'badInput');
    await keepReferences(tx, [reading], at, source);
    return saved(`Kept of ${source}.`);
  });
}

/** Takes an import of reference readings back. */
export function dropReferenceImport(db: Database, boardId: string, importKey: string): Promise<ActionResult> {
  return once(db, { scope: `references of ${boardId}`, request: { importKey } }, async (tx) => {
    const gone = await dropImport(tx, boardId, importKey);
    return gone === 0
      ? refused('Expected an import that is there; it was taken back already.', 'notFound')
      : saved(`${gone} ${gone === 1 ? 'reading' : 'readings'} taken back.`);
  });
}
