'use server';

import { revalidatePath } from 'next/cache';
import { judgeImage, mergeImages, positionConflict, type ImageFamily, type MergeRules } from '@/core/image';
import type { EventBody, ImageRole } from '@/core/job';
import { problemText } from '@/core/result';
import { findBoard } from '@/db/boards';
import { database, type Database } from '@/db/client';
import { enter } from '@/db/enter';
import { imageBytes, keepImage } from '@/db/images';
import { findJob } from '@/db/jobs';
import { findImageFamily } from '@/db/library';

export interface ImageAnswer {
  readonly kept: boolean;
  readonly words: string;
}

const no = (words: string): ImageAnswer => ({ kept: false, words });

async function familyOfJob(db: Database, number: number): Promise<ImageFamily | undefined> {
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  return board?.imageFamily ? findImageFamily(db, board.imageFamily) : undefined;
}

async function keepForJob(number: number, role: ImageRole, bytes: Uint8Array, name: string): Promise<ImageAnswer> {
  const db = await database();
  const family = await familyOfJob(db, number);
  if (!family) return no('Expected a board with an image family; this one names none.');
  if (bytes.length !== family.sizeBytes) return no(sizeWords(family, bytes.length));
  const sha256 = await keepImage(db, { bytes, name, familyId: family.id, at: new Date().toISOString() });
  const { sound } = judgeImage(family, bytes);
  const body: EventBody = { kind: 'image', role, sha256, name, sizeBytes: bytes.length, sound };
  const stored = await enter(db, number, { body });
  if (!stored.ok) return no(problemText(stored.problems));
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words: `Kept as ${sha256.slice(0, 12)}…` };
}

const sizeWords = (family: ImageFamily, got: number): string =>
  `Expected a raw dump of ${family.sizeBytes.toLocaleString('en')} bytes for ${family.name}; got ${got.toLocaleString('en')}. Nothing was kept.`;

/** Keeps a dump that was loaded from a file. The size has been checked in the browser; it is checked again here. */
export async function keepDump(number: number, role: 'patient' | 'donor', form: FormData): Promise<ImageAnswer> {
  const file = form.get('dump');
  if (!(file instanceof File)) return no('Expected a file; got none.');
  return keepForJob(number, role, new Uint8Array(await file.arrayBuffer()), file.name.slice(0, 200));
}

/** Keeps what a chip held before it is written over, and notes it on the job. */
export async function keepOriginal(number: number, ref: string, form: FormData): Promise<ImageAnswer> {
  const file = form.get('dump');
  if (!(file instanceof File)) return no('Expected what the chip held; got no file.');
  const db = await database();
  const family = await familyOfJob(db, number);
  if (!family) return no('Expected a board with an image family; this one names none.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (bytes.length !== family.sizeBytes) return no(sizeWords(family, bytes.length));
  const name = `${ref} of job ${number} before the write`;
  const sha256 = await keepImage(db, { bytes, name, familyId: family.id, at: new Date().toISOString() });
  const text = `Before the write ${ref} held an image that is kept as ${sha256}.`;
  const stored = await enter(db, number, { body: { kind: 'note', text } });
  return stored.ok ? { kept: true, words: `Kept as ${sha256.slice(0, 12)}…` } : no(problemText(stored.problems));
}

/** Takes an image that is kept here already. */
export async function takeKept(
  number: number,
  role: 'patient' | 'donor',
  sha256: string,
  name: string,
): Promise<ImageAnswer> {
  const bytes = await imageBytes(await database(), sha256);
  return bytes ? keepForJob(number, role, bytes, name) : no(`Expected an image that is kept here; got ${sha256}.`);
}

/** Builds the merged image by the rules, checks it, and keeps it by its SHA-256. */
export async function buildMerged(
  number: number,
  patientSha: string,
  donorSha: string,
  rules: MergeRules,
): Promise<ImageAnswer> {
  const db = await database();
  const family = await familyOfJob(db, number);
  const [patient, donor] = await Promise.all([imageBytes(db, patientSha), imageBytes(db, donorSha)]);
  if (!family || !patient || !donor) return no('Expected a patient image and a donor image of this board’s family.');
  const merged = mergeImages(family, patient, donor, rules);
  if (!merged.ok) return no(problemText(merged.problems));
  const misplaced = positionConflict(family, patient, merged.value.bytes);
  if (misplaced) return no(misplaced);
  const verdict = judgeImage(family, merged.value.bytes);
  if (!verdict.sound) return no(`The merged image does not hold: ${verdict.troubles.join(' ')}`);
  return keepForJob(number, 'merged', merged.value.bytes, `merged for job ${number}`);
}

/** Marks the merged image as written to the part and read back. */
export async function markWritten(number: number, ref: string, sha256: string): Promise<ImageAnswer> {
  const stored = await enter(await database(), number, { body: { kind: 'imageWritten', ref, sha256 } });
  if (!stored.ok) return no(problemText(stored.problems));
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words: 'Marked as written.' };
}
