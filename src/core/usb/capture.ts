import { fail, ok, type Result } from '../result';
import { LineDecoder } from './line';
import type { PdPacket } from './packet';

export type CcLine = 'CC1' | 'CC2';

/** What a two-channel capture holds. */
export interface CaptureReading {
  /** The line that talks; undefined when neither does. */
  readonly line?: CcLine;
  readonly packets: readonly PdPacket[];
  readonly edges: Readonly<Record<CcLine, number>>;
  readonly durationS: number;
}

const NEWLINE = 10;
/** A line that talks has at least this many edges more than a quiet one. */
const LEAST_EDGES = 50;

/**
 * Reads a capture piece by piece: rows of time and two levels (CSV), rows of two levels at a known rate, or a value
 * change dump. Memory is one row and one packet, whatever the length.
 */
export class CaptureReader {
  private readonly packets: Readonly<Record<CcLine, PdPacket[]>> = { CC1: [], CC2: [] };
  private readonly decoders: Readonly<Record<CcLine, LineDecoder>> = {
    CC1: new LineDecoder((p) => this.packets.CC1.push(p)),
    CC2: new LineDecoder((p) => this.packets.CC2.push(p)),
  };
  private rest = new Uint8Array(0);
  private rowNumber = 0;
  private source?: RowSource;
  private problem?: string;
  private lastS = 0;

  /** @param sampleHz the sample rate, for files that carry no time. */
  constructor(private readonly sampleHz?: number) {}

  /** Takes the next piece of the file. False when reading on makes no sense. */
  push(bytes: Uint8Array): boolean {
    if (this.problem) return false;
    const all = this.rest.length === 0 ? bytes : joined(this.rest, bytes);
    let start = 0;
    for (;;) {
      const end = all.indexOf(NEWLINE, start);
      if (end < 0) break;
      this.row(all, start, end);
      if (this.problem) return false;
      start = end + 1;
    }
    this.rest = all.slice(start);
    if (this.rest.length > 10_000) this.problem = 'Expected rows of text; got 10,000 bytes without a line end.';
    return !this.problem;
  }

  finish(): Result<CaptureReading> {
    if (!this.problem && this.rest.length > 0) this.row(this.rest, 0, this.rest.length);
    if (this.problem) return fail(this.problem);
    if (this.rowNumber === 0) return fail('Expected a capture; got an empty file.');
    if (!this.source)
      return fail(`Expected rows of time and two levels, or a value change dump; got none in ${this.rowNumber} rows.`);
    this.decoders.CC1.finish();
    this.decoders.CC2.finish();
    const edges = { CC1: this.decoders.CC1.edgeCount, CC2: this.decoders.CC2.edgeCount };
    const line = talkingLine(this.packets, edges);
    return ok({ line, packets: line ? this.packets[line] : [], edges, durationS: this.lastS });
  }

  private row(all: Uint8Array, start: number, end: number): void {
    this.rowNumber++;
    const stop = all[end - 1] === 13 ? end - 1 : end;
    if (stop <= start) return;
    if (!this.source) {
      this.source = this.recognise(all, start, stop);
      return;
    }
    const problem = this.source.row(all, start, stop);
    if (problem) this.problem = `Row ${this.rowNumber}: ${problem}`;
  }

  private recognise(all: Uint8Array, start: number, stop: number): RowSource | undefined {
    const text = ascii(all, start, Math.min(stop, start + 300));
    if (text.startsWith('$')) return new ChangeDump(this.edge, text);
    if (/^[-+\d.]/.test(text)) {
      const source = this.levels(text);
      const problem = source?.row(all, start, stop);
      if (problem) this.problem = `Row ${this.rowNumber}: ${problem}`;
      return source;
    }
    if (this.rowNumber > 40)
      this.problem = `Expected rows of time and two levels within the first 40 rows; got "${text.slice(0, 60)}".`;
    return undefined;
  }

  private levels(text: string): RowSource | undefined {
    const columns = text.split(/[,;\t]/).length;
    if (columns === 3) return new TimedRows(this.edge);
    if (columns === 2 && this.sampleHz) return new PlainRows(this.edge, this.sampleHz);
    this.problem =
      columns === 2
        ? 'Expected a time in every row, or the sample rate beside the file; got two columns without a rate.'
        : `Expected time and two levels in a row; got ${columns} columns.`;
    return undefined;
  }

  private readonly edge = (line: CcLine | undefined, atS: number): void => {
    if (atS > this.lastS) this.lastS = atS;
    if (line) this.decoders[line].edge(atS);
  };
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  const all = new Uint8Array(a.length + b.length);
  all.set(a);
  all.set(b, a.length);
  return all;
}

function talkingLine(
  packets: Readonly<Record<CcLine, readonly PdPacket[]>>,
  edges: Readonly<Record<CcLine, number>>,
): CcLine | undefined {
  const good = (line: CcLine): number => packets[line].filter((p) => p.intact).length;
  if (good('CC1') !== good('CC2')) return good('CC1') > good('CC2') ? 'CC1' : 'CC2';
  const busier = edges.CC1 >= edges.CC2 ? 'CC1' : 'CC2';
  return packets[busier].length > 0 && edges[busier] > LEAST_EDGES ? busier : undefined;
}

type OnEdge = (line: CcLine | undefined, atS: number) => void;

interface RowSource {
  /** Reads one row; returns what is wrong with it. */
  row(all: Uint8Array, start: number, stop: number): string | undefined;
}

const isSeparator = (c: number): boolean => c === 44 || c === 59 || c === 9;
const ascii = (all: Uint8Array, start: number, stop: number): string =>
  String.fromCharCode(...all.subarray(start, stop));
/** The beginning of a row, for messages. */
const rowText = (all: Uint8Array, start: number, stop: number): string => ascii(all, start, Math.min(stop, start + 60));

/** `0.000001234,0,1`: read byte by byte, since a capture of 200 MB has ten million rows. */
class TimedRows implements RowSource {
  private level1 = -1;
  private level2 = -1;
  private last = -Infinity;

  constructor(private readonly edge: OnEdge) {}

  row(all: Uint8Array, start: number, stop: number): string | undefined {
    let at = start;
    while (at < stop && !isSeparator(all[at])) at++;
    const timeS = decimal(all, start, at);
    const a = all[at + 1] - 48;
    const b = all[stop - 1] - 48;
    const wellFormed =
      !Number.isNaN(timeS) &&
      (a === 0 || a === 1) &&
      (b === 0 || b === 1) &&
      stop - at === 4 &&
      isSeparator(all[at + 2]);
    if (!wellFormed) return `expected time and two levels of 0 or 1; got "${rowText(all, start, stop)}".`;
    if (timeS < this.last) return `expected time to go on from ${this.last} s; got ${timeS} s.`;
    this.last = timeS;
    if (a !== this.level1) this.edge(this.level1 < 0 ? undefined : 'CC1', timeS);
    if (b !== this.level2) this.edge(this.level2 < 0 ? undefined : 'CC2', timeS);
    this.level1 = a;
    this.level2 = b;
    return undefined;
  }
}

/** A decimal number from bytes; an exponent goes the slow way. NaN when it is none. */
function decimal(all: Uint8Array, start: number, stop: number): number {
  let value = 0;
  let scale = 0;
  let at = start;
  const negative = all[at] === 45;
  if (negative) at++;
  if (at === stop) return NaN;
  for (; at < stop; at++) {
    const c = all[at];
    if (c >= 48 && c <= 57) {
      value = value * 10 + (c - 48);
      scale *= 10;
    } else if (c === 46 && scale === 0) scale = 1;
    else return Number(rowText(all, start, stop).trim() || NaN);
  }
  return (negative ? -value : value) / (scale || 1);
}

/** `0,1` at a known rate. */
class PlainRows implements RowSource {
  private tick = 0;
  private level1 = -1;
  private level2 = -1;

  constructor(
    private readonly edge: OnEdge,
    private readonly sampleHz: number,
  ) {}

  row(all: Uint8Array, start: number, stop: number): string | undefined {
    const a = all[start] - 48;
    const b = all[stop - 1] - 48;
    if (stop - start !== 3 || a < 0 || a > 1 || b < 0 || b > 1)
      return `expected two levels of 0 or 1; got "${rowText(all, start, stop)}".`;
    const timeS = this.tick++ / this.sampleHz;
    if (a !== this.level1) this.edge(this.level1 < 0 ? undefined : 'CC1', timeS);
    if (b !== this.level2) this.edge(this.level2 < 0 ? undefined : 'CC2', timeS);
    this.level1 = a;
    this.level2 = b;
    return undefined;
  }
}

const SCALE_S: Record<string, number> = { s: 1, ms: 1e-3, us: 1e-6, ns: 1e-9, ps: 1e-12, fs: 1e-15 };

/** A value change dump. Source: IEEE 1364, section on value change dump files. */
class ChangeDump implements RowSource {
  private unitS = 1e-9;
  private timeS = 0;
  private header = '';
  private inHeader = true;
  private readonly lineOf = new Map<string, CcLine>();
  private readonly level = new Map<string, string>();

  constructor(
    private readonly edge: OnEdge,
    firstRow: string,
  ) {
    this.header = firstRow;
  }

  row(all: Uint8Array, start: number, stop: number): string | undefined {
    if (this.inHeader) return this.headerRow(ascii(all, start, Math.min(stop, start + 200)));
    const first = all[start];
    if (first === 35) {
      const ticks = decimal(all, start + 1, stop);
      if (Number.isNaN(ticks)) return `expected a time after #; got "${rowText(all, start, stop)}".`;
      this.timeS = ticks * this.unitS;
      this.edge(undefined, this.timeS);
    } else if (first === 48 || first === 49) {
      this.change(String.fromCharCode(first), rowText(all, start + 1, stop));
    }
    return undefined;
  }

  private headerRow(text: string): string | undefined {
    this.header += `\n${text}`;
    if (!text.includes('$enddefinitions')) return undefined;
    this.inHeader = false;
    const scale = /\$timescale\s+(\d+)\s*(fs|ps|ns|us|ms|s)\s+\$end/.exec(this.header);
    if (!scale) return 'expected a $timescale before the definitions end; got none.';
    this.unitS = Number(scale[1]) * SCALE_S[scale[2]];
    const wires = [...this.header.matchAll(/\$var\s+\w+\s+1\s+(\S+)\s+(\S+)/g)];
    if (wires.length < 2) return `expected two single-bit wires; got ${wires.length}.`;
    const named = (line: CcLine): RegExpMatchArray | undefined => wires.find((w) => w[2].toUpperCase().includes(line));
    const first = named('CC1') ?? wires[0];
    const second = named('CC2') ?? wires.find((w) => w !== first)!;
    this.lineOf.set(first[1], 'CC1').set(second[1], 'CC2');
    return undefined;
  }

  private change(level: string, wire: string): void {
    const line = this.lineOf.get(wire);
    if (!line) return;
    const before = this.level.get(wire);
    this.level.set(wire, level);
    if (before !== undefined && before !== level) this.edge(line, this.timeS);
  }
}

/** Reads a whole capture at once. */
export function readCapture(bytes: Uint8Array, sampleHz?: number): Result<CaptureReading> {
  const reader = new CaptureReader(sampleHz);
  reader.push(bytes);
  return reader.finish();
}
