import 'server-only';
import { listBoardPhotos } from '@/db/board-photos';
import { database } from '@/db/client';
import type { BoardDrawingProps } from '@/drawings/board-drawing';

/** Straightened photographs of a board, by side, as its drawing takes them. */
export async function loadBoardPhotos(boardId: string): Promise<BoardDrawingProps['photos']> {
  const photos = await listBoardPhotos(await database(), boardId);
  return Object.fromEntries(photos.map((p) => [p.side, `/pictures/${p.sha256}`]));
}
