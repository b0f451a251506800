'use server';

import { revalidatePath } from 'next/cache';
import { refused, type ActionResult } from '@/application/action-result';
import * as pictures from '@/application/jobs/pictures';
import * as settings from '@/application/settings';
import type { Origin } from '@/core/job';
import { arg, taking } from '@/application/taking';
import { database } from '@/db/client';

const LONGEST_NAME = 200;

/** Keeps a picture with what was seen in it: `picture` is the file, `seen` the event without its picture's name. */
export const keepInspection = taking(
  [arg.number, arg.form, arg.key],
  async (number: number, form: FormData, key: string): Promise<ActionResult> => {
    const file = form.get('picture');
    if (!(file instanceof File)) return refused('Expected a picture; got none.', 'badInput');
    let seen: object;
    let origin: Origin | undefined;
    try {
      seen = JSON.parse(String(form.get('seen'))) as object;
      const said = form.get('origin');
      if (said !== null) origin = JSON.parse(String(said)) as Origin;
    } catch {
      return refused('Expected what was seen in the picture as JSON.', 'badInput');
    }
    const picture = { bytes: new Uint8Array(await file.arrayBuffer()), name: file.name.slice(0, LONGEST_NAME), origin };
    const answer = await pictures.keepInspection(await database(), number, picture, seen, key);
    if (answer.saved) revalidatePath('/jobs/[number]', 'layout');
    return answer;
  },
);

/** Keeps one of the house rules of making sites ready. */
export async function keepSiteRule(rule: unknown): Promise<ActionResult> {
  const answer = await settings.keepSiteRule(await database(), rule);
  revalidatePath('/', 'layout');
  return answer;
}
