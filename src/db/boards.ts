import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { parseBoardText, type Board } from '../core/board';
import { fail, problemText, type Result } from '../core/result';
import { readRows, type UnreadableRow } from './readable';
import { boardRevisions, boards } from './schema';
import type { Session } from './session';

/** Parsed boards by their text: parsing and checking cost more than the read, and predictions are kept by the object. */
const parsed = new Map<string, Result<Board>>();
/** Texts that stay parsed; the one that was asked for longest ago goes first. */
const MOST_PARSED = 400;

function parseStored(json: string): Result<Board> {
  const known = parsed.get(json);
  parsed.delete(json);
  const result = known ?? parseBoardText(json);
  parsed.set(json, result);
  if (parsed.size > MOST_PARSED) parsed.delete(parsed.keys().next().value!);
  return result;
}

function readable(json: string): Board {
  const board = parseStored(json);
  if (!board.ok) throw new Error(problemText(board.problems).replace(/\.$/, ''));
  return board.value;
}

/** A board of the library and the revisions of its file. */
export interface BoardShelf {
  readonly id: string;
  readonly revision: number;
  readonly retiredAt?: string;
}

const newest = (db: Session) =>
  db
    .select({ id: boards.id, json: boardRevisions.json })
    .from(boards)
    .innerJoin(
      boardRevisions,
      and(eq(boardRevisions.boardId, boards.id), eq(boardRevisions.revision, boards.revision)),
    );

/** Every board by the newest revision of its file; one that cannot be read is left out and marked. */
export async function listBoards(db: Session, marks?: UnreadableRow[]): Promise<Board[]> {
  const rows = await newest(db).orderBy(asc(boards.id));
  return readRows(
    'boards',
    rows,
    (r) => r.id,
    (r) => readable(r.json),
    marks,
  );
}

/** The boards that new jobs are opened on: those that are not retired. */
export async function listBoardsInUse(db: Session, marks?: UnreadableRow[]): Promise<Board[]> {
  const rows = await newest(db).where(isNull(boards.retiredAt)).orderBy(asc(boards.id));
  return readRows(
    'boards',
    rows,
    (r) => r.id,
    (r) => readable(r.json),
    marks,
  );
}

export async function listShelf(db: Session): Promise<BoardShelf[]> {
  const rows = await db.select().from(boards).orderBy(asc(boards.id));
  return rows.map(({ retiredAt, ...row }) => ({ ...row, ...(retiredAt !== null && { retiredAt }) }));
}

/** The revisions of a board's file, newest first. */
export async function listRevisions(db: Session, id: string): Promise<{ revision: number; addedAt: string }[]> {
  return db
    .select({ revision: boardRevisions.revision, addedAt: boardRevisions.addedAt })
    .from(boardRevisions)
    .where(eq(boardRevisions.boardId, id))
    .orderBy(desc(boardRevisions.revision));
}

/** A board by a revision of its file, the newest where none is named, or why there is none. */
export async function readBoard(db: Session, id: string, revision?: number): Promise<Result<Board>> {
  const [row] =
    revision === undefined
      ? await newest(db).where(eq(boards.id, id))
      : await db
          .select({ json: boardRevisions.json })
          .from(boardRevisions)
          .where(and(eq(boardRevisions.boardId, id), eq(boardRevisions.revision, revision)));
  if (!row) return fail(`Expected a board of the library; there is no "${id}"${revision ? `, file ${revision}` : ''}.`);
  const board = parseStored(row.json);
  return board.ok ? board : fail(`The file of board "${id}" cannot be read: ${problemText(board.problems)}`);
}

export async function findBoard(db: Session, id: string, revision?: number): Promise<Board | undefined> {
  const board = await readBoard(db, id, revision);
  return board.ok ? board.value : undefined;
}

/**
 * Adds a board, or a new revision of the file of one that is there; the file that is the newest already adds none. The board
 * has been checked before.
 * @returns the revision that holds it.
 */
export async function saveBoard(db: Session, board: Board, at: string): Promise<number> {
  const json = JSON.stringify(board);
  const [known] = await db.select().from(boards).where(eq(boards.id, board.id));
  if (known) {
    const [same] = await newest(db).where(eq(boards.id, board.id));
    if (same?.json === json) return known.revision;
    const revision = known.revision + 1;
    await db.insert(boardRevisions).values({ boardId: board.id, revision, json, addedAt: at });
    await db.update(boards).set({ revision }).where(eq(boards.id, board.id));
    return revision;
  }
  await db.insert(boards).values({ id: board.id, revision: 1 });
  await db.insert(boardRevisions).values({ boardId: board.id, revision: 1, json, addedAt: at });
  return 1;
}

/** Takes a board out of use, or back into it; its jobs stay as they are. */
export async function retireBoard(db: Session, id: string, at: string | null): Promise<void> {
  await db.update(boards).set({ retiredAt: at }).where(eq(boards.id, id));
}
