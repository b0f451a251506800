import { and, eq } from 'drizzle-orm';
import { photoPlaceSchema, type PhotoPlace, type Side } from '../core/board';
import { boardPhotos } from './schema';
import type { Session } from './session';

/** A straightened photograph of one side of a board. */
export interface BoardPhoto {
  readonly side: Side;
  readonly sha256: string;
  readonly place: PhotoPlace;
}

/** The photographs of a board; one whose place cannot be read is left out: it is taken anew. */
export async function listBoardPhotos(db: Session, boardId: string): Promise<BoardPhoto[]> {
  const rows = await db.select().from(boardPhotos).where(eq(boardPhotos.boardId, boardId));
  return rows.flatMap(({ side, sha256, place }) => {
    const parsed = photoPlaceSchema.safeParse(JSON.parse(place));
    return parsed.success ? [{ side: side as Side, sha256, place: parsed.data }] : [];
  });
}

/** Keeps the photograph of a side in place of the one before; the bytes of the earlier one stay in the shop's file. */
export async function saveBoardPhoto(db: Session, boardId: string, photo: BoardPhoto, at: string): Promise<void> {
  const { side, sha256 } = photo;
  await db.delete(boardPhotos).where(and(eq(boardPhotos.boardId, boardId), eq(boardPhotos.side, side)));
  await db.insert(boardPhotos).values({ boardId, side, sha256, place: JSON.stringify(photo.place), addedAt: at });
}
