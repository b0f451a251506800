import type { JobNumber, PartRef, Sha256 } from '../../core/identities';
import type { Board } from '../../core/board';
import {
  judgeImage,
  mergeImages,
  positionConflict,
  sha256Hex,
  slotPosition,
  transplantWords,
  type ImageFamily,
  type Transplant,
} from '../../core/image';
import { record, withOrigin, type EventBody, type ImageRole, type Origin } from '../../core/job';
import type { Database } from '../../db/client';
import { imageBytes, keepImage } from '../../db/images';
import { findImageFamily } from '../../db/library';
import type { Session } from '../../db/session';
import { noJob, refused, refusedFor, type ActionResult, type Or } from '../action-result';
import { once, oncePrepared } from '../once';
import { carryOut, enter } from './execute';
import { loadRecord } from './load-job';

type ImageBody = Extract<EventBody, { kind: 'image' }>;

/** An image in its role on a job, before it is kept. */
export interface SentImage {
  readonly role: ImageRole;
  readonly bytes: Uint8Array;
  readonly name: string;
  readonly madeOf?: ImageBody['madeOf'];
  /** Where it comes from: the file of its name where nothing is said. */
  readonly origin?: Origin;
}

async function familyOf(db: Session, { imageFamily }: Board): Promise<Or<ImageFamily>> {
  const family = imageFamily ? await findImageFamily(db, imageFamily) : undefined;
  const answer = refused('Expected a board with an image family; this one names none.');
  return family ? { ok: true, value: family } : { ok: false, answer };
}

const sizeMessage = (family: ImageFamily, got: number): string =>
  `Expected a raw dump of ${family.sizeBytes.toLocaleString('en')} bytes for ${family.name}; got ${got.toLocaleString('en')}. Nothing was kept.`;

/** Keeps an image's bytes under their hash and its event on the job: both, or neither. */
export function keepJobImage(db: Database, number: JobNumber, image: SentImage, key?: string): Promise<ActionResult> {
  const sha256 = sha256Hex(image.bytes);
  const { role, name, madeOf, origin } = image;
  const request = { role, name, sha256, madeOf, origin };
  return once(db, { key, scope: `job ${number}`, request }, (tx, meta) =>
    storeImage(tx, number, { ...image, sha256 }, `Kept as ${sha256.slice(0, 12)}…`, meta),
  );
}

async function storeImage(
  tx: Session,
  number: JobNumber,
  { role, bytes, name, madeOf, sha256, origin }: SentImage & { readonly sha256: Sha256 },
  message: string,
  meta: Parameters<typeof carryOut>[4],
): Promise<ActionResult> {
  const job = await loadRecord(tx, number);
  if (!job.ok) return noJob(number);
  const family = await familyOf(tx, job.value.board);
  if (!family.ok) return family.answer;
  if (bytes.length !== family.value.sizeBytes) return refused(sizeMessage(family.value, bytes.length), 'badInput');
  await keepImage(tx, { bytes, name, familyId: family.value.id, at: meta.at });
  const { sound } = judgeImage(family.value, bytes);
  const body: ImageBody = { kind: 'image', role, sha256, name, sizeBytes: bytes.length, sound, madeOf };
  const from: Origin = origin ?? { kind: 'file', name, sha256 };
  return carryOut(tx, job.value, withOrigin(record(body), from), message, meta);
}

/** Takes an image that is kept here already. */
export async function takeKept(
  db: Database,
  number: JobNumber,
  image: { readonly role: 'patient' | 'donor'; readonly sha256: Sha256; readonly name: string },
): Promise<ActionResult> {
  const bytes = await imageBytes(db, image.sha256);
  if (!bytes) return refused(`Expected an image that is kept here; got ${image.sha256}.`, 'notFound');
  return keepJobImage(db, number, { role: image.role, bytes, name: image.name });
}

/** Makes the new image by its rules, checks it, and keeps it by its SHA-256 with what it was made of. */
export function buildMerged(
  db: Database,
  number: JobNumber,
  sources: { readonly patient: Sha256; readonly donor?: Sha256 },
  plan: Transplant,
): Promise<ActionResult> {
  return oncePrepared(
    db,
    { scope: `job ${number}`, request: { sources, plan } },
    (before) => mergedOf(before, number, sources, plan),
    async (tx, meta, made) => (made.ok ? storeImage(tx, number, made.value, made.value.message, meta) : made.answer),
  );
}

async function mergedOf(
  db: Session,
  number: JobNumber,
  sources: { readonly patient: Sha256; readonly donor?: Sha256 },
  plan: Transplant,
): Promise<Or<SentImage & { readonly sha256: Sha256; readonly message: string }>> {
  const no = (message: string) => ({ ok: false as const, answer: refused(message) });
  const missing = no('Expected images of this board’s family that are kept here.');
  const job = await loadRecord(db, number);
  const found = job.ok ? await familyOf(db, job.value.board) : undefined;
  const patient = await imageBytes(db, sources.patient);
  const donor = sources.donor === undefined ? undefined : await imageBytes(db, sources.donor);
  if (!job.ok || !found?.ok || !patient || (sources.donor !== undefined && !donor)) return missing;
  const family = found.value;
  const merged = mergeImages(family, { patient, ...(donor && { donor }) }, plan);
  if (!merged.ok) return { ok: false, answer: refusedFor(merged.problems) };
  const { bytes } = merged.value;
  const misplaced = positionConflict(family, patient, bytes, slotPosition(job.value.board, family));
  if (misplaced) return no(misplaced);
  const verdict = judgeImage(family, bytes);
  if (!verdict.sound) return no(`The new image does not hold: ${verdict.troubles.join(' ')}`);
  const { base, take, set, reason } = plan;
  const madeOf = {
    ...{ patient: sources.patient, ...(sources.donor && { donor: sources.donor }) },
    ...{ family: `${family.id}/${family.revision ?? 1}`, base, take: { ...take }, set: { ...set } },
    ...(reason && { reason }),
  };
  const image = { role: 'merged' as const, bytes, name: `made for job ${number}`, madeOf, sha256: sha256Hex(bytes) };
  return { ok: true, value: { ...image, message: transplantWords(family, plan) } };
}

/** Marks an image as written to the part and read back. */
export const markWritten = (db: Database, number: JobNumber, ref: PartRef, sha256: Sha256): Promise<ActionResult> =>
  enter(db, number, { kind: 'imageWritten', ref, sha256 }, undefined, { message: 'Marked as written.' });
