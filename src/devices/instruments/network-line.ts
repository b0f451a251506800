import { InstrumentProblem } from './answers';
import type { LineTransport } from './line-session';

/**
 * A line over the network through the server: its bytes come as the body of one answer for as long as the page lives. When the page
 * is gone, the server sends the farewell (an output off) and closes the line.
 */
export async function openNetworkLine(address: string, farewell?: string): Promise<LineTransport> {
  const gone = new AbortController();
  const answer = await fetch('/lines', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ open: address, farewell }),
    signal: gone.signal,
  });
  const id = answer.headers.get('x-line');
  if (!answer.ok || !answer.body || id === null) throw new InstrumentProblem(await answer.text());
  const reader = answer.body.getReader();
  const decoder = new TextDecoder();
  let heard: (piece: string | undefined) => void = () => {};
  const pump = async (): Promise<void> => {
    try {
      for (;;) {
        const { value, done } = await reader.read();
        if (done) break;
        heard(decoder.decode(value, { stream: true }));
      }
    } catch {
      // The server or the instrument is gone: told below.
    }
    heard(undefined);
  };
  void pump();
  return {
    name: address,
    async write(text) {
      const sent = await fetch('/lines', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ line: id, text }),
      });
      if (!sent.ok) throw new InstrumentProblem(await sent.text());
    },
    listen(listener) {
      heard = listener;
    },
    async close() {
      gone.abort();
    },
  };
}
