import { z } from 'zod';
import type { EntryMode } from '@/core/job';

const schema = z.object({
  line: z.string().min(1).max(400),
  key: z.string().min(1).max(200),
  /** What a value without a unit is. */
  mode: z.enum(['ohm', 'volt']).default('ohm'),
});

type EntryOf =
  | { readonly ok: true; readonly line: string; readonly key: string; readonly mode: EntryMode }
  | { readonly ok: false; readonly status: number; readonly message: string };

/** The line and the key that a script sends; a page of another site cannot send JSON without asking first. */
export async function entryOf(request: Request): Promise<EntryOf> {
  if (!request.headers.get('content-type')?.startsWith('application/json'))
    return { ok: false, status: 415, message: 'Expected JSON.' };
  const parsed = schema.safeParse(await request.json().catch(() => undefined));
  if (parsed.success) return { ok: true, ...parsed.data };
  const message = 'Expected a line of 1 to 400 characters and a key of 1 to 200, in JSON.';
  return { ok: false, status: 400, message };
}
