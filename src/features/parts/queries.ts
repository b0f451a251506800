import 'server-only';
import { listBoards } from '@/db/boards';
import { database } from '@/db/client';
import { findSourcing } from '@/db/knowledge';
import { listPartFamilies, listPartTypes, listReports } from '@/db/parts';

/** All part types, how this bench treats their families, and what was reported of them. */
export async function loadParts() {
  const db = await database();
  const [types, families, reports, boards, practice] = await Promise.all([
    listPartTypes(db),
    listPartFamilies(db),
    listReports(db),
    listBoards(db),
    findSourcing(db),
  ]);
  const places = boards.flatMap((b) =>
    b.slots.map((s) => ({
      boardId: b.id,
      board: `${b.device} ${b.revision}`,
      ref: s.ref,
      type: s.type,
      functions: b.functions.filter((f) => s.functions.includes(f.id)).map(({ id, what }) => ({ id, what })),
    })),
  );
  return { types, families, reports, places, practice };
}
export type Parts = Awaited<ReturnType<typeof loadParts>>;
