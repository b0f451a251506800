'use server';

import { revalidatePath } from 'next/cache';
import { eventBodySchema } from '@/core/job';
import { sitePracticeSchema } from '@/core/joints';
import { problemText } from '@/core/result';
import { database } from '@/db/client';
import { enter } from '@/db/enter';
import { keepImage } from '@/db/images';
import { findJob } from '@/db/jobs';
import { findSitePractice, saveSitePractice } from '@/db/knowledge';
import { MOST_PICTURE_BYTES, pictureType } from '@/core/picture';

export interface BallsAnswer {
  readonly kept: boolean;
  readonly words: string;
}

const no = (words: string): BallsAnswer => ({ kept: false, words });

/** Keeps a picture with what was seen in it: `picture` is the file, `seen` the event without its picture's name. */
export async function keepInspection(number: number, form: FormData, key: string): Promise<BallsAnswer> {
  const file = form.get('picture');
  if (!(file instanceof File)) return no('Expected a picture; got none.');
  if (file.size > MOST_PICTURE_BYTES)
    return no(`Expected a picture of at most ${MOST_PICTURE_BYTES / 1e6} MB; got ${(file.size / 1e6).toFixed(1)}.`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (!pictureType(bytes)) return no('Expected a PNG or JPEG picture; this file is neither.');
  let seen: object;
  try {
    seen = JSON.parse(String(form.get('seen'))) as object;
  } catch {
    return no('Expected what was seen in the picture as JSON.');
  }
  const db = await database();
  if (!(await findJob(db, number))) return no(`Expected a job that exists; there is no job ${number}.`);
  const name = file.name.slice(0, 200);
  const placeholder = '0'.repeat(64);
  const checked = eventBodySchema.safeParse({ ...seen, sha256: placeholder, name });
  if (!checked.success || (checked.data.kind !== 'inspection' && checked.data.kind !== 'padLook'))
    return no(`Expected what was seen in the picture: ${checked.error?.issues[0].path.join('.') ?? 'balls or pads'}.`);
  const sha256 = await keepImage(db, { bytes, name, at: new Date().toISOString() });
  const stored = await enter(db, number, { ...checked.data, sha256 }, key);
  if (!stored.ok) return no(problemText(stored.problems));
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words: 'Kept on the job with its picture.' };
}

/** Keeps one of the house rules of making sites ready. */
export async function keepSiteRule(rule: unknown): Promise<BallsAnswer> {
  const db = await database();
  const next = sitePracticeSchema.safeParse({ ...(await findSitePractice(db)), ...(rule as object) });
  if (!next.success) {
    const [issue] = next.error.issues;
    return no(`Expected a house rule; ${issue.path.join('.')}: ${issue.message}.`);
  }
  await saveSitePractice(db, next.data);
  revalidatePath('/', 'layout');
  return { kept: true, words: 'Kept.' };
}
