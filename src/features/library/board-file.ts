import 'server-only';
import { boardSvg, type Board } from '@/core/board';
import { partsCsv, recordsOf, writeIpc356 } from '@/core/netlist';
import { loadBoard } from './queries';

/** What a board is given out as: the file's name after the board's id, its type, its text. */
const FILES: Readonly<Record<string, { readonly type: string; readonly text: (board: Board) => string }>> = {
  'board.json': { type: 'application/json', text: (board) => `${JSON.stringify(board, null, 1)}\n` },
  'front.svg': { type: 'image/svg+xml', text: (board) => boardSvg(board, 'front') },
  'back.svg': { type: 'image/svg+xml', text: (board) => boardSvg(board, 'back') },
  'parts.csv': { type: 'text/csv; charset=utf-8', text: partsCsv },
  'netlist.ipc': { type: 'text/plain; charset=utf-8', text: (board) => writeIpc356(recordsOf(board)) },
};

/** A board as a file to save; not found where there is no such board or no such file. */
export async function boardFile(id: string, name: string): Promise<Response> {
  const board = await loadBoard(id);
  const file = FILES[name];
  if (!board) return new Response(`Expected a board of the library; there is no "${id}".`, { status: 404 });
  if (!file) return new Response(`Expected one of ${Object.keys(FILES).join(', ')}; got "${name}".`, { status: 404 });
  return new Response(file.text(board), {
    headers: { 'Content-Type': file.type, 'Content-Disposition': `attachment; filename="${id}-${name}"` },
  });
}
