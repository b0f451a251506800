import type { LineSettings } from './definition';
import { InstrumentProblem } from './answers';
import type { LineTransport } from './line-session';

/** As much of a Web Serial port as is needed here. */
export interface SerialPortLike {
  open(options: {
    readonly baudRate: number;
    readonly dataBits?: number;
    readonly parity?: 'none' | 'even' | 'odd';
    readonly stopBits?: number;
  }): Promise<void>;
  close(): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
  readonly writable: WritableStream<Uint8Array> | null;
}

/** The browser's own question which line to open; undefined where the browser knows no serial lines. */
export function serialAsker(): (() => Promise<SerialPortLike>) | undefined {
  const { serial } = globalThis.navigator as { serial?: { requestPort(): Promise<SerialPortLike> } };
  return serial && (() => serial.requestPort());
}

/** Opens a serial line with an instrument's settings; a port that another page or program holds is a sentence. */
export async function openSerial(port: SerialPortLike, settings: LineSettings): Promise<LineTransport> {
  const { baud, dataBits, parity, stopBits } = settings;
  try {
    await port.open({ baudRate: baud, dataBits, parity, stopBits });
  } catch (error) {
    throw new InstrumentProblem(
      `Expected a free serial port; it is held by another page or program, or unplugged (${(error as Error).message}).`,
    );
  }
  const reader = port.readable?.getReader();
  const writer = port.writable?.getWriter();
  if (!reader || !writer)
    throw new InstrumentProblem('Expected a serial port that reads and writes; this one does not.');
  let heard: (piece: string | undefined) => void = () => {};
  const decoder = new TextDecoder();
  const pump = async (): Promise<void> => {
    try {
      for (;;) {
        const { value, done } = await reader.read();
        if (done) break;
        heard(decoder.decode(value, { stream: true }));
      }
    } catch {
      // Unplugged: told below.
    }
    heard(undefined);
  };
  const transport: LineTransport = {
    name: 'serial line',
    write: (text) => writer.write(new TextEncoder().encode(text)),
    listen(listener) {
      heard = listener;
    },
    async close() {
      await reader.cancel().catch(() => {});
      reader.releaseLock();
      writer.releaseLock();
      await port.close();
    },
  };
  void pump();
  return transport;
}
