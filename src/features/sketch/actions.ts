'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { refused, type ActionResult } from '@/application/action-result';
import * as boards from '@/application/library/boards';
import * as sketch from '@/application/library/sketch';
import type { PhotoPlace, Side } from '@/core/board';
import type { ReferenceReading } from '@/core/reference';
import type { Answers } from '@/core/sketch';
import { arg, taking } from '@/application/taking';
import { database } from '@/db/client';

/** Begins a board from what was answered by looking. */
export const beginSketch = taking(
  [arg.object<Answers>(), arg.key, arg.number.optional()],
  async (answers: Answers, key: string, job?: number): Promise<sketch.SketchResult> => {
    const answer = await sketch.beginSketch(await database(), answers, key, job);
    if (answer.saved) revalidatePath(job === undefined ? '/library' : '/', 'layout');
    return answer;
  },
);

/** Keeps a board that was worked on as the next revision of its file. */
export const keepBoard = taking(
  [arg.text, arg.number, arg.text, arg.key],
  async (id: string, from: number, text: string, key: string): Promise<ActionResult> => {
    const answer = await sketch.keepBoard(await database(), id, from, text, key);
    if (answer.saved) revalidatePath('/', 'layout');
    return answer;
  },
);

/** Keeps one reading of a known-good board. */
export const keepGoodReading = taking(
  [
    z.object({ boardId: z.string().max(80), point: z.string().max(80), value: z.number(), source: z.string().max(40) }),
    arg.key,
  ],
  async (reading: ReferenceReading, key: string): Promise<ActionResult> => {
    const answer = await boards.keepGoodReading(await database(), reading, key);
    if (answer.saved) revalidatePath('/', 'layout');
    return answer;
  },
);

/** Keeps a straightened photograph of one side. */
export const keepPhoto = taking(
  [arg.text, z.enum(['front', 'back']), arg.object<PhotoPlace>(), arg.form, arg.key],
  async (id: string, side: Side, place: PhotoPlace, form: FormData, key: string): Promise<ActionResult> => {
    const file = form.get('picture');
    if (!(file instanceof File)) return refused('Expected a picture; got none. Nothing was kept.', 'badInput');
    const bytes = new Uint8Array(await file.arrayBuffer());
    const answer = await sketch.keepBoardPhoto(await database(), id, side, bytes, place, key);
    if (answer.saved) revalidatePath('/library', 'layout');
    return answer;
  },
);
