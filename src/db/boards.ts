import { eq } from 'drizzle-orm';
import { parseBoardText, type Board } from '../core/board';
import { problemText } from '../core/result';
import type { Database } from './client';
import { boards } from './schema';

/** Parsed boards by their text: parsing and checking cost more than the read. */
const parsed = new Map<string, Board>();

function parseStored(json: string): Board {
  let board = parsed.get(json);
  if (!board) {
    const result = parseBoardText(json);
    if (!result.ok) throw new Error(`stored board is not readable: ${problemText(result.problems)}`);
    parsed.set(json, (board = result.value));
  }
  return board;
}

export async function listBoards(db: Database): Promise<Board[]> {
  const rows = await db.select().from(boards).orderBy(boards.id);
  return rows.map((row) => parseStored(row.json));
}

export async function findBoard(db: Pick<Database, 'select'>, id: string): Promise<Board | undefined> {
  const [row] = await db.select().from(boards).where(eq(boards.id, id));
  return row && parseStored(row.json);
}

/** Adds a board, or replaces the file of the same id. The board has been checked before. */
export async function saveBoard(db: Database, board: Board, at: string): Promise<void> {
  const json = JSON.stringify(board);
  await db
    .insert(boards)
    .values({ id: board.id, json, addedAt: at })
    .onConflictDoUpdate({ target: boards.id, set: { json, addedAt: at } });
}
