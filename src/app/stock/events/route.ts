import { NextResponse } from 'next/server';
import { enterStockLine } from '@/features/stock/actions';

/** Takes one line of the stock from a script or a scanner: `{ "line": "take l-12 for 31", "key": "…" }`. */
export async function POST(request: Request): Promise<NextResponse> {
  // A page of another site cannot send this kind without asking first.
  if (!request.headers.get('content-type')?.startsWith('application/json'))
    return NextResponse.json({ saved: false, message: 'Expected JSON.' }, { status: 415 });
  const body: unknown = await request.json().catch(() => undefined);
  const { line, key } = (body ?? {}) as { line?: unknown; key?: unknown };
  if (typeof line !== 'string' || typeof key !== 'string' || line.length > 400 || key.length > 100)
    return NextResponse.json({ saved: false, message: 'Expected a line and a key in JSON.' }, { status: 400 });
  const answer = await enterStockLine(line, key);
  return NextResponse.json(answer, { status: answer.saved ? 200 : 409 });
}
