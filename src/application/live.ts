import type { EntryMeta } from '../db/jobs';

/** What the other benches hear of an entry: to what, by whom and where. What was entered they read for themselves. */
export interface Heard {
  readonly scope: string;
  /** Number of the newest event of the job; none elsewhere. */
  readonly seq?: number;
  readonly actor: string;
  readonly bench: string;
}

type Hear = (heard: Heard) => void;

/** One for the whole server: its pages and its routes are loaded apart. */
const shared = globalThis as { unisoldaListeners?: Set<Hear> };
const listeners = (shared.unisoldaListeners ??= new Set());

/** So many pages may listen at once. */
export const MOST_LISTENERS = 200;
/** A line that says nothing for so long is cut by what stands between, s. Common practice, no source. */
const BEAT_S = 20;
/** After this the page asks anew, and who it is for is looked at again, s. */
const LONGEST_S = 300;

/** Tells whoever listens that an entry is on disk. Who can hear no more is left out from then on; it never harms the entry. */
export function announce(scope: string, seq: number | undefined, { actor, bench }: EntryMeta): void {
  for (const hear of listeners) {
    try {
      hear({ scope, seq, actor, bench });
    } catch {
      listeners.delete(hear);
    }
  }
}

/** Hears of every entry until it is left. @returns the way out; undefined where too many listen already. */
export function listen(hear: Hear): (() => void) | undefined {
  if (listeners.size >= MOST_LISTENERS) return undefined;
  listeners.add(hear);
  return () => void listeners.delete(hear);
}

/**
 * A stream of server-sent events about one scope. Source: HTML Living Standard, section 9.2 (server-sent events).
 * @param newest number of the newest event as the stream begins: the page may be older.
 * @param signal ends it when the page is gone.
 * @returns undefined where too many listen already.
 */
export function liveStream(
  scope: string,
  newest: number | undefined,
  signal: AbortSignal,
): ReadableStream<Uint8Array> | undefined {
  const encoder = new TextEncoder();
  let controller: ReadableStreamDefaultController<Uint8Array>;
  const send = (text: string): void => controller.enqueue(encoder.encode(text));
  const leave = listen((heard) => {
    if (heard.scope === scope) send(eventText('entered', heard));
  });
  if (!leave) return undefined;
  let beat: NodeJS.Timeout;
  let end: NodeJS.Timeout;
  let isOver = false;
  const close = (): void => {
    isOver = true;
    clearInterval(beat);
    clearTimeout(end);
    leave();
  };
  return new ReadableStream<Uint8Array>({
    start(made) {
      controller = made;
      // A page can be gone, and its time over, in either order.
      const finish = (): void => {
        if (isOver) return;
        close();
        made.close();
      };
      beat = setInterval(() => send(': here\n\n'), BEAT_S * 1000);
      end = setTimeout(finish, LONGEST_S * 1000);
      beat.unref();
      end.unref();
      signal.addEventListener('abort', finish, { once: true });
      send(eventText('at', { seq: newest }));
    },
    cancel: close,
  });
}

const eventText = (event: string, data: object): string => `event: ${event}\ndata: ${JSON.stringify(data)}\n\n`;
