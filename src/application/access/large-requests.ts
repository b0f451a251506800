import { subscribe } from 'node:diagnostics_channel';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { tooLarge } from './gate';

/**
 * Refuses what says of itself that it is too large while its head alone has come: whoever answers requests here would read the body
 * first. The connection ends with the sentence.
 */
export function refuseLargeRequests(): void {
  subscribe('http.server.request.start', (message) => {
    const { request, response } = message as { request: IncomingMessage; response: ServerResponse };
    const words = tooLarge(request.headers['content-length'] ?? null);
    if (!words) return;
    response.writeHead(413, { 'content-type': 'text/plain; charset=utf-8', connection: 'close' });
    response.end(words, () => request.socket.destroy());
  });
}
