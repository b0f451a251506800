import 'server-only';
import * as boards from '@/application/library/boards';
import * as packages from '@/application/library/packages';
import { loadUnreadable } from '@/application/library/unreadable';
import { isStandIn, type Board } from '@/core/board';
import type { ReferenceReading } from '@/core/reference';
import { findBoard, listBoards, readBoard } from '@/db/boards';
import { database } from '@/db/client';
import { listImports, listReferences, type ReferenceImport } from '@/db/knowledge';

/** The boards of the library, and every row of it that cannot be read. */
export async function loadLibrary() {
  const db = await database();
  const [all, unreadable] = await Promise.all([listBoards(db), loadUnreadable(db)]);
  // What stands in for boards that nobody has named is none of the shop's.
  return { boards: all.filter((b) => !isStandIn(b)), unreadable };
}

export const loadReferences = async (boardId: string): Promise<ReferenceReading[]> =>
  listReferences(await database(), boardId);
export const loadBoard = async (id: string): Promise<Board | undefined> => findBoard(await database(), id);
export const loadBoardFile = async (id: string) => boards.loadBoardFile(await database(), id);
export const findLibraryBoard = async (id: string) => readBoard(await database(), id);
export type BoardFile = Awaited<ReturnType<typeof loadBoardFile>>;

/** A board with all that belongs to it as one archive. */
export const loadPackage = async (id: string) => packages.loadPackage(await database(), id);

/** The imports of reference readings that can be taken back. */
export const loadImports = async (boardId: string): Promise<ReferenceImport[]> =>
  listImports(await database(), boardId);
