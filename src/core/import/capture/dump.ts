import type { CaptureReading } from '../../usb';
import { defineImporter, MIB, refused, type Answers, type Outcome } from '../importer';
import { headText, isText } from '../text/encoding';
import { Slicer } from './analog';
import { ChannelBank, MOST_CHANNELS, type CaptureSummary } from './bank';
import { ascii, decimal, joined } from './bytes';
import { throughStream, type CaptureStream } from './stream';

const SCALE_S: Readonly<Record<string, number>> = { s: 1, ms: 1e-3, us: 1e-6, ns: 1e-9, ps: 1e-12, fs: 1e-15 };
const MOST_HEADER_BYTES = 4 * MIB;
const MOST_TOKEN_BYTES = 1 * MIB;
const isBlank = (c: number): boolean => c === 32 || (c >= 9 && c <= 13);

type Wire =
  | { readonly kind: 'bit' | 'bus'; readonly channels: number[]; readonly levels: number[] }
  | { readonly kind: 'real'; readonly slicer: Slicer };

/**
 * A value change dump: four-state values of one or more bits, and real ones. Tokens are parted by any blanks, as the standard
 * has it, not by lines. Source: IEEE 1364-2005, clause 18.
 */
export class DumpStream implements CaptureStream {
  private rest: Uint8Array<ArrayBufferLike> = new Uint8Array(0);
  private header = '';
  private inHeader = true;
  private problem?: string;
  private unitS = 0;
  private at = 0;
  private bank?: ChannelBank;
  private readonly wires = new Map<string, Wire>();
  private readonly slicers: Slicer[] = [];
  /** A value that waits for the name of its wire. */
  private pending?: string;
  private inRemark = false;

  constructor(private readonly answers: Answers) {}

  push(piece: Uint8Array): boolean {
    if (this.problem) return false;
    let all = joined(this.rest, piece);
    if (this.inHeader) {
      const text = ascii8(all);
      const end = /\$enddefinitions\s+\$end/.exec(text);
      if (!end) {
        this.rest = all;
        if (all.length > MOST_HEADER_BYTES) this.problem = 'Expected $enddefinitions in the first 4 MiB; got none.';
        return !this.problem;
      }
      this.header = text.slice(0, end.index);
      this.inHeader = false;
      this.problem = this.readHeader();
      if (this.problem) return false;
      all = all.subarray(end.index + end[0].length);
    }
    this.tokens(all);
    return !this.problem;
  }

  finish(): Outcome<CaptureReading, CaptureSummary> {
    if (!this.problem && this.inHeader)
      this.problem = 'Expected the definitions of a value change dump to end; the file stops before.';
    if (!this.problem && this.rest.length > 0) this.token(this.rest, 0, this.rest.length);
    if (this.problem) return refused(this.problem);
    for (const slicer of this.slicers) slicer.finish();
    return this.bank!.finish(this.answers);
  }

  private tokens(all: Uint8Array): void {
    let start = 0;
    for (let i = 0; i < all.length; i++) {
      if (!isBlank(all[i])) continue;
      if (i > start) {
        this.token(all, start, i);
        if (this.problem) return;
      }
      start = i + 1;
    }
    this.rest = all.slice(start);
    if (this.rest.length > MOST_TOKEN_BYTES)
      this.problem = 'Expected values parted by blanks; got a megabyte without one.';
  }

  private token(all: Uint8Array, start: number, stop: number): void {
    const first = all[start];
    if (this.inRemark) {
      if (ascii(all, start, Math.min(stop, start + 8)) === '$end') this.inRemark = false;
      return;
    }
    if (this.pending !== undefined) {
      this.vector(this.pending, ascii(all, start, Math.min(stop, start + 64)));
      this.pending = undefined;
      return;
    }
    if (first === 35) {
      const ticks = decimal(all, start + 1, stop);
      if (Number.isNaN(ticks))
        this.problem = `Expected a time after #; got "${ascii(all, start, Math.min(stop, start + 40))}".`;
      else if (ticks < this.at) this.problem = `Expected times that go on; #${ticks} comes after #${this.at}.`;
      else {
        this.at = ticks;
        this.bank!.tick(ticks);
      }
      return;
    }
    const letter = first | 32;
    if (first === 48 || first === 49) this.scalar(first - 48, ascii(all, start + 1, Math.min(stop, start + 64)));
    else if (letter === 98 || letter === 114) this.pending = ascii(all, start, Math.min(stop, start + 4096));
    else if (letter === 120 || letter === 122) return;
    else if (first === 36) {
      const word = ascii(all, start, Math.min(stop, start + 20));
      this.inRemark = word === '$comment';
    } else this.problem = `Expected a value change; got "${ascii(all, start, Math.min(stop, start + 40))}".`;
  }

  private scalar(level: number, id: string): void {
    const wire = this.wires.get(id);
    if (!wire || wire.kind === 'real') return;
    this.setLevel(wire, 0, level);
  }

  private setLevel(wire: Extract<Wire, { channels: number[] }>, bit: number, level: number): void {
    const before = wire.levels[bit];
    if (before === level) return;
    wire.levels[bit] = level;
    if (before >= 0) this.bank!.edge(wire.channels[bit], this.at);
  }

  /** `b0101 !` or `r1.25 !`: the leftmost bit is the highest, and what is not written repeats 0, x or z. */
  private vector(value: string, id: string): void {
    const wire = this.wires.get(id);
    if (!wire) return;
    if (wire.kind === 'real') {
      wire.slicer.sample(this.at, Number(value.slice(1)));
      return;
    }
    const bits = value.slice(1);
    if (value[0] === 'r' || value[0] === 'R') return;
    wire.channels.forEach((_, bit) => {
      const char = bits[bits.length - 1 - bit] ?? (/^[01]/.test(bits) ? '0' : 'x');
      if (char === '0' || char === '1') this.setLevel(wire, bit, Number(char));
    });
  }

  private readHeader(): string | undefined {
    const body = this.header.replace(/\$comment[\s\S]*?\$end/g, ' ');
    const scale = /\$timescale\s+(\d+)\s*(fs|ps|ns|us|ms|s)\s+\$end/.exec(body);
    if (!scale) return 'Expected a $timescale such as 1 ns among the definitions; got none.';
    this.unitS = Number(scale[1]) * SCALE_S[scale[2]];
    const names: string[] = [];
    const taken: { id: string; wire: Wire }[] = [];
    const bank: { made?: ChannelBank } = {};
    for (const [, type, width, id, name] of body.matchAll(/\$var\s+(\w+)\s+(\d+)\s+(\S+)\s+([\s\S]*?)\s*\$end/g)) {
      // A second name of the same wire is no second channel.
      if (taken.some((t) => t.id === id)) continue;
      const clean = name.replace(/\s+(?=\[)/g, '').replace(/\[0:0\]$/, '');
      const channel = names.length;
      if (type === 'real' || type === 'realtime') {
        const slicer = new Slicer((at) => bank.made!.edge(channel, at));
        this.slicers.push(slicer);
        names.push(clean);
        taken.push({ id, wire: { kind: 'real', slicer } });
      } else if (!/^(?:event|parameter|time|integer)$/.test(type) && names.length + Number(width) <= MOST_CHANNELS) {
        const bits = Number(width);
        const base = clean.replace(/\[\d+:\d+\]$/, '');
        const low = Math.min(...(/\[(\d+):(\d+)\]$/.exec(clean)?.slice(1).map(Number) ?? [0]));
        const channels = Array.from({ length: bits }, (_, bit) => names.length + bit);
        for (let bit = 0; bit < bits; bit++) names.push(bits === 1 ? clean : `${base}[${low + bit}]`);
        taken.push({ id, wire: { kind: bits === 1 ? 'bit' : 'bus', channels, levels: channels.map(() => -1) } });
      }
    }
    if (names.length === 0) return 'Expected wires of one bit or a bus among the definitions; got none.';
    bank.made = new ChannelBank(names, { scaleS: this.unitS });
    this.bank = bank.made;
    for (const { id, wire } of taken) this.wires.set(id, wire);
    return undefined;
  }
}

const ascii8 = (bytes: Uint8Array): string => new TextDecoder('latin1').decode(bytes);

export const captureDump = defineImporter<CaptureReading, CaptureSummary>({
  id: 'capture-dump',
  title: 'a capture as a value change dump',
  mostBytes: 512 * MIB,
  score: (file) => {
    if (!isText(file.bytes)) return 0;
    const head = headText(file.bytes, 8192);
    if (/\$(?:timescale|enddefinitions|var)\b/.test(head)) return 1;
    return /^\s*\$(?:date|version|comment)\b/.test(head) ? 0.9 : 0;
  },
  read: (file, answers) => throughStream(new DumpStream(answers), file.bytes),
});
