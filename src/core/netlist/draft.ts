import type { PartRef } from '../identities';
import type { Inference } from './infer';
import { nearOf, type Near } from './near';
import { netsOf, type ForeignBoard, type ForeignPad, type ForeignPart } from './foreign';
import { isNotFitted, valueOf } from './value';

/** A board file in the making: what open files give and what was inferred of it; a person says the rest. */
export interface BoardDraft {
  /** In the shape of the board format; ports, rails and functions are empty until they are filled in. */
  readonly board: Readonly<Record<string, unknown>>;
  /** What is missing or guessed, in the order in which it is best filled in. */
  readonly missing: readonly string[];
  readonly inference: Omit<Inference, 'roleOf'>;
  /** What of a large board is asked about; undefined where all of it is. */
  readonly near?: Near;
  /** Parts whose kind is only a guess or whose value is not known, of those that are asked about. */
  readonly asked: readonly PartRef[];
  /** Resistors further off whose value is assumed. */
  readonly assumed: readonly PartRef[];
}

const MARGIN_MM = 2;
/** Height of a body where nothing says it, mm. Engineering estimate. */
const HEIGHT_MM = 1;
const LEAST_PAD_MM = 0.05;
const isPoint = (part: ForeignPart): boolean => /^TP/i.test(part.ref) && part.pads.length <= 2;

const round = (mm: number): number => Number(mm.toFixed(4));

/**
 * Makes a board draft from what a file gives and what was inferred of it. Coordinates are moved to the board format's origin,
 * the top left of the outline; every pad stays where the file has it.
 */
export function draftBoard(id: string, foreign: ForeignBoard, { roleOf, ...inference }: Inference): BoardDraft {
  const near = nearOf(foreign, { roleOf, ...inference });
  const matters = (ref: PartRef): boolean => !near || near.parts.has(ref);
  const outline = foreign.outlineMm ?? boxRound(foreign);
  const x0 = outline.reduce((m, p) => Math.min(m, p[0]), Infinity);
  const y0 = outline.reduce((m, p) => Math.min(m, p[1]), Infinity);
  const place = (p: { xMm: number; yMm: number }) => ({ xMm: round(p.xMm - x0), yMm: round(p.yMm - y0) });
  const packages: Record<string, unknown> = {};
  const packageNames = new Map<string, string>();
  const points: object[] = [];
  const parts: object[] = [];
  const unvalued: string[] = [];
  const guesses: string[] = [];
  const assumed: string[] = [];
  for (const part of foreign.parts) {
    const wired = part.pads.filter((p) => p.pin !== '');
    if (isPoint(part)) {
      const [pad] = wired.filter((p) => p.net !== undefined);
      if (pad) points.push({ id: part.ref, net: pad.net, ...place(pad), side: pad.side === 'back' ? 'back' : 'front' });
      continue;
    }
    if (wired.length === 0) continue;
    const kind = inference.kinds.get(part.ref)!;
    const known = kind.kind === 'resistor' ? valueOf(part.value) : undefined;
    const valueless = kind.kind === 'resistor' && !(known !== undefined && known >= 0);
    const ohm = valueless ? (matters(part.ref) ? undefined : FAR_OHM) : known;
    if (valueless) (matters(part.ref) ? unvalued : assumed).push(part.ref);
    if (!kind.sure && matters(part.ref)) guesses.push(part.ref);
    const package_ = packageOf(part, wired);
    const key = JSON.stringify(package_);
    const name = packageNames.get(key) ?? `P_${part.ref}`;
    if (!packageNames.has(key)) {
      packageNames.set(key, name);
      packages[name] = package_;
    }
    parts.push({
      ref: part.ref,
      kind: kind.kind,
      what: part.value || part.footprint || kind.kind,
      ...(ohm !== undefined && { ohm: Math.max(ohm, LEAST_OHM) }),
      ...(valueless && ohm !== undefined && { assumed: ['value'] }),
      ...(isNotFitted(`${part.value} ${part.ref}`) && { optional: true }),
      package: name,
      ...place(part),
      rotationDeg: part.rotationDeg,
      side: part.side,
      pins: Object.fromEntries(wired.flatMap((p) => (p.net === undefined ? [] : [[p.pin, p.net]]))),
    });
  }
  const board = {
    format: 'unisolda-board/2',
    id,
    device: '',
    name: '',
    revision: '',
    outlineMm: outline.map(([x, y]) => [round(x - x0), round(y - y0)]),
    ...(foreign.thicknessMm !== undefined && { thicknessMm: foreign.thicknessMm }),
    ...(foreign.copperLayers !== undefined && { copperLayers: foreign.copperLayers }),
    packages,
    nets: Object.fromEntries([...netsOf(foreign).keys()].sort().map((net) => [net, { role: roleOf(net) }])),
    parts,
    points,
    ports: [],
    rails: [],
    functions: [],
  };
  const missing = [
    ...missingOf(foreign, inference, parts, guesses, unvalued),
    ...(near ? beyondWords(near, assumed) : []),
  ];
  return { board, missing, inference, near, asked: [...new Set([...guesses, ...unvalued])], assumed };
}

/** What is taken of a resistor that is far from the ports and has no value: the middle of usual pull-ups. Engineering estimate. */
const FAR_OHM = 10_000;

/** What nobody is asked of a large board, in sentences. */
const beyondWords = ({ railsBeyond }: Near, assumed: readonly PartRef[]): string[] => [
  ...(railsBeyond.length > 0
    ? [
        `${railsBeyond.length} supplies further off count as loads: ${firstFew(railsBeyond.map((r) => r.net))}. Add one as a rail where it matters.`,
      ]
    : []),
  ...(assumed.length > 0
    ? [
        `${assumed.length} resistors further off have no value: ${FAR_OHM / 1000} kΩ is assumed of each. A bill of material gives them.`,
      ]
    : []),
];

/** A link of no ohms is a resistor of a few milliohms. Engineering estimate. */
const LEAST_OHM = 0.01;

/** A box round all pads, with a margin. */
function boxRound({ parts, loose }: ForeignBoard): [number, number][] {
  const pads = [...parts.flatMap((p) => p.pads), ...loose];
  const [xs, ys] = [pads.map((p) => p.xMm), pads.map((p) => p.yMm)];
  const low = (list: readonly number[]): number => list.reduce((a, b) => Math.min(a, b), Infinity) - MARGIN_MM;
  const high = (list: readonly number[]): number => list.reduce((a, b) => Math.max(a, b), -Infinity) + MARGIN_MM;
  const [x0, x1, y0, y1] = [low(xs), high(xs), low(ys), high(ys)];
  return [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
}

/** What a person still has to say before the draft is a board file. */
function missingOf(
  foreign: ForeignBoard,
  inference: BoardDraft['inference'],
  parts: readonly object[],
  guesses: readonly string[],
  unvalued: readonly string[],
): string[] {
  const lacking = [
    ...(foreign.outlineMm ? [] : ['the outline (it is only a box round the pads)']),
    ...(foreign.thicknessMm === undefined ? ['the thickness'] : []),
    ...(foreign.copperLayers === undefined ? ['the copper layers'] : []),
  ];
  return [
    'Name the device, the board and its revision.',
    ...(inference.ground === undefined ? ['Name the ground net: none could be told.'] : []),
    ...(lacking.length > 0 ? [`Give ${lacking.join(', ')}.`] : []),
    ...(guesses.length > 0 ? [`Confirm what these are: ${firstFew(guesses)}.`] : []),
    ...(unvalued.length > 0 ? [`Give these resistors their values: ${firstFew(unvalued)}.`] : []),
    ...(inference.ports.length === 0
      ? ['Say which connectors are ports, with their controller, CC nets and design level.']
      : ['Give the port’s design level and its healthy current.']),
    'Confirm the rails, in the order in which they come up, with what feeds them.',
    'List the functions with the parts they use.',
    'Give heat limits to plastic parts and to parts with underfill.',
    ...(parts.length === 0 ? ['No part was found: the file holds vias and points only.'] : []),
  ];
}

const MOST_NAMED = 12;

/** Designators as they are listed in a sentence: the first dozen, and how many more. */
export const firstFew = (refs: readonly string[]): string =>
  refs.length > MOST_NAMED
    ? `${refs.slice(0, MOST_NAMED).join(', ')} and ${refs.length - MOST_NAMED} more`
    : refs.join(', ');

/** The pads in the part's own frame: what the board format turns, mirrors and moves back to where they were. */
function packageOf(part: ForeignPart, pads: readonly ForeignPad[]): unknown {
  const angle = (-part.rotationDeg * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const quarter = Math.abs(Math.round(part.rotationDeg / 90)) % 2 === 1;
  const local = pads.map((p) => {
    const [dx, dy] = [p.xMm - part.xMm, p.yMm - part.yMm];
    const x = dx * cos - dy * sin;
    return {
      pin: p.pin,
      xMm: round(part.side === 'back' ? -x : x),
      yMm: round(dx * sin + dy * cos),
      wMm: round(Math.max(LEAST_PAD_MM, quarter ? p.hMm : p.wMm)),
      hMm: round(Math.max(LEAST_PAD_MM, quarter ? p.wMm : p.hMm)),
    };
  });
  const half = (axis: 'xMm' | 'yMm', size: 'wMm' | 'hMm'): number =>
    local.reduce((m, p) => Math.max(m, Math.abs(p[axis]) + p[size] / 2), 0);
  return {
    bodyMm: [round(2 * half('xMm', 'wMm')), round(2 * half('yMm', 'hMm'))],
    heightMm: HEIGHT_MM,
    lands: { kind: 'list', pads: local },
  };
}
