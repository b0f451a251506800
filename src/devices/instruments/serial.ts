import { InstrumentProblem } from './answers';
import type { TextInstrument } from './text-instrument';

/** As much of a Web Serial port as is needed here. */
export interface SerialPortLike {
  open(options: { readonly baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
  readonly writable: WritableStream<Uint8Array> | null;
}

/** The browser's own question which line to open; undefined where the browser knows no serial lines. */
export function serialAsker(): (() => Promise<SerialPortLike>) | undefined {
  const { serial } = globalThis.navigator as { serial?: { requestPort(): Promise<SerialPortLike> } };
  return serial && (() => serial.requestPort());
}

/** Instruments answer within this; slower ones are unplugged or ask for another rate. Engineering estimate. */
const ANSWER_MS = 2000;

/** A real instrument on a serial line, line by line. One question at a time. */
export class SerialInstrument implements TextInstrument {
  private readonly decoder = new TextDecoder();
  private held = '';
  private last: Promise<unknown> = Promise.resolve();
  private reader?: ReadableStreamDefaultReader<Uint8Array>;
  private writer?: WritableStreamDefaultWriter<Uint8Array>;

  constructor(
    private readonly port: SerialPortLike,
    private readonly answerMs = ANSWER_MS,
  ) {}

  async open(baudRate = 9600): Promise<void> {
    await this.port.open({ baudRate });
    this.reader = this.port.readable?.getReader();
    this.writer = this.port.writable?.getWriter();
  }
  async close(): Promise<void> {
    await this.reader?.cancel();
    this.reader?.releaseLock();
    this.writer?.releaseLock();
    await this.port.close();
  }
  tell(command: string): Promise<void> {
    return this.inTurn(() => this.write(command));
  }
  ask(query: string): Promise<string> {
    return this.inTurn(async () => {
      await this.write(query);
      return this.line(query);
    });
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = this.last.then(work, work);
    this.last = next;
    return next;
  }
  private async write(text: string): Promise<void> {
    if (!this.writer) throw new InstrumentProblem('Expected an open serial line; it is closed.');
    await this.writer.write(new TextEncoder().encode(`${text}\n`));
  }
  private async line(query: string): Promise<string> {
    const until = Date.now() + this.answerMs;
    while (!this.held.includes('\n')) {
      const { value, done } = await this.within(this.reader!.read(), until - Date.now(), query);
      if (done) throw new InstrumentProblem(`Expected an answer to ${query}; the line was closed.`);
      this.held += this.decoder.decode(value, { stream: true });
    }
    const [first, ...rest] = this.held.split('\n');
    this.held = rest.join('\n');
    return first.trim();
  }
  private within<T>(work: Promise<T>, ms: number, query: string): Promise<T> {
    let timer: ReturnType<typeof setTimeout>;
    const late = new Promise<never>((_, reject) => {
      timer = setTimeout(
        () =>
          reject(new InstrumentProblem(`Expected an answer to ${query} within ${this.answerMs / 1000} s; got none.`)),
        Math.max(0, ms),
      );
    });
    return Promise.race([work, late]).finally(() => clearTimeout(timer));
  }
}
