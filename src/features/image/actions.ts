'use server';

import { revalidatePath } from 'next/cache';
import {
  judgeImage,
  mergeImages,
  parseImageFamily,
  positionConflict,
  transplantWords,
  type ImageFamily,
  type Transplant,
} from '@/core/image';
import { type EventBody, type ImageRole } from '@/core/job';
import { problemText } from '@/core/result';
import { findBoard } from '@/db/boards';
import { database, type Database } from '@/db/client';
import { enter } from '@/db/enter';
import { imageBytes, keepImage } from '@/db/images';
import { findJob } from '@/db/jobs';
import { findImageFamily, saveImageFamily } from '@/db/library';
import { slotPosition } from './slot-position';

export interface ImageAnswer {
  readonly kept: boolean;
  readonly words: string;
}

const no = (words: string): ImageAnswer => ({ kept: false, words });

type ImageEvent = Extract<EventBody, { kind: 'image' | 'imageWritten' }>;

async function familyOfJob(db: Database, number: number): Promise<ImageFamily | undefined> {
  const job = await findJob(db, number);
  const board = job && (await findBoard(db, job.boardId));
  return board?.imageFamily ? findImageFamily(db, board.imageFamily) : undefined;
}

/** Enters what happened to an image; the record seals it with what happened before. */
async function enterImage(db: Database, number: number, body: ImageEvent, words: string): Promise<ImageAnswer> {
  const stored = await enter(db, number, body);
  if (!stored.ok) return no(problemText(stored.problems));
  revalidatePath('/jobs/[number]', 'layout');
  return { kept: true, words };
}

async function keepForJob(
  number: number,
  role: ImageRole,
  bytes: Uint8Array,
  name: string,
  madeOf?: Extract<EventBody, { kind: 'image' }>['madeOf'],
): Promise<ImageAnswer> {
  const db = await database();
  const family = await familyOfJob(db, number);
  if (!family) return no('Expected a board with an image family; this one names none.');
  if (bytes.length !== family.sizeBytes) return no(sizeWords(family, bytes.length));
  const sha256 = await keepImage(db, { bytes, name, familyId: family.id, at: new Date().toISOString() });
  const { sound } = judgeImage(family, bytes);
  const body: ImageEvent = { kind: 'image', role, sha256, name, sizeBytes: bytes.length, sound, madeOf };
  return enterImage(db, number, body, `Kept as ${sha256.slice(0, 12)}…`);
}

const sizeWords = (family: ImageFamily, got: number): string =>
  `Expected a raw dump of ${family.sizeBytes.toLocaleString('en')} bytes for ${family.name}; got ${got.toLocaleString('en')}. Nothing was kept.`;

/** Keeps a dump that was loaded from a file. The size has been checked in the browser; it is checked again here. */
export async function keepDump(number: number, role: 'patient' | 'donor', form: FormData): Promise<ImageAnswer> {
  const file = form.get('dump');
  if (!(file instanceof File)) return no('Expected a file; got none.');
  return keepForJob(number, role, new Uint8Array(await file.arrayBuffer()), file.name.slice(0, 200));
}

/** Keeps what a chip held before it is written over: the way back. */
export async function keepOriginal(number: number, ref: string, form: FormData): Promise<ImageAnswer> {
  const file = form.get('dump');
  if (!(file instanceof File)) return no('Expected what the chip held; got no file.');
  const bytes = new Uint8Array(await file.arrayBuffer());
  return keepForJob(number, 'before', bytes, `${ref} of job ${number} before the write`);
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

/** Makes the new image by its rules, checks it, and keeps it by its SHA-256 with what it was made of. */
export async function buildMerged(
  number: number,
  patientSha: string,
  donorSha: string | undefined,
  plan: Transplant,
): Promise<ImageAnswer> {
  const db = await database();
  const family = await familyOfJob(db, number);
  const patient = await imageBytes(db, patientSha);
  const donor = donorSha === undefined ? undefined : await imageBytes(db, donorSha);
  if (!family || !patient || (donorSha !== undefined && !donor))
    return no('Expected images of this board’s family that are kept here.');
  const merged = mergeImages(family, { patient, ...(donor && { donor }) }, plan);
  if (!merged.ok) return no(problemText(merged.problems));
  const job = (await findJob(db, number))!;
  const board = (await findBoard(db, job.boardId))!;
  const misplaced = positionConflict(family, patient, merged.value.bytes, slotPosition(board, family));
  if (misplaced) return no(misplaced);
  const verdict = judgeImage(family, merged.value.bytes);
  if (!verdict.sound) return no(`The new image does not hold: ${verdict.troubles.join(' ')}`);
  const { base, take, set, reason } = plan;
  const madeOf = {
    ...{ patient: patientSha, ...(donorSha && { donor: donorSha }), family: `${family.id}/${family.revision ?? 1}` },
    ...{ base, take: { ...take }, set: { ...set }, ...(reason && { reason }) },
  };
  const answer = await keepForJob(number, 'merged', merged.value.bytes, `made for job ${number}`, madeOf);
  return answer.kept ? { kept: true, words: transplantWords(family, plan) } : answer;
}

/** Marks an image as written to the part and read back. */
export async function markWritten(number: number, ref: string, sha256: string): Promise<ImageAnswer> {
  return enterImage(await database(), number, { kind: 'imageWritten', ref, sha256 }, 'Marked as written.');
}

/** Keeps a map; one that is there already goes on to its next revision. A malformed one changes nothing. */
export async function saveMap(map: unknown): Promise<ImageAnswer> {
  const parsed = parseImageFamily(map);
  if (!parsed.ok) return no(`${problemText(parsed.problems)} Nothing was kept.`);
  const db = await database();
  const before = await findImageFamily(db, parsed.value.id);
  if (before && before.sizeBytes !== parsed.value.sizeBytes)
    return no(
      `Expected ${before.sizeBytes.toLocaleString('en')} bytes, which ${before.name} has; got ${parsed.value.sizeBytes.toLocaleString('en')}. Give the map an id of its own. Nothing was kept.`,
    );
  const revision = before ? (before.revision ?? 1) + 1 : 1;
  await saveImageFamily(db, { ...parsed.value, revision });
  revalidatePath('/', 'layout');
  return { kept: true, words: `Kept as ${parsed.value.id}, revision ${revision}.` };
}
