import { CHECKSUMS, checksumByName, readField, type Checksum } from './catalogue';
import { Differences } from './differences';
import { UNSEARCHED, againstTwins, rankOverGf2, type Candidate, type FoundChecksum } from './evidence';
import { KeyTable } from './key-table';
import { landmarksOf, type Landmark } from './landmarks';
import { rangeKeys } from './make-keys';
import type { Field, Fill, RangeKeys } from './range-keys';

export interface FoundChecksums {
  /** Those that chance does not explain, surest first. */
  readonly claims: readonly FoundChecksum[];
  /** Those that hold too, but of which chance would make about as many: not to be relied on. */
  readonly possible: readonly FoundChecksum[];
  /** Ranges and fields that were tried. */
  readonly tried: number;
}

export interface FindOptions {
  /** Ranges begin and end at multiples of this; larger for large images. */
  readonly alignment?: number;
  readonly algorithms?: readonly Checksum[];
  /** Told the share that is done; answers true to stop. */
  readonly onProgress?: (done: number) => boolean;
}

/** A claim has fewer than this many expected by chance, over all algorithms together. */
const CLAIM_BELOW = 1e-3;
const MOST_POSSIBLE = 40;
/** More starts than this are searched at a coarser alignment. */
const MOST_BLOCKS = 16_384;
const ALIGNMENT = 64;
/** Fields of headers and trailers are looked for in so many bytes at either end, and so many beside each landmark. */
const HEADER_BYTES = 64;
const BESIDE_BYTES = 16;
const MOST_LANDMARKS = 12;
/** Keys with fewer bits meet by chance too often for all ranges to be searched: only landmarks are tried then. */
const LEAST_KEY_BITS = 32;

/**
 * Finds checksums by their values: every algorithm, every range between two block edges, fields right after the range, in
 * the header, the trailer and beside the landmarks, inside their range or outside, in both byte orders.
 * An n-bit field agrees by chance once in 2^n ranges, so that one image says little of short checksums: images of several
 * units with the same layout make them sure, and what chance explains is never claimed.
 * @param images one to eight of the same length.
 */
export function findChecksums(images: readonly Uint8Array[], options: FindOptions = {}): FoundChecksums {
  const algorithms = options.algorithms ?? CHECKSUMS;
  // The same read twice is no second witness.
  const units = different(images);
  const length = images[0].length;
  const alignment = options.alignment ?? coarseEnough(length);
  const landmarks = landmarksOf(units, alignment, MOST_LANDMARKS);
  const differences = new Differences(units);
  const candidates: Candidate[] = [];
  let tried = 0;
  for (const [k, checksum] of algorithms.entries()) {
    if (options.onProgress?.(k / algorithms.length)) break;
    const search = new Search(units, checksum, alignment, landmarks, differences, algorithms);
    candidates.push(...search.run());
    tried += search.tried;
  }
  const best = simplest(againstTwins(candidates));
  // What is told is summed once more directly, so that no slip of the fast way reaches a screen.
  const sure = (list: readonly FoundChecksum[]): FoundChecksum[] =>
    list.filter((f) => units.every((bytes) => holdsDirectly(f, bytes)));
  return {
    claims: sure(best.filter((f) => f.expectedFalsePositives < CLAIM_BELOW)),
    possible: sure(best.filter((f) => f.expectedFalsePositives >= CLAIM_BELOW).slice(0, MOST_POSSIBLE)),
    tried,
  };
}

const coarseEnough = (length: number): number => {
  let alignment = ALIGNMENT;
  while (length / alignment > MOST_BLOCKS) alignment *= 2;
  return alignment;
};

/** One hypothesis, as positions in the search's lists. */
interface Hit {
  readonly start: number;
  readonly end: number;
  readonly field: Field;
  /** The field follows the range. */
  readonly after: boolean;
}

class Search {
  tried = 0;
  private readonly starts: Int32Array;
  private readonly ends: Int32Array;
  private readonly made: (RangeKeys | undefined)[] = [];
  private readonly rank: Map<number, number>;
  /** Wanted keys, image by image. */
  private readonly scratch: readonly Uint32Array[];

  constructor(
    private readonly images: readonly Uint8Array[],
    private readonly checksum: Checksum,
    alignment: number,
    private readonly landmarks: readonly Landmark[],
    private readonly differences: Differences,
    private readonly algorithms: readonly Checksum[],
  ) {
    const { length } = images[0];
    const width = checksum.bytes;
    const telling = (at: number): boolean => !images.every((bytes) => isInsideRun(bytes, at));
    this.starts = edges(length, alignment, width).filter((at) => at < length && telling(at));
    this.ends = edges(length, alignment, -width).filter((at) => at > 0 && telling(at));
    this.scratch = Array.from({ length: this.lanes() }, () => new Uint32Array(this.ends.length));
    this.rank = new Map(landmarks.flatMap((l) => [[l.offset, l.rank] as const]));
  }

  run(): Candidate[] {
    const fields = this.fields();
    const orders = this.checksum.bytes > 1 ? [false, true] : [false];
    // Fields: in three ways each where they can lie inside, and right after the range; in one or two byte orders.
    const places = { fixed: 3 * fields.length, after: orders.length };
    this.tried = ((this.starts.length * this.ends.length) / 2) * (places.fixed + places.after);
    const hits =
      this.packedBits() >= LEAST_KEY_BITS ? this.searchAll(fields, orders) : this.searchLandmarks(fields, orders);
    return hits.flatMap((hit) => (this.agrees(hit) ? [this.told(hit, places)] : []));
  }

  /** Bits of the keys of as many images as fit into one lookup. */
  private packedBits(): number {
    return Math.min(32, this.keysOf(0).bits * this.lanes());
  }

  private lanes(): number {
    return Math.min(this.images.length, 32 / this.keysOf(0).bits);
  }

  /** Fields at places of their own: the first and last bytes of the image, and beside the landmarks. */
  private fields(): Field[] {
    const { bytes: width } = this.checksum;
    const { length } = this.images[0];
    const offsets = new Set<number>();
    const add = (from: number, to: number): void => {
      for (let at = Math.ceil(Math.max(0, from) / width) * width; at + width <= Math.min(length, to); at += width)
        offsets.add(at);
    };
    add(0, HEADER_BYTES);
    add(length - HEADER_BYTES, length);
    for (const { offset } of this.landmarks) add(offset - BESIDE_BYTES, offset + BESIDE_BYTES);
    const orders = width > 1 ? [false, true] : [false];
    return [...offsets].flatMap((offset) => orders.map((bigEndian): Field => ({ offset, bigEndian, fill: 'outside' })));
  }

  /** All ranges: start keys in a table, the wanted key of each end and field looked up. */
  private searchAll(fields: readonly Field[], orders: readonly boolean[]): Hit[] {
    const starts = this.packed((keys) => keys.starts);
    const table = new KeyTable(starts);
    const hits: Hit[] = [];
    const take = (start: number, end: number, field: Field, after: boolean): void => {
      const hit = { start, end, field, after };
      if (this.isRange(hit)) hits.push(hit);
    };
    for (const field of fields) {
      const wanted = this.wanted(field);
      table.each(wanted, 0, (start, end) => take(start, end, field, false));
      for (const fill of ['00', 'ff'] as const) this.searchInside({ ...field, fill }, starts, table, take);
    }
    for (const bigEndian of orders) {
      const afterwards = (end: number): Field => ({ offset: this.ends[end], bigEndian, fill: 'outside' });
      const wanted = this.packed((keys) =>
        Uint32Array.from(this.ends, (_, end) => keys.wantedAt(end, afterwards(end))),
      );
      table.each(wanted, 0, (start, end) => take(start, end, afterwards(end), true));
    }
    return hits;
  }

  /** A field inside its range: the range begins before it and ends after it, which near either end of the image leaves few. */
  private searchInside(
    field: Field,
    starts: Uint32Array,
    table: KeyTable,
    take: (start: number, end: number, field: Field, after: boolean) => void,
  ): void {
    const before = this.starts.findIndex((at) => at > field.offset);
    const first = this.ends.findIndex((at) => at >= field.offset + this.checksum.bytes);
    if (first < 0) return;
    const wanted = this.wanted(field);
    if (before < 0 || before > FEW) return table.each(wanted, first, (start, end) => take(start, end, field, false));
    for (let start = 0; start < before; start++) {
      const key = starts[start];
      for (let end = first; end < wanted.length; end++) if (wanted[end] === key) take(start, end, field, false);
    }
  }

  private wanted(field: Field): Uint32Array {
    const lists = this.scratch;
    for (let lane = 0; lane < lists.length; lane++) this.keysOf(lane).wanted(field, lists[lane]);
    return this.packed((_, lane) => lists[lane]);
  }

  /** Ranges between landmarks only, one by one. */
  private searchLandmarks(fields: readonly Field[], orders: readonly boolean[]): Hit[] {
    const { bytes: width } = this.checksum;
    const known = new Set(this.landmarks.map((l) => l.offset));
    const near = (list: Int32Array, shift: number): number[] =>
      [...list.keys()].filter((k) => known.has(list[k]) || known.has(list[k] + shift));
    const hits: Hit[] = [];
    for (const start of near(this.starts, -width)) {
      for (const end of near(this.ends, width)) {
        const tried = [
          ...fields.flatMap((field) => FILLS.map((fill) => ({ field: { ...field, fill }, after: false }))),
          ...orders.map((bigEndian) => ({
            field: { offset: this.ends[end], bigEndian, fill: 'outside' as const },
            after: true,
          })),
        ];
        for (const one of tried) {
          const hit = { start, end, ...one };
          if (this.isRange(hit)) hits.push(hit);
        }
      }
    }
    return hits;
  }

  /** Keys of several images side by side in 32 bits. */
  private packed(of: (keys: RangeKeys, image: number) => Uint32Array): Uint32Array {
    const { bits } = this.keysOf(0);
    const first = of(this.keysOf(0), 0);
    if (this.lanes() === 1) return first;
    const packed = Uint32Array.from(first);
    for (let lane = 1; lane < this.lanes(); lane++) {
      const list = of(this.keysOf(lane), lane);
      for (let k = 0; k < list.length; k++) packed[k] |= list[k] << (bits * lane);
    }
    return packed;
  }

  /** A range that is one, with its field wholly inside or wholly outside as it is taken for. */
  private isRange({ start, end, field, after }: Hit): boolean {
    const [from, to] = [this.starts[start], this.ends[end]];
    const { bytes: width } = this.checksum;
    if (to - from < width) return false;
    if (field.offset + width > this.images[0].length) return false;
    if (after) return true;
    const inside = field.offset >= from && field.offset + width <= to;
    const outside = field.offset + width <= from || field.offset >= to;
    // Right after its range it is found as such.
    return field.fill === 'outside' ? outside && field.offset !== to : inside;
  }

  /** Whether the range holds its checksum in every image, by the keys. */
  private agrees({ start, end, field }: Hit): boolean {
    return this.images.every((_, image) => {
      const keys = this.keysOf(image);
      return keys.starts[start] === keys.wantedAt(end, field) && (!keys.holds || keys.holds(start, end, field));
    });
  }

  /** The keys of an image, made when first asked for: most images only confirm what the first ones found. */
  private keysOf(image: number): RangeKeys {
    return (this.made[image] ??= rangeKeys(this.checksum, this.images[image], this.starts, this.ends));
  }

  private told(hit: Hit, places: { readonly fixed: number; readonly after: number }): Candidate {
    const [from, to] = [this.starts[hit.start], this.ends[hit.end]];
    const { offset, bigEndian, fill } = hit.field;
    const width = 8 * this.checksum.bytes;
    const witnesses = this.witnesses(from, to, offset, bigEndian);
    const fieldsTried = hit.after ? places.after : places.after + places.fixed;
    const alike = this.algorithms.filter((a) => a.bytes === this.checksum.bytes).length;
    const ranges = this.rangesAsSimple(from, to);
    const twins = witnesses > 1 ? this.twins(from, to) : 0;
    const told: FoundChecksum = {
      algorithm: this.checksum.name,
      ...{ from, to },
      field: { offset, bytes: this.checksum.bytes, bigEndian, fill },
      ...(fill !== 'outside' && bringsToZero(this.checksum) && { anywhere: true as const }),
      expectedFalsePositives:
        (ranges * fieldsTried * alike) / 2 ** (width * witnesses) + (UNSEARCHED * twins) / 2 ** width,
    };
    const end = this.knowsPlaces() ? to : '';
    const { first, last } = this.differences.changed(from, to);
    const change = witnesses > 1 ? [told.algorithm, offset, fill, end, first, last].join(' ') : undefined;
    return { independent: told, change, ranges };
  }

  /** A register turns with every byte: where its range ends matters. Sums do not know where a byte stood. */
  private knowsPlaces(): boolean {
    return this.checksum.kind === 'crc' || this.checksum.kind === 'double';
  }

  /**
   * How many independent times the field agrees: once by its value, and once for each way in which it changes from unit to unit,
   * by the rank over GF(2). A field that is the same in all units says nothing the second time: a linear code over data and its own
   * checksum is constant too, whatever the data.
   */
  private witnesses(from: number, to: number, offset: number, bigEndian: boolean): number {
    const telling = this.differences.telling(from, to);
    if (telling <= 1) return telling;
    const values = this.images.map((bytes) => readField(bytes, offset, this.checksum.bytes, bigEndian));
    return 1 + Math.min(telling - 1, rankOverGf2(values.slice(1).map((v) => (v ^ values[0]) >>> 0)));
  }

  /**
   * How many ranges change with the units just as this one does: those that begin before its first change, and where the code does
   * not know places end behind its last. Their differences all agree where those of one do; only the value tells them apart.
   */
  private twins(from: number, to: number): number {
    const { earliest, first, last, latest } = this.differences.changed(from, to);
    const { rank } = this;
    const before = this.starts.filter((at) => at >= earliest && at <= first);
    const behind = this.ends.filter((at) => at >= last && at <= latest);
    // A prominent edge is one of few: those beside it are less likely to be meant.
    const among = (edges: Int32Array, at: number): number =>
      rank.has(at) ? edges.filter((e) => rank.has(e)).length : edges.length;
    const places = this.knowsPlaces() ? 1 : among(behind, to);
    return Math.max(0, among(before, from) * places - 1);
  }

  /** How many ranges have edges that are as prominent as these or more. */
  private rangesAsSimple(from: number, to: number): number {
    const { bytes: width } = this.checksum;
    const rankOf = (at: number): number | undefined =>
      this.rank.get(at) ?? this.rank.get(at - width) ?? this.rank.get(at + width);
    const [a, b] = [rankOf(from), rankOf(to)];
    // Each edge stands for itself and for the field's width beside it.
    const upTo = (rank: number): number => 2 * this.landmarks.filter((l) => l.rank <= rank).length;
    const [all, marks] = [this.starts.length, 2 * this.landmarks.length];
    if (a !== undefined && b !== undefined) return Math.max(1, upTo(Math.max(a, b)) ** 2 / 4);
    if (a !== undefined || b !== undefined) return 2 * marks * all;
    return (all * this.ends.length) / 2;
  }
}

/** With so few starts before a field they are compared one by one. */
const FEW = 8;
const bringsToZero = (checksum: Checksum): boolean =>
  checksum.kind === 'xor' || (checksum.kind === 'sum' && checksum.sum.toZero);

const FILLS: readonly Fill[] = ['outside', '00', 'ff'];

function holdsDirectly({ algorithm, from, to, field }: FoundChecksum, bytes: Uint8Array): boolean {
  const checksum = checksumByName(algorithm)!;
  const value = readField(bytes, field.offset, field.bytes, field.bigEndian);
  if (field.fill === 'outside') return checksum.of(bytes, from, to) === value;
  const copy = bytes.slice(from, to);
  copy.fill(field.fill === 'ff' ? 0xff : 0, field.offset - from, field.offset - from + field.bytes);
  return checksum.of(copy) === value;
}

function different(contents: readonly Uint8Array[]): Uint8Array[] {
  const kept: Uint8Array[] = [];
  for (const one of contents) if (!kept.some((k) => k.every((b, i) => b === one[i]))) kept.push(one);
  return kept;
}

/** So far a place inside a run is from its ends. */
const RUN_BESIDE = 16;

/**
 * Whether nothing but one byte lies before and behind a place: nothing begins or ends there, and a thousand such edges of
 * an erased stretch would only agree with each other.
 */
function isInsideRun(bytes: Uint8Array, at: number): boolean {
  if (at < RUN_BESIDE || at + RUN_BESIDE > bytes.length) return false;
  for (let i = at - RUN_BESIDE + 1; i < at + RUN_BESIDE; i++) if (bytes[i] !== bytes[at - RUN_BESIDE]) return false;
  return true;
}

/** Every block edge, each followed or preceded by a place a field's width beside it; ascending. */
function edges(length: number, alignment: number, beside: number): Int32Array {
  const out: number[] = [];
  const put = (at: number): void => {
    if (at >= 0 && at <= length && at !== out[out.length - 1]) out.push(at);
  };
  for (let at = 0; ; at += alignment) {
    const edge = Math.min(at, length);
    put(Math.min(edge, edge + beside));
    put(Math.max(edge, edge + beside));
    if (edge === length) return Int32Array.from(out);
  }
}

/** Of all that hold for one field the likeliest range: what chance explains least, then the longest. */
function simplest(found: readonly FoundChecksum[]): FoundChecksum[] {
  const byField = new Map<string, FoundChecksum>();
  for (const f of found) {
    const key = f.anywhere ? `${f.algorithm} ${f.from} ${f.to}` : `${f.field.offset} ${f.field.bytes}`;
    const other = byField.get(key);
    if (
      !other ||
      f.expectedFalsePositives < other.expectedFalsePositives ||
      (f.expectedFalsePositives === other.expectedFalsePositives && f.to - f.from > other.to - other.from)
    )
      byField.set(key, f);
  }
  const told = withoutGuessedFields([...byField.values()]);
  // A wide sum's field holds the narrow sums too: what lies in the field of a surer one says nothing new.
  const kept: FoundChecksum[] = [];
  for (const f of told.sort((a, b) => a.expectedFalsePositives - b.expectedFalsePositives))
    if (!kept.some((k) => isImplied(f, k))) kept.push(f);
  return kept;
}

/** A range that comes to zero with its first word for the field as well as with its last shows none: both guesses go. */
function withoutGuessedFields(found: readonly FoundChecksum[]): FoundChecksum[] {
  const guesses = new Set<FoundChecksum>();
  for (const { from, to, field, algorithm } of found.filter((f) => f.anywhere)) {
    const alike = found.filter((f) => f.algorithm === algorithm && f.field.fill === 'outside');
    const first = alike.find((f) => f.field.offset === from && f.from === from + field.bytes && f.to === to);
    const last = alike.find((f) => f.field.offset === f.to && f.from === from && f.to === to - field.bytes);
    if (first && last) guesses.add(first).add(last);
  }
  return found.filter((f) => !guesses.has(f));
}

const isImplied = (f: FoundChecksum, by: FoundChecksum): boolean =>
  (f.anywhere === true && f.from === by.from && f.to >= by.to && f.to <= by.to + by.field.bytes) ||
  (f.field.offset < by.field.offset + by.field.bytes && by.field.offset < f.field.offset + f.field.bytes);
