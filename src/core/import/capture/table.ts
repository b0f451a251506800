import type { CaptureReading } from '../../usb';
import { defineImporter, MIB, refused, type Answers, type ImportFile, type Outcome } from '../importer';
import { encodingOf, headText, isText } from '../text/encoding';
import { unitOf } from '../table/unit';
import { Slicer } from './analog';
import { ChannelBank, type CaptureSummary } from './bank';
import { ascii, decimal, joined, rowText } from './bytes';
import { clockSeconds, overMidnight } from './clock';
import { captureHead, timeIn, type CaptureHead } from './head';
import { throughStream, type CaptureStream } from './stream';

const NEWLINE = 10;
const CARRIAGE_RETURN = 13;
const SPACE = 32;
const QUOTE = 34;
/** So much of the file is looked at to find its layout. */
const HEAD_BYTES = 64 * 1024;
const MOST_LINE_BYTES = 100_000;

/** Samples in a second as typed: `10 MHz`, `4e6`. */
function rateOf(text: string | undefined): number | undefined {
  const found = /^\s*([\d.,]+(?:e\d+)?)\s*([kMG]?)\s*(?:Hz|S\/s|Sa\/s)?\s*$/i.exec(text ?? '');
  if (!found) return undefined;
  const rate = Number(found[1].replace(',', '.')) * ({ k: 1e3, K: 1e3, m: 1e6, M: 1e6, g: 1e9, G: 1e9 }[found[2]] ?? 1);
  return rate > 0 ? rate : undefined;
}

/**
 * Rows of levels or volts, with their time or at a rate: transitions and samples alike. Read byte by byte, since a capture of
 * 200 MB has ten million rows.
 */
export class TableStream implements CaptureStream {
  private rest: Uint8Array<ArrayBufferLike> = new Uint8Array(0);
  private head?: CaptureHead;
  private bank?: ChannelBank;
  private slicers: (Slicer | undefined)[] = [];
  private levels: number[] = [];
  private channelOf: number[] = [];
  private lineNumber = 0;
  private rows = 0;
  private lastTime = -Infinity;
  private startTime = NaN;
  private problem?: string;
  private decoder?: TextDecoder;
  private first = true;

  constructor(private readonly answers: Answers) {}

  push(piece: Uint8Array): boolean {
    if (this.problem) return false;
    if (this.first) {
      this.first = false;
      const encoding = encodingOf(piece.subarray(0, 4096));
      if (encoding.startsWith('utf-16')) this.decoder = new TextDecoder(encoding);
    }
    const bytes = this.decoder ? new TextEncoder().encode(this.decoder.decode(piece, { stream: true })) : piece;
    const all = joined(this.rest, bytes);
    if (!this.head && all.length < HEAD_BYTES) {
      this.rest = all;
      return true;
    }
    this.rest = this.lines(all);
    if (this.rest.length > MOST_LINE_BYTES)
      this.problem = 'Expected rows of text; got 100,000 bytes without a line end.';
    return !this.problem;
  }

  finish(): Outcome<CaptureReading, CaptureSummary> {
    if (!this.problem) {
      const left = this.lines(joined(this.rest, Uint8Array.of(NEWLINE)));
      if (left.length > 0 && !this.problem) this.problem = 'Expected rows of text.';
    }
    if (this.problem) return refused(this.problem);
    if (!this.bank) return refused('Expected rows of time and levels; got none.');
    for (const slicer of this.slicers) slicer?.finish();
    const thresholds = this.slicers.flatMap((s) => (s && !Number.isNaN(s.thresholdV) ? [s.thresholdV.toFixed(2)] : []));
    if (thresholds.length > 0) this.bank.notes.push(`Levels parted at ${thresholds.join(' and ')} V.`);
    return this.bank.finish(this.answers);
  }

  /** Reads all whole lines; gives back what is left. */
  private lines(all: Uint8Array): Uint8Array {
    if (!this.head && !this.open(all)) return all.slice(0, 0);
    let start = 0;
    for (;;) {
      const end = all.indexOf(NEWLINE, start);
      if (end < 0) break;
      this.lineNumber++;
      if (this.lineNumber > this.head!.skipLines) {
        const stop = all[end - 1] === CARRIAGE_RETURN ? end - 1 : end;
        if (stop > start) this.row(all, start, stop);
        if (this.problem) return all.slice(0, 0);
      }
      start = end + 1;
    }
    return all.slice(start);
  }

  private open(all: Uint8Array): boolean {
    const head = captureHead(headText(all, HEAD_BYTES));
    if (!head) {
      this.problem = `Expected rows of time and levels, or of levels at a rate; got "${rowText(all, 0, all.length).split(/[\r\n]/)[0]}".`;
      return false;
    }
    this.head = head;
    const given = rateOf(this.answers.rate);
    const rate = given ?? head.rateHz;
    const unit = this.answers.unit === undefined ? undefined : unitOf(this.answers.unit);
    let channel = 0;
    this.channelOf = head.kinds.map((kind) => (kind === 'logic' || kind === 'volts' ? channel++ : -1));
    const names = head.names.filter((_, i) => this.channelOf[i] >= 0);
    const timed = head.timeColumn >= 0;
    this.bank = new ChannelBank(names, {
      scaleS: timed ? (unit?.scale ?? head.timeScaleS) : rate === undefined ? undefined : 1 / rate,
      rateAsked: !timed && rate === undefined,
      rateHz: rate,
    });
    this.levels = names.map(() => -1);
    this.slicers = head.kinds.flatMap((kind, i) => {
      const at = this.channelOf[i];
      if (at < 0) return [];
      return [kind === 'volts' ? new Slicer((time) => this.bank!.edge(at, time)) : undefined];
    });
    return true;
  }

  private row(all: Uint8Array, start: number, stop: number): void {
    const { delimiter, kinds, timeColumn, isClock, voltScale } = this.head!;
    const c = all[start];
    if (c === 35 || (c === 59 && delimiter !== 59)) return;
    let time = this.rows;
    let [column, at] = [0, start];
    const cells: number[] = [];
    while (at <= stop && column < kinds.length) {
      let end = at;
      while (end < stop && all[end] !== delimiter) end++;
      let [from, to] = [at, end];
      while (from < to && (all[from] === SPACE || all[from] === QUOTE)) from++;
      while (to > from && (all[to - 1] === SPACE || all[to - 1] === QUOTE)) to--;
      const kind = kinds[column];
      if (kind === 'time')
        time = isClock ? overMidnight(clockSeconds(ascii(all, from, to)), this.lastTime) : decimal(all, from, to);
      else if (kind === 'logic') cells.push(levelOf(all, from, to));
      else if (kind === 'volts') cells.push(decimal(all, from, to) * voltScale[column]);
      column++;
      at = end + 1;
    }
    const broken =
      column < kinds.length || Number.isNaN(time) || cells.some((v, i) => Number.isNaN(v) && !this.slicers[i]);
    if (broken) {
      this.problem = `Row ${this.lineNumber}: expected ${kinds.length} columns of time and levels; got "${rowText(all, start, stop)}".`;
      return;
    }
    if (timeColumn >= 0) {
      if (time < this.lastTime) {
        this.problem = `Row ${this.lineNumber}: expected times that go on from ${this.lastTime}; got ${time}.`;
        return;
      }
      this.lastTime = time;
      if (Number.isNaN(this.startTime)) this.startTime = time;
      time -= this.startTime;
    }
    this.rows++;
    for (let i = 0; i < cells.length; i++) {
      const slicer = this.slicers[i];
      if (slicer) slicer.sample(time, cells[i]);
      else if (cells[i] !== this.levels[i]) {
        if (this.levels[i] >= 0) this.bank!.edge(i, time);
        this.levels[i] = cells[i];
      }
    }
    this.bank!.tick(time);
  }
}

/** 0 or 1; letters H and L, and the words true and false, high and low, by their first letter. NaN for anything else. */
function levelOf(all: Uint8Array, from: number, to: number): number {
  const c = all[from];
  if (to - from === 1 && (c === 48 || c === 49)) return c - 48;
  const letter = String.fromCharCode(c | 32);
  if (to - from === 1 || to - from >= 3) {
    if (letter === 'h' || letter === 't') return 1;
    if (letter === 'l' || letter === 'f') return 0;
  }
  return NaN;
}

/** Samples of a port's lines come faster than this, s; meters and loggers are slower. Engineering estimate. */
const SLOWEST_S = 5e-5;

function scoreOf(file: ImportFile): number {
  if (!isText(file.bytes)) return 0;
  const text = headText(file.bytes, HEAD_BYTES);
  if (/^\s*[:S][0-9A-F]{8}/i.test(text) || /^\s*\$(?:date|version|timescale)/.test(text)) return 0;
  const head = captureHead(text);
  if (!head) return 0;
  const logic = head.kinds.filter((k) => k === 'logic').length;
  const volts = head.kinds.filter((k) => k === 'volts').length;
  const named = head.names.filter((n) => /cc[\s_.-]*[12]/i.test(n)).length > 0;
  if (volts === 0) return head.timeColumn >= 0 || head.rateHz !== undefined || named || logic > 0 ? 0.93 : 0.5;
  const fast = stepOf(text, head) < SLOWEST_S;
  if (fast) return named || logic === 0 ? 0.92 : 0.8;
  return 0;
}

/** Typical time between rows at the beginning, in seconds; a day where none is known. */
function stepOf(text: string, head: CaptureHead): number {
  if (head.timeColumn < 0) return head.rateHz === undefined ? 86_400 : 1 / head.rateHz;
  const delimiter = String.fromCharCode(head.delimiter);
  const times = text
    .split(/\r?\n/)
    .slice(head.skipLines, head.skipLines + 200)
    .map((line) => timeIn((line.split(delimiter)[head.timeColumn] ?? '').replace(/"/g, '').trim()));
  const steps = times
    .slice(1)
    .map((t, i) => t - times[i])
    .filter((s) => s > 0)
    .sort((a, b) => a - b);
  const step = steps[Math.floor(steps.length / 2)] ?? 86_400;
  return step * (head.timeScaleS ?? 1);
}

export const captureTable = defineImporter<CaptureReading, CaptureSummary>({
  id: 'capture-table',
  title: 'a capture as rows of levels',
  mostBytes: 512 * MIB,
  score: scoreOf,
  read: (file, answers) => throughStream(new TableStream(answers), file.bytes),
});
