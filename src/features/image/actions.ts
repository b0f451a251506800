'use server';

import { revalidatePath } from 'next/cache';
import { z } from 'zod';
import { refused, type ActionResult } from '@/application/action-result';
import * as images from '@/application/jobs/images';
import * as maps from '@/application/library/parts';
import type { Transplant } from '@/core/image';
import type { Origin } from '@/core/job';
import { arg, taking } from '@/application/taking';
import { database } from '@/db/client';

const shown = (answer: ActionResult): ActionResult => {
  if (answer.saved) revalidatePath('/jobs/[number]', 'layout');
  return answer;
};

const LONGEST_NAME = 200;

/** Where the form says that its bytes come from; nothing where it says nothing. Checked where it is kept. */
const originOf = (form: FormData): Origin | undefined => {
  const said = form.get('origin');
  return said === null ? undefined : (JSON.parse(String(said)) as Origin);
};

/** Keeps a dump that was loaded from a file. The size has been checked in the browser; it is checked again here. */
export const keepDump = taking(
  [arg.number, z.enum(['patient', 'donor']), arg.form],
  async (number: number, role: 'patient' | 'donor', form: FormData): Promise<ActionResult> => {
    const file = form.get('dump');
    if (!(file instanceof File)) return refused('Expected a file; got none.', 'badInput');
    const bytes = new Uint8Array(await file.arrayBuffer());
    const name = file.name.slice(0, LONGEST_NAME);
    return shown(await images.keepJobImage(await database(), number, { role, bytes, name, origin: originOf(form) }));
  },
);

/** Keeps what a chip held before it is written over: the way back. */
export const keepOriginal = taking(
  [arg.number, arg.text, arg.form],
  async (number: number, ref: string, form: FormData): Promise<ActionResult> => {
    const file = form.get('dump');
    if (!(file instanceof File)) return refused('Expected what the chip held; got no file.', 'badInput');
    const bytes = new Uint8Array(await file.arrayBuffer());
    const name = `${ref} of job ${number} before the write`;
    return shown(
      await images.keepJobImage(await database(), number, { role: 'before', bytes, name, origin: originOf(form) }),
    );
  },
);

/** Takes an image that is kept here already. */
export const takeKept = taking(
  [arg.number, z.enum(['patient', 'donor']), arg.text, arg.text],
  async (number: number, role: 'patient' | 'donor', sha256: string, name: string): Promise<ActionResult> =>
    shown(await images.takeKept(await database(), number, { role, sha256, name })),
);

/** Makes the new image by its rules, checks it, and keeps it by its SHA-256 with what it was made of. */
export const buildMerged = taking(
  [arg.number, arg.text, arg.text.optional(), arg.object<Transplant>()],
  async (number: number, patient: string, donor: string | undefined, plan: Transplant): Promise<ActionResult> =>
    shown(await images.buildMerged(await database(), number, { patient, donor }, plan)),
);

/** Marks an image as written to the part and read back. */
export const markWritten = taking(
  [arg.number, arg.text, arg.text],
  async (number: number, ref: string, sha256: string): Promise<ActionResult> =>
    shown(await images.markWritten(await database(), number, ref, sha256)),
);

/** Keeps a map; one that is there already goes on to its next revision. A malformed one changes nothing. */
export async function saveMap(map: unknown): Promise<ActionResult> {
  const answer = await maps.saveMap(await database(), map);
  if (answer.saved) revalidatePath('/', 'layout');
  return answer;
}
