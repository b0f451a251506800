'use server';

import { revalidatePath } from 'next/cache';
import type { ActionResult } from '@/application/action-result';
import * as boards from '@/application/library/boards';
import { database } from '@/db/client';

const shown = (answer: ActionResult): ActionResult => {
  if (answer.saved) revalidatePath('/library', 'layout');
  return answer;
};

/** Takes reference readings of a board in from CSV; a file with problems changes nothing. */
export const addReferences = async (boardId: string, text: string): Promise<ActionResult> =>
  shown(await boards.addReferences(await database(), boardId, text));

/** Takes an import of reference readings back. */
export const dropReferenceImport = async (boardId: string, importKey: string): Promise<ActionResult> =>
  shown(await boards.dropReferenceImport(await database(), boardId, importKey));

/** Adds a board file to the library after checking it; a file with problems changes nothing. */
export const addBoard = async (text: string): Promise<ActionResult> =>
  shown(await boards.addBoard(await database(), text));

/** Copies a board under another id. */
export const copyBoard = async (id: string, newId: string): Promise<ActionResult> =>
  shown(await boards.copyBoard(await database(), id, newId));

/** Takes a board out of use, or back into it. */
export const setBoardRetired = async (id: string, retired: boolean): Promise<ActionResult> =>
  shown(await boards.setBoardRetired(await database(), id, retired));
