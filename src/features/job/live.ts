import 'server-only';
import { liveStream } from '@/application/live';
import { database } from '@/db/client';
import { newestEventOf } from '@/db/jobs';

const plain = (words: string, status: number): Response =>
  new Response(words, { status, headers: { 'content-type': 'text/plain; charset=utf-8' } });

/** A stream of what is entered to a job. */
export async function hearJob(number: number, signal: AbortSignal): Promise<Response> {
  const newest = Number.isSafeInteger(number) ? await newestEventOf(await database(), number) : undefined;
  if (newest === undefined) return plain(`Expected a job that was opened; got ${number}.`, 404);
  const stream = liveStream(`job ${number}`, newest, signal);
  if (!stream) return plain('Expected fewer pages that listen at once. This one is as it was when it was opened.', 503);
  return new Response(stream, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' } });
}
