import type { JobNumber, Sha256 } from '../../core/identities';
import { sha256Hex } from '../../core/image';
import { eventBodySchema, record, withOrigin, type Origin } from '../../core/job';
import { hiddenInJpeg, MOST_PICTURE_BYTES, pictureType } from '../../core/picture';
import type { Database } from '../../db/client';
import { imageBytes, keepImage } from '../../db/images';
import type { Session } from '../../db/session';
import { firstIssue, refused, refusedFor, type ActionResult } from '../action-result';
import { once } from '../once';
import { carryOut } from './execute';
import { loadRecord } from './load-job';

const tooLarge = (size: number): ActionResult | undefined =>
  size > MOST_PICTURE_BYTES
    ? refused(
        `Expected a picture of at most ${MOST_PICTURE_BYTES / 1e6} MB; got ${(size / 1e6).toFixed(1)}. Nothing was kept.`,
        'badInput',
      )
    : undefined;

/** A picture that comes with what it shows. */
export interface SentPicture {
  readonly bytes: Uint8Array;
  readonly name: string;
  /** Where it comes from: the file itself where nothing is said. */
  readonly origin?: Origin;
}

/** Keeps a picture and the event that names it: both, or neither. */
async function keepWithPicture(
  db: Database,
  number: JobNumber,
  { bytes, name, origin }: SentPicture,
  body: (sha256: Sha256) => unknown,
  { key, message }: { readonly key: string; readonly message: string },
): Promise<ActionResult> {
  const sha256 = sha256Hex(bytes);
  const parsed = eventBodySchema.safeParse(body(sha256));
  if (!parsed.success)
    return refused(`${firstIssue(parsed.error).at}: ${firstIssue(parsed.error).message}.`, 'badInput');
  const from: Origin = origin ?? { kind: 'file', name, sha256 };
  return once(db, { key, scope: `job ${number}`, request: { body: parsed.data, from } }, async (tx, meta) => {
    const job = await loadRecord(tx, number);
    if (!job.ok) return refusedFor(job.problems, 'notFound');
    await keepImage(tx, { bytes, name, at: meta.at });
    return carryOut(tx, job.value, withOrigin(record(parsed.data), from), message, meta);
  });
}

/** Keeps a picture of balls or pads with what was seen in it: `seen` is the event without its picture's name. */
export async function keepInspection(
  db: Database,
  number: JobNumber,
  picture: SentPicture,
  seen: object,
  key: string,
): Promise<ActionResult> {
  const { bytes } = picture;
  const large = tooLarge(bytes.length);
  if (large) return large;
  if (!pictureType(bytes)) return refused('Expected a PNG or JPEG picture; this file is neither.', 'badInput');
  const body = (sha256: Sha256) => ({ ...seen, sha256, name: picture.name });
  const checked = eventBodySchema.safeParse(body('0'.repeat(64)));
  if (!checked.success || (checked.data.kind !== 'inspection' && checked.data.kind !== 'padLook')) {
    const at = checked.success ? 'balls or pads' : firstIssue(checked.error).at;
    return refused(`Expected what was seen in the picture: ${at}.`, 'badInput');
  }
  return keepWithPicture(db, number, picture, body, { key, message: 'Kept on the job with its picture.' });
}

/** Keeps a picture for the report: a JPEG that was masked in the browser and carries nothing but its picture. */
export async function keepPicture(
  db: Database,
  number: JobNumber,
  bytes: Uint8Array,
  { words, masks }: { readonly words: string; readonly masks: number },
  key: string,
): Promise<ActionResult> {
  const no = (why: string): ActionResult => refused(`${why} Nothing was kept.`, 'badInput');
  const large = tooLarge(bytes.length);
  if (large) return large;
  if (words === '') return no('Expected what the picture shows; got nothing.');
  if (pictureType(bytes) !== 'image/jpeg') return no('Expected a JPEG picture; this file is none.');
  const hidden = hiddenInJpeg(bytes);
  if (hidden) return no(`Expected nothing but the picture; the file carries ${hidden}.`);
  const picture = { bytes, name: `picture of job ${number}` };
  const body = (sha256: Sha256) => ({ kind: 'picture', sha256, words, masks });
  return keepWithPicture(db, number, picture, body, { key, message: 'Kept for the report.' });
}

/** A kept picture with its type; undefined for anything else. */
export async function loadPicture(
  db: Session,
  sha256: Sha256,
): Promise<{ bytes: Uint8Array<ArrayBuffer>; type: string } | undefined> {
  const bytes = await imageBytes(db, sha256);
  const type = bytes && pictureType(bytes);
  return bytes && type ? { bytes: Uint8Array.from(bytes), type } : undefined;
}
