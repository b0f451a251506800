import { EOP, NIBBLE_OF, ORDERED_SETS, symbolAt, type OrderedSet } from './symbols';
import { readPacket, type PdPacket } from './packet';

/** Bit time on the CC line, seconds. Source: USB Power Delivery specification, 300 kbit/s nominal (270 to 330). */
export const BIT_S = 1 / 300_000;
/** A level that holds longer than this ends a packet: no bit is longer than one bit time. */
const IDLE_S = 2.2 * BIT_S;
/** Pulses shorter than this are glitches: half a bit is 1.67 µs. */
const GLITCH_S = 0.16 * BIT_S;
/** Fewer edges than this are no packet: the preamble alone has 96. */
const LEAST_EDGES = 60;

/**
 * Decodes one CC line from the times of its edges, one after the other: biphase mark coding, symbols, ordered sets,
 * bytes, check sum. Memory is one packet's edges, whatever the length of the capture.
 */
export class LineDecoder {
  private edges: number[] = [];
  /** Edges seen in all; a line that talks has thousands. */
  edgeCount = 0;

  constructor(private readonly onPacket: (packet: PdPacket) => void) {}

  edge(atS: number): void {
    this.edgeCount++;
    const { edges } = this;
    const last = edges[edges.length - 1];
    if (last !== undefined && atS - last > IDLE_S) this.finish();
    else if (last !== undefined && atS - last < GLITCH_S) {
      // A pulse that short is no bit: both of its edges go.
      edges.pop();
      return;
    }
    this.edges.push(atS);
  }

  /** Reads what has come since the last idle time. Call it once more at the end. */
  finish(): void {
    const { edges } = this;
    this.edges = [];
    if (edges.length < LEAST_EDGES) return;
    const packet = decodeEdges(edges);
    if (packet) this.onPacket(packet);
  }
}

/** Bits of one burst: two short intervals are a one, a long interval is a zero. */
export function bitsOf(edges: readonly number[]): number[] {
  const half = halfBitS(edges);
  const bits: number[] = [];
  let i = 0;
  // The first long interval of the preamble tells where bits begin.
  while (i + 1 < edges.length && edges[i + 1] - edges[i] < 1.5 * half) i++;
  for (; i + 1 < edges.length; i++) {
    const interval = edges[i + 1] - edges[i];
    if (interval >= 1.5 * half) bits.push(0);
    else if (i + 2 < edges.length && edges[i + 2] - edges[i + 1] < 1.5 * half) {
      bits.push(1);
      i++;
    } else if (i + 2 >= edges.length)
      bits.push(1); // the last half of the packet has no edge after it
    else bits.push(1); // an edge is missing: the check sum will tell
  }
  return bits;
}

/** The sender's own half-bit time from its preamble: its clock may be 10 % off, and samples are coarse. */
function halfBitS(edges: readonly number[]): number {
  const n = Math.min(edges.length - 1, 90);
  let bits = 0;
  for (let i = 0; i < n; i++) bits += edges[i + 1] - edges[i] > 0.75 * BIT_S ? 1 : 0.5;
  return (edges[n] - edges[0]) / bits / 2;
}

const SETS = Object.entries(ORDERED_SETS) as [OrderedSet, readonly number[]][];
/** Where an ordered set may begin: after the preamble, give or take lost bits. */
const SEARCH_BITS = 90;

/** Finds the ordered set: three of its four symbols must be right (the specification allows one to be lost). */
function findSet(bits: readonly number[]): { set: OrderedSet; at: number } | undefined {
  let best: { set: OrderedSet; at: number; right: number } | undefined;
  for (let at = 0; at + 20 <= Math.min(bits.length, SEARCH_BITS); at++) {
    for (const [set, symbols] of SETS) {
      const right = symbols.filter((symbol, i) => symbolAt(bits, at + 5 * i) === symbol).length;
      if (right >= 3 && right > (best?.right ?? 0)) best = { set, at, right };
    }
    if (best?.right === 4) break;
  }
  return best;
}

/** Most bytes of a packet: header, seven objects, check sum; extended messages in chunks of 26 stay below. */
const MOST_BYTES = 2 + 28 + 4 + 2;

function decodeEdges(edges: readonly number[]): PdPacket | undefined {
  const bits = bitsOf(edges);
  const found = findSet(bits);
  if (!found) return { atS: edges[0], set: 'SOP', objects: [], intact: false, trouble: 'no ordered set in it' };
  if (found.set.endsWith('Reset')) return { atS: edges[0], set: found.set, objects: [], intact: true };
  const bytes: number[] = [];
  let at = found.at + 20;
  let ended = false;
  while (at + 5 <= bits.length && bytes.length < MOST_BYTES) {
    const low = symbolAt(bits, at);
    if (low === EOP) {
      ended = true;
      break;
    }
    if (at + 10 > bits.length) break;
    const [a, b] = [NIBBLE_OF[low], NIBBLE_OF[symbolAt(bits, at + 5)]];
    if (a === 255 || b === 255) break;
    bytes.push(a | (b << 4));
    at += 10;
  }
  return readPacket(edges[0], found.set, Uint8Array.from(bytes), ended);
}
