import 'server-only';
import { referencesCsv } from '@/core/reference';
import { loadBoard, loadReferences } from './queries';

/** The reference readings of a board as a CSV file; not found where there is no such board. */
export async function referenceFile(id: string): Promise<Response> {
  const board = await loadBoard(id);
  if (!board) return new Response(`Expected a board of the library; there is no "${id}".`, { status: 404 });
  return new Response(referencesCsv(await loadReferences(id)), {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': `attachment; filename="${id}-references.csv"`,
    },
  });
}
