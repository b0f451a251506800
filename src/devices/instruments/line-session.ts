import { InstrumentProblem } from './answers';
import type { LineSettings } from './definition';
import type { TextInstrument } from './text-instrument';

/** Text to and from an instrument, in pieces as they come. */
export interface LineTransport {
  /** What it is reached by, for example `serial line` or `127.0.0.1:5025`. */
  readonly name: string;
  write(text: string): Promise<void>;
  /** The listener gets each piece, and undefined once when the line is lost or closed. */
  listen(heard: (piece: string | undefined) => void): void;
  close(): Promise<void>;
}

const ENDS = { lf: '\n', cr: '\r', crlf: '\r\n' } as const;
/** No answer of an instrument is as long: what comes is no line of text. Engineering estimate. */
const LONGEST_LINE = 400;
/** Printable ASCII and the signs of units; anything else is noise on the line. */
const CLEAN = /^[\t\x20-\x7eµμΩ°]*$/u;
/** A line on which so many lines come and no name among them is given up. Engineering estimate. */
const MOST_LINES_OF_DOUBT = 60;
/** A name that was asked for and has not come after so many times the limit is lost. Engineering estimate. */
const QUIET_TIMES = 3;
/** Four fields: maker, model, number, version. Source: IEEE 488.2, 10.14 (from memory). */
const isName = (line: string): boolean => /^[^,]+,[^,]+,[^,]*,[^,]*$/.test(line);

/**
 * Questions and answers over a line, one at a time. An answer belongs to its question because nothing else can be on the line: after
 * any doubt (no answer, noise, text that nobody asked for) the instrument is asked who it is, and only what comes after its own name
 * counts again. One that cannot be asked is given up: it has to be connected anew.
 */
export class LineSession implements TextInstrument {
  private held = '';
  private readonly lines: string[] = [];
  private wake?: () => void;
  private isLost = false;
  private inDoubt = false;
  /** Names that were asked for and have not been heard. */
  private namesDue = 0;
  private last: Promise<unknown> = Promise.resolve();
  private readonly lossListeners = new Set<() => void>();
  private overheard?: (line: string) => void;
  /** What it called itself at first. */
  identity?: string;

  constructor(
    private readonly transport: LineTransport,
    private readonly settings: LineSettings,
    private readonly identify?: { readonly ask: string; readonly begins?: string },
  ) {
    transport.listen((piece) => this.hearPiece(piece));
  }

  /** Asks who is there; an instrument without a name has none. */
  async open(): Promise<string | undefined> {
    const { identify } = this;
    if (!identify) return undefined;
    return this.inTurn(async () => {
      this.drop();
      const answer = await this.surely(() => this.exchange(identify.ask));
      if (identify.begins !== undefined && !answer.startsWith(identify.begins))
        throw new InstrumentProblem(
          `Expected an instrument that calls itself “${identify.begins}…”; got “${answer}”. Another one is on this line.`,
        );
      this.identity = answer;
      return answer;
    });
  }

  get lost(): boolean {
    return this.isLost;
  }
  /** Told once when the line is gone. */
  onLost(told: () => void): void {
    this.lossListeners.add(told);
  }
  async close(): Promise<void> {
    this.lossListeners.clear();
    await this.transport.close();
  }

  tell(command: string): Promise<void> {
    return this.inTurn(async () => {
      await this.beSure();
      await this.surely(async () => {
        await this.send(command);
        const { acknowledge } = this.settings;
        if (acknowledge === undefined) return;
        const said = await this.nextLine(command);
        if (said !== acknowledge)
          throw new InstrumentProblem(`Expected “${acknowledge}” after ${command}; the instrument said “${said}”.`);
      });
    });
  }
  ask(query: string): Promise<string> {
    return this.inTurn(async () => {
      await this.beSure();
      return this.surely(() => this.exchange(query));
    });
  }
  /** As `ask`, with the instrument's name asked right after: between two of its names there is one answer, and it is of this question. */
  askSurely(query: string): Promise<string> {
    const { identify } = this;
    if (!identify || this.identity === undefined) return this.ask(query);
    return this.inTurn(async () => {
      await this.beSure();
      return this.surely(async () => {
        const answer = await this.exchange(query);
        const after = await this.exchange(identify.ask);
        if (this.inDoubt || after !== this.identity)
          throw new InstrumentProblem(
            `Expected one answer to ${query} and then the name of the instrument; got “${answer}” and “${after}”. The line is not clean.`,
          );
        return answer;
      });
    });
  }
  /** The next whole line that begins from now on. */
  hear(): Promise<string> {
    return this.inTurn(async () => {
      const begun = this.held !== '';
      this.lines.length = 0;
      if (begun) await this.nextLine('its display');
      return this.nextLine('its display');
    });
  }

  /** Every line that comes from now on goes to the listener, as it comes; nothing else is to be asked meanwhile. */
  overhear(listener: ((line: string) => void) | undefined): void {
    this.lines.length = 0;
    this.overheard = listener;
  }

  private async exchange(query: string): Promise<string> {
    await this.send(query);
    const answer = await this.nextLine(query);
    if (this.lines.length > 0 || this.held !== '') this.inDoubt = true;
    if (answer === this.identity && query !== this.identify?.ask)
      throw new InstrumentProblem(`Expected an answer to ${query}; an older one came. Take it again.`);
    return answer;
  }
  /** Whatever goes wrong within, what comes afterwards may be of then. */
  private async surely<T>(work: () => Promise<T>): Promise<T> {
    try {
      return await work();
    } catch (error) {
      this.inDoubt = true;
      throw error;
    }
  }
  /** Before a question: nothing lies on the line, or it is told apart by the instrument's own name. */
  private async beSure(): Promise<void> {
    if (!this.inDoubt && this.lines.length === 0 && this.held === '') return;
    this.inDoubt = true;
    if (!this.identify || this.identity === undefined)
      throw new InstrumentProblem(
        `Expected a quiet line from ${this.transport.name}; what comes on it may be an older answer. Connect it again.`,
      );
    await this.meetAgain(this.identify.ask, this.identity);
    this.inDoubt = false;
  }
  /** Heard out: as many names as were asked for have come, or none comes any more. */
  private async meetAgain(ask: string, identity: string): Promise<void> {
    this.drop();
    await this.write(ask);
    let met = false;
    for (let heard = 0; heard < MOST_LINES_OF_DOUBT; heard++) {
      if (met && (this.namesDue === 0 || !(await this.lineWithin(QUIET_TIMES * this.settings.answerMs)))) {
        this.namesDue = 0;
        return;
      }
      const line = await this.nextLine(ask);
      if (line === identity) met = true;
      else if (isName(line) && this.lines.length === 0)
        throw new InstrumentProblem(
          `Expected “${identity}” on ${this.transport.name}; “${line}” is there now. Connect it again.`,
        );
    }
    throw new InstrumentProblem(`Expected ${identity} to answer; there is only noise on ${this.transport.name}.`);
  }
  private drop(): void {
    this.lines.length = 0;
    this.held = '';
  }

  private async send(command: string): Promise<void> {
    await this.write(command);
    if (!this.settings.echo) return;
    const back = await this.nextLine(command);
    if (back !== command)
      throw new InstrumentProblem(`Expected ${command} to come back; “${back}” came. The line is not clean.`);
  }
  private async write(text: string): Promise<void> {
    if (this.isLost) throw this.lossProblem();
    if (text === this.identify?.ask) this.namesDue++;
    await this.transport.write(text + ENDS[this.settings.end]);
  }
  private lossProblem = (): InstrumentProblem =>
    new InstrumentProblem(
      `Expected an open line to ${this.identity ?? 'the instrument'}; ${this.transport.name} was lost. Connect it again.`,
    );

  private hearPiece(piece: string | undefined): void {
    if (piece === undefined) {
      if (this.isLost) return;
      this.isLost = true;
      this.lossListeners.forEach((told) => told());
    } else {
      // Any of the three ends a line, whatever the instrument wants to be sent.
      const parts = (this.held + piece).split(/\r\n|\n|\r(?!\n)/);
      this.held = parts.pop()!;
      const whole = parts.map((l) => l.trim()).filter((l) => l !== '');
      if (this.overheard) whole.forEach(this.overheard);
      else this.lines.push(...whole);
    }
    this.wake?.();
  }
  private async nextLine(query: string): Promise<string> {
    const until = Date.now() + this.settings.answerMs;
    while (this.lines.length === 0) {
      if (this.isLost) throw this.lossProblem();
      if (this.held.length > LONGEST_LINE)
        throw new InstrumentProblem(`Expected a line in answer to ${query}; got text without an end. Check the rate.`);
      if (!(await this.pieceWithin(until - Date.now())))
        throw new InstrumentProblem(
          `Expected an answer to ${query} within ${this.settings.answerMs / 1000} s; got none.`,
        );
    }
    const line = this.lines.shift()!;
    if (this.namesDue > 0 && (this.identity === undefined ? query === this.identify?.ask : line === this.identity))
      this.namesDue--;
    if (!CLEAN.test(line))
      throw new InstrumentProblem(`Expected text in answer to ${query}; the line carries noise. Check cable and rate.`);
    return line;
  }
  private async lineWithin(ms: number): Promise<boolean> {
    const until = Date.now() + ms;
    while (this.lines.length === 0 && !this.isLost) if (!(await this.pieceWithin(until - Date.now()))) return false;
    return !this.isLost;
  }
  private pieceWithin(ms: number): Promise<boolean> {
    return new Promise((resolve) => {
      const timer = setTimeout(() => done(false), Math.max(0, ms));
      const done = (came: boolean): void => {
        clearTimeout(timer);
        this.wake = undefined;
        resolve(came);
      };
      this.wake = () => done(true);
    });
  }
  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = this.last.then(work, work);
    this.last = next.catch(() => {});
    return next;
  }
}
