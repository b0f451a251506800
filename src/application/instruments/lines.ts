import { randomUUID } from 'node:crypto';
import { connect, type Socket } from 'node:net';
import { z } from 'zod';

/** Lines that the server holds open to instruments on the network, for the pages that asked for them. */
const open = new Map<string, Socket>();

/** More lines than this at once are no bench's. Engineering estimate. */
const MOST_LINES = 40;
const CONNECT_MS = 5000;
/** What is sent at once to an instrument, characters. Engineering estimate. */
const LONGEST_TEXT = 400;

export const lineRequestSchema = z.union([
  z.strictObject({ open: z.string().max(120), farewell: z.string().max(80).optional() }),
  z.strictObject({ line: z.string().max(60), text: z.string().min(1).max(LONGEST_TEXT) }),
]);

export interface Address {
  readonly host: string;
  readonly port: number;
}

/** `host:port`, an IPv6 address in brackets; undefined for anything else. */
export function readAddress(text: string): Address | undefined {
  const [, six, name, digits] = /^(?:\[([0-9a-fA-F:]+)\]|([A-Za-z0-9.-]+)):(\d{1,5})$/.exec(text.trim()) ?? [];
  const port = Number(digits);
  const host = six ?? name;
  return host === undefined || !(port >= 1 && port <= 65_535) ? undefined : { host, port };
}

const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost']);

/** Why a line to this address is not opened, in a sentence: loopback and what a lead has listed, nothing else. */
export function refusedAddress(text: string, listed: readonly string[]): string | undefined {
  const address = readAddress(text);
  if (!address) return `Expected an address such as 127.0.0.1:5025; got “${text}”.`;
  if (LOOPBACK.has(address.host) || listed.includes(text.trim())) return undefined;
  return `Expected an address that a lead has listed under Shop; ${text} is not.`;
}

/** Opens a line; its bytes are the stream. When the stream is given up, the farewell is sent and the line closed. */
export async function openLine(
  { host, port }: Address,
  farewell: string | undefined,
): Promise<{ readonly id: string; readonly stream: ReadableStream<Uint8Array> } | { readonly problem: string }> {
  if (open.size >= MOST_LINES)
    return { problem: `Expected at most ${MOST_LINES} open lines; disconnect one that is not used.` };
  const socket = connect({ host, port });
  const problem = await new Promise<string | undefined>((resolve) => {
    const timer = setTimeout(() => resolve('no answer within 5 s'), CONNECT_MS);
    socket.once('connect', () => (clearTimeout(timer), resolve(undefined)));
    socket.once('error', (e) => (clearTimeout(timer), resolve(e.message)));
  });
  if (problem !== undefined) {
    socket.destroy();
    return { problem: `Expected an instrument at ${host}:${port}; ${problem}.` };
  }
  const id = randomUUID();
  open.set(id, socket);
  socket.setNoDelay(true);
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      // The head of the answer goes out with its first byte; an empty line means nothing.
      controller.enqueue(new Uint8Array([0x0a]));
      const end = (): void => {
        if (!open.delete(id)) return;
        try {
          controller.close();
        } catch {
          // Given up by its reader before.
        }
      };
      socket.on('data', (bytes) => {
        if (open.has(id)) controller.enqueue(new Uint8Array(bytes));
      });
      socket.on('close', end);
      socket.on('error', end);
    },
    cancel() {
      open.delete(id);
      if (farewell === undefined) socket.end();
      else socket.end(`${farewell}\n`);
    },
  });
  return { id, stream };
}

/** Sends text down an open line; false where there is none. */
export function writeLine(id: string, text: string): boolean {
  const socket = open.get(id);
  return socket !== undefined && !socket.destroyed && (socket.write(text), true);
}
