import 'server-only';
import { lineRequestSchema, openLine, readAddress, refusedAddress, writeLine } from '@/application/instruments/lines';
import { loadInstruments } from '@/application/instruments/setting';
import { database } from '@/db/client';

const problem = (words: string, status: number): Response =>
  new Response(words, { status, headers: { 'content-type': 'text/plain; charset=utf-8' } });

/** Opens a line as asked, or sends text down one that is open. */
export async function answerLine(request: Request): Promise<Response> {
  const read = lineRequestSchema.safeParse(await request.json().catch(() => undefined));
  if (!read.success) return problem('Expected an address to open, or a line and its text.', 400);
  if ('text' in read.data) {
    const { line, text } = read.data;
    return writeLine(line, text)
      ? new Response(null, { status: 204 })
      : problem('Expected an open line; it is closed. Connect the instrument again.', 410);
  }
  const { addresses } = await loadInstruments(await database());
  const refused = refusedAddress(read.data.open, addresses);
  if (refused !== undefined) return problem(refused, 403);
  const opened = await openLine(readAddress(read.data.open)!, read.data.farewell);
  if ('problem' in opened) return problem(opened.problem, 502);
  return new Response(opened.stream, {
    headers: {
      'content-type': 'application/octet-stream',
      'cache-control': 'no-store',
      'x-line': opened.id,
    },
  });
}
