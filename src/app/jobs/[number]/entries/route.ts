import { NextResponse } from 'next/server';
import { enterLine } from '@/features/job/actions';
import { entryOf } from '@/features/job/entry-request';

/**
 * Takes one line of a job from a script: `{ "line": "tp7 1.8 ohm", "key": "…" }`. The same key again gets the same answer, so that
 * a script may ask until it hears.
 */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ number: string }> },
): Promise<NextResponse> {
  const entry = await entryOf(request);
  if (!entry.ok) return NextResponse.json({ saved: false, message: entry.message }, { status: entry.status });
  const answer = await enterLine(Number((await params).number), entry.line, entry.mode, entry.key);
  const status = answer.saved ? 200 : answer.code === 'notFound' ? 404 : 409;
  return NextResponse.json(answer, { status });
}
