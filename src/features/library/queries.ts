import 'server-only';
import type { Board } from '@/core/board';
import type { ReferenceReading } from '@/core/reference';
import { findBoard, listBoards } from '@/db/boards';
import { database } from '@/db/client';
import { listReferences } from '@/db/knowledge';

export const loadBoards = async (): Promise<Board[]> => listBoards(await database());
export const loadReferences = async (boardId: string): Promise<ReferenceReading[]> =>
  listReferences(await database(), boardId);
export const loadBoard = async (id: string): Promise<Board | undefined> => findBoard(await database(), id);
