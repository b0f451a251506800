'use server';

import { revalidatePath } from 'next/cache';
import { parseBoardText } from '@/core/board';
import { parseReferencesCsv } from '@/core/reference';
import { problemText } from '@/core/result';
import { findBoard, saveBoard } from '@/db/boards';
import { database } from '@/db/client';
import { keepReferences } from '@/db/knowledge';

/** Takes reference readings of a board in from CSV; a file with problems changes nothing. */
export async function addReferences(boardId: string, text: string): Promise<{ kept: boolean; words: string }> {
  const parsed = parseReferencesCsv(text);
  if (!parsed.ok) return { kept: false, words: problemText(parsed.problems) };
  const other = parsed.value.find((r) => r.boardId !== boardId);
  if (other) return { kept: false, words: `Expected readings of ${boardId} only; got one of ${other.boardId}.` };
  await keepReferences(await database(), parsed.value, new Date().toISOString());
  revalidatePath('/library/[id]', 'page');
  return { kept: true, words: `${parsed.value.length} ${parsed.value.length === 1 ? 'reading' : 'readings'} kept.` };
}

export interface BoardAnswer {
  readonly kept: boolean;
  readonly words: string;
  /** Each problem with its place in the file. */
  readonly problems: readonly string[];
}

/** Adds a board file to the library after checking it; a file with problems changes nothing. */
export async function addBoard(text: string): Promise<BoardAnswer> {
  const parsed = parseBoardText(text);
  if (!parsed.ok) {
    return {
      kept: false,
      words: `This board file was not kept: ${parsed.problems.length === 1 ? 'one problem' : `${parsed.problems.length} problems`}.`,
      problems: parsed.problems.map((p) => (p.at ? `${p.at}: ${p.message}` : p.message)),
    };
  }
  const board = parsed.value;
  const db = await database();
  const known = await findBoard(db, board.id);
  await saveBoard(db, board, new Date().toISOString());
  revalidatePath('/library');
  return {
    kept: true,
    words: `${board.device}, ${board.name}, revision ${board.revision}: ${known ? 'replaced' : 'added'}, ${board.parts.length} parts.`,
    problems: [],
  };
}
