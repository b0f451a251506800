import { seededRandom, type Random } from '../math';
import { BIT_S } from './line';
import { encodeRequest } from './requests';
import { encodePowerObject, fixedSupply, TYPE, type MessageHeader, type PowerObject } from './objects';
import { packetBytes } from './packet';
import { packetBits, type OrderedSet } from './symbols';

/** What can be wrong in a simulated conversation between a charger and a device. */
export const TROUBLES = ['none', 'noAnswer', 'noRd', 'refused', 'collapse', 'noisy', 'badImage'] as const;
export type ConversationTrouble = (typeof TROUBLES)[number];

export interface ConversationWish {
  readonly trouble: ConversationTrouble;
  readonly offers: readonly PowerObject[];
  /** Which offer the device asks for, from 1. */
  readonly want: number;
  readonly wantMa: number;
  /** Asks the cable for its identity first. */
  readonly cable?: boolean;
}

/** One packet that goes over the line at a time. */
export interface SentPacket {
  readonly atS: number;
  readonly set: OrderedSet;
  readonly bytes: Uint8Array;
  /** Flips one symbol, so that the check sum fails. */
  readonly corrupt?: boolean;
}

/** Offers of a 65 W charger of our own making. */
export const OFFERS_65W: readonly PowerObject[] = [
  fixedSupply(5000, 3000),
  fixedSupply(9000, 3000),
  fixedSupply(15000, 3000),
  fixedSupply(20000, 3250),
];

/** Timing between messages, s. Source: USB Power Delivery specification, tables of timers (middle of the ranges, from memory). */
const REPLY_S = 0.000_3;
const OFFER_AGAIN_S = 0.15;
const DECIDE_S = 0.004;
const SUPPLY_READY_S = 0.12;

const source = (type: number, id: number): MessageHeader => ({
  extended: false,
  count: 0,
  id,
  source: true,
  revision: 3,
  host: true,
  type,
});
const sink = (type: number, id: number): MessageHeader => ({ ...source(type, id), source: false, host: false });

/** The packets of a conversation in order. */
export function conversation(wish: ConversationWish): SentPacket[] {
  const sent: SentPacket[] = [];
  let atS = 0.02;
  const send = (
    header: MessageHeader,
    objects: readonly number[] = [],
    set: OrderedSet = 'SOP',
    corrupt = false,
  ): void => {
    sent.push({ atS, set, bytes: packetBytes(header, objects), corrupt });
    atS += packetSeconds(objects.length) + REPLY_S;
  };
  if (wish.trouble === 'noRd') return [];
  const offers = wish.offers.map(encodePowerObject);
  if (wish.cable) {
    send({ ...source(TYPE.vendorDefined, 0) }, [0xff008001], "SOP'");
    send({ ...sink(TYPE.goodCrc, 0), source: true }, [], "SOP'");
    atS += DECIDE_S;
  }
  if (wish.trouble === 'noAnswer') {
    for (let k = 0; k < 6; k++) {
      send(source(TYPE.sourceCapabilities, 0), offers);
      atS += OFFER_AGAIN_S;
    }
    return sent;
  }
  if (wish.trouble === 'noisy') {
    for (let k = 0; k < 5; k++) {
      send(source(TYPE.sourceCapabilities, 0), offers, 'SOP', true);
      atS += 0.001;
    }
    sent.push({ atS, set: 'Hard Reset', bytes: new Uint8Array(0) });
    return sent;
  }
  send(source(TYPE.sourceCapabilities, 0), offers);
  send(sink(TYPE.goodCrc, 0));
  atS += DECIDE_S;
  if (wish.trouble === 'badImage') {
    // The device acknowledges by hardware, but its program never asks for anything.
    for (let k = 1; k < 4; k++) {
      atS += OFFER_AGAIN_S;
      send(source(TYPE.sourceCapabilities, k), offers);
      send(sink(TYPE.goodCrc, k));
    }
    sent.push({ atS, set: 'Hard Reset', bytes: new Uint8Array(0) });
    return sent;
  }
  const request = encodeRequest({
    kind: 'current',
    object: wish.want,
    giveBack: false,
    mismatch: false,
    communications: false,
    noSuspend: false,
    unchunked: false,
    extendedRange: false,
    operatingMa: wish.wantMa,
    maximumMa: wish.wantMa,
  });
  send(sink(TYPE.request, 0), [request]);
  send(source(TYPE.goodCrc, 0));
  atS += DECIDE_S;
  if (wish.trouble === 'refused') {
    send(source(TYPE.reject, 1));
    send(sink(TYPE.goodCrc, 1));
    return sent;
  }
  send(source(TYPE.accept, 1));
  send(sink(TYPE.goodCrc, 1));
  atS += SUPPLY_READY_S;
  send(source(TYPE.psReady, 2));
  send(sink(TYPE.goodCrc, 2));
  if (wish.trouble === 'collapse') {
    atS += 0.2;
    sent.push({ atS, set: 'Hard Reset', bytes: new Uint8Array(0) });
    atS += 0.7;
    send(source(TYPE.sourceCapabilities, 0), offers);
    send(sink(TYPE.goodCrc, 0));
  }
  return sent;
}

const packetSeconds = (objects: number): number => (64 + 20 + (2 + 4 * objects + 4) * 10 + 5) * BIT_S;

/** How the line is sampled, and what disturbs it. */
export interface LineWish {
  readonly seed: number;
  /** Clock error of the senders as a share, for example 0.03. */
  readonly clockError?: number;
  /** Spread of each edge's time, s. */
  readonly jitterS?: number;
  /** Short pulses per second of quiet or busy line. */
  readonly glitchesPerS?: number;
}

/** Times of all edges on the talking CC line, s. The line idles low and a packet's first bit begins with an edge. */
export function edgesOf(packets: readonly SentPacket[], wish: LineWish): number[] {
  const random = seededRandom(wish.seed);
  const edges: number[] = [];
  for (const packet of packets) {
    const bits = packetBits(packet.set, packet.bytes);
    if (packet.corrupt) bits[64 + 20 + 12] ^= 1;
    pushBits(edges, bits, packet.atS, BIT_S * (1 + (wish.clockError ?? 0)), wish.jitterS ?? 0, random);
  }
  addGlitches(edges, wish, random);
  return edges.sort((a, b) => a - b);
}

function pushBits(
  edges: number[],
  bits: readonly number[],
  startS: number,
  bitS: number,
  jitterS: number,
  random: Random,
): void {
  const jitter = (): number => (random() - 0.5) * 2 * jitterS;
  bits.forEach((bit, i) => {
    edges.push(startS + i * bitS + jitter());
    if (bit) edges.push(startS + (i + 0.5) * bitS + jitter());
  });
  edges.push(startS + bits.length * bitS + jitter());
}

/** Pulses of 0.1 to 0.3 µs: far below half a bit. */
function addGlitches(edges: number[], wish: LineWish, random: Random): void {
  if (!wish.glitchesPerS || edges.length === 0) return;
  const end = edges[edges.length - 1] + 0.01;
  for (let i = 0; i < wish.glitchesPerS * end; i++) {
    const at = random() * end;
    edges.push(at, at + 1e-7 + 2e-7 * random());
  }
}

/** A capture runs on for a while after the last edge, s. */
const RUN_ON_S = 0.005;

const endS = (edges: readonly number[]): number => (edges[edges.length - 1] ?? 0) + RUN_ON_S;

/** Edges as a sampled two-channel capture in CSV: time in seconds, then the levels of both CC lines, one row per change. */
export function captureCsv(edges: readonly number[], talking: 'CC1' | 'CC2', sampleHz: number): string {
  const rows = ['Time [s],CC1,CC2'];
  const row = (atS: number, level: number): void => {
    rows.push(`${atS.toFixed(9)},${talking === 'CC1' ? level : 0},${talking === 'CC2' ? level : 0}`);
  };
  row(0, 0);
  let level = 0;
  let lastTick = -1;
  for (const edge of edges) {
    const tick = Math.ceil(edge * sampleHz);
    level ^= 1;
    if (tick === lastTick) {
      rows.pop();
      lastTick = -1;
      continue;
    }
    row(tick / sampleHz, level);
    lastTick = tick;
  }
  row(endS(edges), level);
  return `${rows.join('\n')}\n`;
}

/** The same as a value change dump (IEEE 1364), time scale 1 ns. */
export function captureVcd(edges: readonly number[], talking: 'CC1' | 'CC2', sampleHz: number): string {
  const lines = [
    '$timescale 1 ns $end',
    '$scope module cc $end',
    '$var wire 1 ! CC1 $end',
    '$var wire 1 " CC2 $end',
    '$upscope $end',
    '$enddefinitions $end',
    '#0',
    '0!',
    '0"',
  ];
  const mark = talking === 'CC1' ? '!' : '"';
  let level = 0;
  for (const edge of edges) {
    level ^= 1;
    lines.push(`#${Math.round((Math.ceil(edge * sampleHz) / sampleHz) * 1e9)}`, `${level}${mark}`);
  }
  lines.push(`#${Math.round(endS(edges) * 1e9)}`);
  return `${lines.join('\n')}\n`;
}
