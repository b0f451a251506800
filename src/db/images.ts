import { eq } from 'drizzle-orm';
import { sha256Hex } from '../core/image';
import { images } from './schema';
import type { Session } from './session';

export interface ImageInfo {
  readonly sha256: string;
  readonly name: string;
  readonly familyId: string | null;
  readonly sizeBytes: number;
}

const INFO = { sha256: images.sha256, name: images.name, familyId: images.familyId, sizeBytes: images.sizeBytes };

export async function listImages(db: Session, familyId: string): Promise<ImageInfo[]> {
  return db.select(INFO).from(images).where(eq(images.familyId, familyId)).orderBy(images.addedAt);
}

/** Keeps bytes under their SHA-256; bytes that are there already stay as they are. */
export async function keepImage(
  db: Session,
  image: { bytes: Uint8Array; name: string; familyId?: string; at: string },
): Promise<string> {
  const sha256 = sha256Hex(image.bytes);
  const { name, familyId, at } = image;
  await db
    .insert(images)
    .values({ sha256, name, familyId, sizeBytes: image.bytes.length, bytes: Buffer.from(image.bytes), addedAt: at })
    .onConflictDoNothing();
  return sha256;
}

export async function imageBytes(db: Session, sha256: string): Promise<Uint8Array | undefined> {
  const [row] = await db.select({ bytes: images.bytes }).from(images).where(eq(images.sha256, sha256));
  return row && new Uint8Array(row.bytes);
}
