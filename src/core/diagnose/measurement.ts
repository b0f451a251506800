import {
  findPlace,
  groundNet,
  handiestPlace,
  isTwoTerminal,
  partByRef,
  portPin,
  railOfNet,
  type Board,
  type PlugSide,
  type ProbePlace,
} from '../board';
import { OUTSIDE_THINGS, outsideFaultId, type OutsideThing } from './faults';
import type { Stop } from '../usb';
import type { Shape } from './prediction';

/**
 * Something that can be measured, independent of where the probe is put. `ohm`, `drop` and `volts` are taken against
 * ground; `through` is taken across a part; `lift` takes a part off and repeats the resistance of a net. `pin` is a drop
 * at one contact of a port, `joint` one at a joint of any part; `shape` is how the meter behaves over a minute; `talk` is
 * where the conversation on the CC line stopped; `swap` tries a known-good charger, cable or
 * pack and asks whether it charges then.
 */
export type Measurement =
  | { readonly kind: 'usb'; readonly port: string; readonly side: PlugSide }
  | { readonly kind: 'shape'; readonly port: string; readonly side: PlugSide }
  | { readonly kind: 'talk'; readonly port: string; readonly side: PlugSide }
  | { readonly kind: 'tester'; readonly port: string }
  | { readonly kind: 'swap'; readonly port: string; readonly what: OutsideThing }
  | { readonly kind: 'look'; readonly ref: string }
  | { readonly kind: 'pin'; readonly port: string; readonly pin: string }
  | { readonly kind: 'joint'; readonly ref: string; readonly pin: string }
  | { readonly kind: 'drop'; readonly net: string }
  | { readonly kind: 'ohm'; readonly net: string }
  | { readonly kind: 'through'; readonly ref: string; readonly line: 'a' | 'b' | 'ab' | '' }
  | { readonly kind: 'volts'; readonly rail: string }
  | { readonly kind: 'works'; readonly fn: string }
  | { readonly kind: 'image'; readonly ref: string }
  | { readonly kind: 'lift'; readonly ref: string; readonly net: string };

/** What else was seen of a voltage: its ripple from peak to peak, or that it comes and goes. */
export interface Unsteady {
  readonly ripplePpV?: number;
  readonly swings?: boolean;
}

/** A figure, or what the meter said instead of one. `pass` and `fail` answer looks, functions and image checks. */
export type Value =
  | ({ readonly kind: 'figure'; readonly value: number } & Unsteady)
  | { readonly kind: 'pair'; readonly volts: number; readonly amps: number }
  | { readonly kind: 'open' }
  | { readonly kind: 'beep' }
  | { readonly kind: 'pass' }
  | { readonly kind: 'fail'; readonly seen?: readonly LookFinding[] }
  | { readonly kind: 'shape'; readonly shape: Shape }
  | { readonly kind: 'talk'; readonly stop: Stop };

/** The named answer of a value, where it is one. */
export const choiceOf = (value: Value): string | undefined =>
  value.kind === 'shape' ? value.shape : value.kind === 'talk' ? value.stop : undefined;

/** What makes a port doubtful to the eye. */
export const LOOK_FINDINGS = ['pins', 'tongue', 'corrosion', 'liquid', 'shell', 'debris'] as const;
export type LookFinding = (typeof LOOK_FINDINGS)[number];

export interface Reading {
  readonly measurement: Measurement;
  readonly value: Value;
  /** Parts that were off the board when it was taken. */
  readonly absent?: readonly string[];
  /** Parts that had been replaced before it was taken: their first faults no longer count. */
  readonly replaced?: readonly string[];
  /** What had been swapped for a known-good one. */
  readonly swapped?: readonly OutsideThing[];
}

/** Parts and faults that no longer count for a reading: replaced ones, and swapped ones by their fault id. */
export const mendedFor = (r: Pick<Reading, 'replaced' | 'swapped'>): string[] => [
  ...(r.replaced ?? []),
  ...(r.swapped ?? []).map(outsideFaultId),
];

export function measurementId(m: Measurement): string {
  switch (m.kind) {
    case 'usb':
    case 'shape':
    case 'talk':
      return `${m.kind}:${m.port}:${m.side}`;
    case 'tester':
      return `tester:${m.port}`;
    case 'swap':
      return `swap:${m.port}:${m.what}`;
    case 'pin':
      return `pin:${m.port}:${m.pin}`;
    case 'joint':
      return `joint:${m.ref}:${m.pin}`;
    case 'look':
    case 'image':
      return `${m.kind}:${m.ref}`;
    case 'drop':
    case 'ohm':
      return `${m.kind}:${m.net}`;
    case 'through':
      return `through:${m.ref}:${m.line}`;
    case 'volts':
      return `volts:${m.rail}`;
    case 'works':
      return `works:${m.fn}`;
    case 'lift':
      return `lift:${m.ref}:${m.net}`;
  }
}

/** Every test that the board file offers, lifts left out (they are proposed only when a short is suspected). */
export function boardMeasurements(board: Board): Measurement[] {
  const ground = groundNet(board);
  const nets = Object.keys(board.nets).filter((n) => n !== ground);
  return [
    ...board.ports.flatMap((port) =>
      port.sides.map((s): Measurement => ({ kind: 'usb', port: port.id, side: s.side })),
    ),
    ...board.ports.map((port): Measurement => ({ kind: 'look', ref: port.id })),
    ...board.ports.flatMap((port): Measurement[] => [
      ...port.sides.flatMap(({ side }): Measurement[] => [
        { kind: 'shape', port: port.id, side },
        { kind: 'talk', port: port.id, side },
      ]),
      { kind: 'tester', port: port.id },
      ...OUTSIDE_THINGS.map((what): Measurement => ({ kind: 'swap', port: port.id, what })),
      ...portTests(board, port.id),
    ]),
    ...board.functions.map((f): Measurement => ({ kind: 'works', fn: f.id })),
    ...board.rails.map((r): Measurement => ({ kind: 'volts', rail: r.id })),
    ...nets.filter((n) => isProbed(board, n)).map((net): Measurement => ({ kind: 'ohm', net })),
    ...board.parts.flatMap(throughTests),
    ...[...new Set(board.ports.map((p) => p.imagePart))].map((ref): Measurement => ({ kind: 'image', ref })),
  ];
}

/** One drop for each contact that can fail by itself: every signal contact, and one for each power net. */
function portTests(board: Board, portId: string): Measurement[] {
  const seen = new Set<string>();
  return Object.entries(partByRef(board, portId)!.pins).flatMap(([pin, net]): Measurement[] => {
    const { role, diodeV } = board.nets[net];
    if (diodeV === undefined || (role === 'power' && seen.has(net))) return [];
    seen.add(net);
    return [{ kind: 'pin', port: portId, pin }];
  });
}

const isProbed = (board: Board, net: string): boolean =>
  board.points.some((p) => p.net === net) ||
  board.parts.some((p) => p.kind === 'capacitor' && Object.values(p.pins).includes(net));

function throughTests(part: Board['parts'][number]): Measurement[] {
  if (part.kind === 'lineFilter')
    return (['a', 'b', 'ab'] as const).map((line) => ({ kind: 'through', ref: part.ref, line }));
  if (part.kind === 'fuse' || part.kind === 'coil' || part.kind === 'resistor' || part.kind === 'mosfet')
    return [{ kind: 'through', ref: part.ref, line: '' }];
  return [];
}

/** The two nets between which a `through` test measures. */
export function throughNets(board: Board, ref: string, line: 'a' | 'b' | 'ab' | ''): [string, string] {
  const { pins, kind } = partByRef(board, ref)!;
  if (kind === 'mosfet') return [pins['2'], pins['3']];
  if (line === 'b') return [pins['3'], pins['4']];
  if (line === 'ab') return [pins['1'], pins['3']];
  return [pins['1'], pins['2']];
}

/** Where the probe goes, nearest to `near` where there is a choice. */
export function placeOf(board: Board, m: Measurement, near?: { xMm: number; yMm: number }): ProbePlace | undefined {
  switch (m.kind) {
    case 'usb':
    case 'shape':
    case 'talk':
    case 'tester':
    case 'swap':
      return findPlace(board, m.port);
    case 'pin':
      return findPlace(board, `${m.port}.${m.pin}`);
    case 'joint':
      return findPlace(board, `${m.ref}.${m.pin}`);
    case 'look':
    case 'image':
    case 'through':
      return partPlace(board, m.ref);
    case 'drop':
      return portPin(board, m.net) ?? handiestPlace(board, m.net, near);
    case 'ohm':
      return handiestPlace(board, m.net, near);
    case 'volts':
      return handiestPlace(board, board.rails.find((r) => r.id === m.rail)!.net, near);
    case 'lift':
      return partPlace(board, m.ref);
    case 'works':
      return undefined;
  }
}

function partPlace(board: Board, ref: string): ProbePlace | undefined {
  const part = partByRef(board, ref);
  return part && { name: ref, net: '', xMm: part.xMm, yMm: part.yMm, side: part.side };
}

/** What the test is called, as an instruction: `TP7 to ground, resistance`. */
export function measurementTitle(board: Board, m: Measurement, near?: { xMm: number; yMm: number }): string {
  const place = placeOf(board, m, near)?.name ?? '';
  switch (m.kind) {
    case 'usb':
      return board.ports.length > 1
        ? `Meter at ${m.port}, plugged ${m.side} way`
        : `Meter in line, plugged ${m.side} way`;
    case 'shape':
      return `Watch the meter for a minute, ${portWords(board, m.port)}${m.side} way`;
    case 'talk':
      return `Capture the CC lines, ${portWords(board, m.port)}${m.side} way`;
    case 'tester':
      return `Quick tester at ${m.port}`;
    case 'swap':
      return `Try a known-good ${m.what} at ${m.port}`;
    case 'pin':
      return `${m.port} contact ${m.pin}, ${pinNet(board, m)}, diode mode`;
    case 'joint':
      return `${m.ref} joint ${m.pin}, ${jointNet(board, m)}, diode mode`;
    case 'look':
      return `Look into port ${m.ref} with magnification`;
    case 'drop':
      return `${m.net} at the port, diode mode`;
    case 'ohm':
      return `${place} to ground, resistance`;
    case 'through':
      return m.line === 'ab'
        ? `${m.ref}, line to line`
        : m.line
          ? `${m.ref}, through line ${m.line}`
          : isTwoTerminal(partByRef(board, m.ref)!)
            ? `Through ${m.ref}`
            : `Across ${m.ref}`;
    case 'volts':
      return `${place}, voltage of ${m.rail}`;
    case 'works':
      return `Try: ${board.functions.find((f) => f.id === m.fn)?.what ?? m.fn}`;
    case 'image':
      return `Read the image of ${m.ref} and check it`;
    case 'lift':
      return `Take ${m.ref} off, then ${m.net} to ground`;
  }
}

/** The entry that answers the test, up to its value, as typed in the entry line. */
export function entryStem(board: Board, m: Measurement, near?: { xMm: number; yMm: number }): string {
  const place = (placeOf(board, m, near)?.name ?? '').toLowerCase();
  switch (m.kind) {
    case 'usb':
      return board.ports.length > 1
        ? `usb ${m.port.toLowerCase()} ${m.side.toLowerCase()} `
        : `usb ${m.side.toLowerCase()} `;
    case 'shape':
      return `usb ${portStem(board, m.port)}${m.side.toLowerCase()} `;
    case 'talk':
      return `talk ${portStem(board, m.port)}${m.side.toLowerCase()} `;
    case 'tester':
      return `tester ${portStem(board, m.port)}`;
    case 'swap':
      return `swap ${portStem(board, m.port)}${m.what} `;
    case 'pin':
      return `${portStem(board, m.port)}${m.pin.toLowerCase()} `;
    case 'joint':
      return `joint ${m.ref.toLowerCase()} ${m.pin.toLowerCase()} `;
    case 'look':
      return `look ${m.ref.toLowerCase()} `;
    case 'drop':
      return `${m.net.toLowerCase()} drop `;
    case 'ohm':
      return `${place} ohm `;
    case 'through':
      return m.line ? `${m.ref.toLowerCase()} ${m.line} ` : `${m.ref.toLowerCase()} thru `;
    case 'volts':
      return `${place} volt `;
    case 'works':
      return `try ${m.fn} `;
    case 'image':
      return `check ${m.ref.toLowerCase()} `;
    case 'lift':
      return `off ${m.ref.toLowerCase()}`;
  }
}

const portWords = (board: Board, port: string): string => (board.ports.length > 1 ? `${port}, ` : '');
const portStem = (board: Board, port: string): string => (board.ports.length > 1 ? `${port.toLowerCase()} ` : '');

/** The net at a contact of a port, or what is known of it otherwise. */
export const pinNet = (board: Board, { port, pin }: { port: string; pin: string }): string =>
  jointNet(board, { ref: port, pin });

/** The net at a joint of a part. */
export const jointNet = (board: Board, { ref, pin }: { ref: string; pin: string }): string =>
  partByRef(board, ref)?.pins[pin] ?? 'not joined';

/** The rail whose voltage is meant when volts are read on a net. */
export const railMeasured = (board: Board, net: string): string | undefined => railOfNet(board, net)?.id;
