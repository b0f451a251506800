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

/** How far the device must be opened for a test. */
export type Access = 'closed' | 'open' | 'out';

/**
 * Something that can be measured, independent of where the probe is put. `ohm`, `drop` and `volts` are taken against
 * ground; `through` is taken across a part; `lift` takes a part off and repeats the resistance of a net.
 */
export type Measurement =
  | { readonly kind: 'usb'; readonly port: string; readonly side: PlugSide }
  | { readonly kind: 'look'; readonly ref: string }
  | { readonly kind: 'drop'; readonly net: string }
  | { readonly kind: 'ohm'; readonly net: string }
  | { readonly kind: 'through'; readonly ref: string; readonly line: 'a' | 'b' | 'ab' | '' }
  | { readonly kind: 'volts'; readonly rail: string }
  | { readonly kind: 'works'; readonly fn: string }
  | { readonly kind: 'image'; readonly ref: string }
  | { readonly kind: 'lift'; readonly ref: string; readonly net: string };

/** A figure, or what the meter said instead of one. `pass` and `fail` answer looks, functions and image checks. */
export type Value =
  | { readonly kind: 'figure'; readonly value: number }
  | { readonly kind: 'pair'; readonly volts: number; readonly amps: number }
  | { readonly kind: 'open' }
  | { readonly kind: 'beep' }
  | { readonly kind: 'pass' }
  | { readonly kind: 'fail' };

export interface Reading {
  readonly measurement: Measurement;
  readonly value: Value;
  /** Parts that were off the board when it was taken. */
  readonly absent?: readonly string[];
  /** Parts that had been replaced before it was taken: their first faults no longer count. */
  readonly replaced?: readonly string[];
}

export function measurementId(m: Measurement): string {
  switch (m.kind) {
    case 'usb':
      return `usb:${m.port}:${m.side}`;
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

/** Minutes at the bench per test. Engineering estimates; the interface shows them. */
const MINUTES = { usb: 0.5, look: 1, drop: 0.3, ohm: 0.3, through: 0.3, volts: 0.7, image: 12 } as const;

/** Minutes to get from closed to open, and from open to board out. Engineering estimates. */
const OPEN_MINUTES: Record<Access, number> = { closed: 0, open: 6, out: 14 };

/** Minutes to take a part off or to replace it. Engineering estimates, by kind of part. */
export function workMinutes(board: Board, ref: string): number {
  const part = partByRef(board, ref);
  switch (part?.kind) {
    case 'capacitor':
    case 'resistor':
    case 'esdArray':
    case 'clampDiode':
      return 3;
    case 'fuse':
    case 'lineFilter':
    case 'crystal':
      return 5;
    case 'coil':
    case 'mosfet':
    case 'flash':
      return 8;
    case 'connector':
    case 'batteryConnector':
      return 25;
    case 'processor':
      return 45;
    case 'sensorHub':
      return 20;
    default:
      return 14;
  }
}

export function accessFor(m: Measurement): Access {
  if (m.kind === 'usb' || m.kind === 'look' || m.kind === 'drop' || m.kind === 'works') return 'closed';
  return m.kind === 'volts' ? 'open' : 'out';
}

/** Minutes for one test from the present access state, opening included. */
export function testMinutes(board: Board, m: Measurement, access: Access): number {
  const opening = Math.max(0, OPEN_MINUTES[accessFor(m)] - OPEN_MINUTES[access]);
  return opening + ownMinutes(board, m);
}

function ownMinutes(board: Board, m: Measurement): number {
  if (m.kind === 'works') return board.functions.find((f) => f.id === m.fn)?.minutes ?? 2;
  if (m.kind === 'lift') return workMinutes(board, m.ref) + MINUTES.ohm;
  return MINUTES[m.kind];
}

/** Every test that the board file offers, lifts left out (they are proposed only when a short is suspected). */
export function boardMeasurements(board: Board): Measurement[] {
  const ground = groundNet(board);
  const nets = Object.keys(board.nets).filter((n) => n !== ground);
  const portNets = new Set(board.ports.flatMap((port) => Object.values(partByRef(board, port.id)!.pins)));
  return [
    ...board.ports.flatMap((port) =>
      port.sides.map((s): Measurement => ({ kind: 'usb', port: port.id, side: s.side })),
    ),
    ...board.ports.map((port): Measurement => ({ kind: 'look', ref: port.id })),
    ...nets
      .filter((n) => portNets.has(n) && board.nets[n].diodeV !== undefined)
      .map((net): Measurement => ({ kind: 'drop', net })),
    ...board.functions.map((f): Measurement => ({ kind: 'works', fn: f.id })),
    ...board.rails.map((r): Measurement => ({ kind: 'volts', rail: r.id })),
    ...nets.filter((n) => isProbed(board, n)).map((net): Measurement => ({ kind: 'ohm', net })),
    ...board.parts.flatMap(throughTests),
    ...[...new Set(board.ports.map((p) => p.imagePart))].map((ref): Measurement => ({ kind: 'image', ref })),
  ];
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
      return findPlace(board, m.port);
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

/** The rail whose voltage is meant when volts are read on a net. */
export const railMeasured = (board: Board, net: string): string | undefined => railOfNet(board, net)?.id;
