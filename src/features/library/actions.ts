'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { refused, refusedFor, type ActionResult } from '@/application/action-result';
import * as boards from '@/application/library/boards';
import * as packages from '@/application/library/packages';
import { arg, taking } from '@/application/taking';
import { database } from '@/db/client';

const shown = (answer: ActionResult): ActionResult => {
  if (answer.saved) revalidatePath('/library', 'layout');
  return answer;
};

/** Takes reference readings of a board in from CSV; a file with problems changes nothing. */
export const addReferences = taking(
  [arg.text, arg.text],
  async (boardId: string, text: string): Promise<ActionResult> =>
    shown(await boards.addReferences(await database(), boardId, text)),
);

/** Takes an import of reference readings back. */
export const dropReferenceImport = taking(
  [arg.text, arg.text],
  async (boardId: string, importKey: string): Promise<ActionResult> =>
    shown(await boards.dropReferenceImport(await database(), boardId, importKey)),
);

/** Adds a board file to the library after checking it; a file with problems changes nothing. */
export const addBoard = taking([arg.text], async (text: string): Promise<ActionResult> =>
  shown(await boards.addBoard(await database(), text)),
);

/** Looks into a board package; nothing is kept. */
export const lookIntoPackage = taking(
  [arg.form],
  async (form: FormData): Promise<packages.PackageLook | ActionResult> => {
    const bytes = await bytesOf(form);
    if (!bytes) return NO_FILE;
    const look = await packages.lookIntoPackage(await database(), bytes);
    return look.ok ? look.value : refusedFor(look.problems, 'badInput');
  },
);

/** Takes a board package in, of a board that is there the chosen lines. */
export const takePackage = taking(
  [arg.form, z.array(arg.text), arg.key],
  async (form: FormData, taken: readonly string[], key: string): Promise<ActionResult> => {
    const bytes = await bytesOf(form);
    return bytes ? shown(await packages.takePackage(await database(), bytes, taken, key)) : NO_FILE;
  },
);

const NO_FILE = refused('Expected a board package; got none.', 'badInput');

async function bytesOf(form: FormData): Promise<Uint8Array | undefined> {
  const file = form.get('package');
  return file instanceof File ? new Uint8Array(await file.arrayBuffer()) : undefined;
}

/** Copies a board under another id. */
export const copyBoard = taking([arg.text, arg.text], async (id: string, newId: string): Promise<ActionResult> =>
  shown(await boards.copyBoard(await database(), id, newId)),
);

/** Takes a board out of use, or back into it. */
export const setBoardRetired = taking(
  [arg.text, arg.flag],
  async (id: string, retired: boolean): Promise<ActionResult> =>
    shown(await boards.setBoardRetired(await database(), id, retired)),
);
