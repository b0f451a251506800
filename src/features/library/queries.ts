import 'server-only';
import type { Board } from '@/core/board';
import { findBoard, listBoards } from '@/db/boards';
import { database } from '@/db/client';

export const loadBoards = async (): Promise<Board[]> => listBoards(await database());
export const loadBoard = async (id: string): Promise<Board | undefined> => findBoard(await database(), id);
