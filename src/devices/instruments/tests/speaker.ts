import type { Random } from '../../../core/math';
import type { InstrumentDefinition, MeterDialect, StreamDialect, SupplyDialect } from '../definition';
import type { LineTransport } from '../line-session';
import type { MeterQuantity } from '../multimeter';

/** The other end of a line: an instrument that speaks as its definition says, over a bench of known truth. */
export class Speaker {
  volts = 0;
  limit = 0;
  isOn = false;
  /** The function that its dial or its last command has chosen. */
  function: MeterQuantity = 'V';

  constructor(
    readonly definition: InstrumentDefinition,
    readonly truth: Readonly<Record<MeterQuantity, number>>,
    readonly identity: string,
    /** How figures are written: `unit` adds one, with a prefix where it suits. */
    private readonly style: 'plain' | 'unit' | 'comma' = 'plain',
  ) {}

  /** What it says to a line; nothing for what it does not know. */
  hear(line: string): string | undefined {
    const { dialect } = this.definition;
    if (dialect.identify && line === dialect.identify.ask) return this.identity;
    if (dialect.kind === 'meter') return this.meterSays(dialect, line);
    if (dialect.kind === 'supply') return this.supplySays(dialect, line);
    return undefined;
  }
  /** What a talking meter's display shows now. */
  get display(): string {
    const { functions } = this.definition.dialect as MeterDialect;
    return `${this.figure(this.truth[this.function], '')} ${functions[this.function]!.marks[0]}`;
  }
  sample(timeS: number, volts: number, amps: number): string {
    const { separator, columns } = this.definition.dialect as StreamDialect;
    return columns.map((c) => ({ time: timeS, volts, amps, celsius: 20, other: 0 })[c].toFixed(3)).join(separator);
  }

  private meterSays({ functions }: MeterDialect, line: string): string | undefined {
    for (const [quantity, fn] of Object.entries(functions) as [MeterQuantity, (typeof functions)['V']][]) {
      if (!fn) continue;
      if (fn.set.includes(line)) {
        this.function = quantity;
        return undefined;
      }
      if (fn.check?.ask === line) return `"${functions[this.function]!.check!.says}"`;
      if (fn.ask !== line) continue;
      const read = fn.set.length > 0 ? this.function : quantity;
      return this.figure(this.truth[read], { V: 'V', Ω: 'Ohm', drop: 'V' }[read]);
    }
    return undefined;
  }
  private supplySays(d: SupplyDialect, line: string): string | undefined {
    const value = (command: string): number | undefined => {
      const [before, after] = command.split('{value}');
      return line.startsWith(before) && line.endsWith(after) ? Number(line.slice(before.length)) : undefined;
    };
    const [volts, limit] = [value(d.setVolts), value(d.setLimit)];
    if (line === d.on) this.isOn = true;
    else if (line === d.off) this.isOn = false;
    else if (line === d.askState) return this.isOn ? d.onSays[0] : d.offSays[0];
    else if (line === d.askVolts) return this.volts.toFixed(3);
    else if (line === d.askLimit) return this.limit.toFixed(3);
    else if (line === d.measureVolts) return (this.isOn ? this.volts : 0).toFixed(3);
    else if (line === d.measureAmps) return (this.isOn ? this.truth.V / 100 : 0).toFixed(4);
    else if (volts !== undefined) this.volts = volts;
    else if (limit !== undefined) this.limit = limit;
    else return undefined;
    return this.definition.line.acknowledge;
  }
  private figure(value: number, unit: string): string {
    if (!Number.isFinite(value)) return this.style === 'plain' && unit !== '' ? '9.9E37' : 'OL';
    if (this.style === 'unit' && unit !== '')
      return value >= 1000 ? `${(value / 1000).toPrecision(5)} k${unit}` : `${value.toPrecision(5)} ${unit}`;
    const text = unit === '' ? value.toPrecision(4) : value.toExponential(5);
    return this.style === 'comma' ? text.replace('.', ',') : text;
  }
}

export interface Trouble {
  /** Chances per message. */
  readonly late: number;
  readonly silent: number;
  readonly garbage: number;
  readonly lostByte: number;
  readonly cut: number;
}
export const CALM: Trouble = { late: 0, silent: 0, garbage: 0, lostByte: 0, cut: 0 };

/** A made-up serial line to a speaker: pieces, delays, echo, noise, bytes that get lost, and a plug that is pulled. */
export function troubledLine(speaker: Speaker, trouble: Trouble, random: Random): LineTransport {
  let heard: (piece: string | undefined) => void = () => {};
  let closed = false;
  /** An instrument answers in turn. */
  let last: Promise<void> = Promise.resolve();
  const { line } = speaker.definition;
  const end = { lf: '\n', cr: '\r', crlf: '\r\n' }[line.end];
  const chance = (p: number): boolean => random() < p;
  function send(text: string, afterMs: number): void {
    let wire = text + end;
    if (chance(trouble.garbage)) wire = pick(random, ['\u0000\u0007', 'ÿÿ', '3', '\n7.7\n', '??']) + wire;
    if (chance(trouble.lostByte)) {
      const at = Math.floor(random() * wire.length);
      wire = wire.slice(0, at) + wire.slice(at + 1);
    }
    const split = Math.floor(random() * wire.length);
    last = last.then(async () => {
      if (afterMs > 0) await new Promise((done) => setTimeout(done, afterMs));
      for (const piece of [wire.slice(0, split), wire.slice(split)]) {
        if (!closed && piece !== '') heard(piece);
        await Promise.resolve();
      }
    });
  }
  let talk: ReturnType<typeof setInterval> | undefined;
  const dialect = speaker.definition.dialect;
  const talks = dialect.kind === 'meter' && Object.values(dialect.functions).every((f) => f?.ask === undefined);
  if (talks) talk = setInterval(() => send(speaker.display, 0), 3);
  return {
    name: 'a made-up line',
    async write(text) {
      if (closed) throw new Error('closed');
      if (chance(trouble.cut)) {
        closed = true;
        clearInterval(talk);
        return heard(undefined);
      }
      const said = text.replace(end, '');
      if (line.echo) send(said, 0);
      const answer = speaker.hear(said);
      if (answer === undefined || chance(trouble.silent)) return;
      send(answer, chance(trouble.late) ? line.answerMs * (0.8 + random()) : random() * 2);
    },
    listen(listener) {
      heard = listener;
    },
    async close() {
      closed = true;
      clearInterval(talk);
    },
  };
}

export const pick = <T>(random: Random, of: readonly T[]): T => of[Math.floor(random() * of.length)];
