import type { PartKind } from '../board';
import { parseFigure } from '../units';
import type { TestRecord } from './ipc356';
import type { Placement } from './placement';

/** A board file in the making: what open files give, and what a person still has to say. */
export interface BoardDraft {
  /** In the shape of the board format; ports, rails and functions are empty until they are filled in. */
  readonly board: Readonly<Record<string, unknown>>;
  /** What is missing or guessed, in the order in which it is best filled in. */
  readonly missing: readonly string[];
}

/** What a reference designator's letters usually mean. Common practice for reference designators; U and J are guesses to confirm. */
const KIND_BY_LETTERS: Readonly<Record<string, PartKind>> = {
  C: 'capacitor',
  R: 'resistor',
  L: 'coil',
  F: 'fuse',
  FL: 'lineFilter',
  D: 'esdArray',
  Q: 'mosfet',
  Y: 'crystal',
  J: 'connector',
  U: 'converter',
};
const GUESSED: ReadonlySet<string> = new Set(['U', 'J', 'D']);
const MARGIN_MM = 2;

const lettersOf = (ref: string): string => /^[A-Z]+/.exec(ref)?.[0] ?? '';

/** A net name as the board format takes it: capitals, digits and underscores. */
export const cleanNet = (net: string): string => {
  const clean = net
    .toUpperCase()
    .replace(/\+/g, 'P')
    .replace(/-/g, 'N')
    .replace(/[^A-Z0-9_]/g, '_');
  return (/^[A-Z]/.test(clean) ? clean : `N${clean}`).slice(0, 24);
};

/**
 * Makes a board draft from a netlist and, where there is one, a placement list. Coordinates are turned to the board
 * format's: origin at the top left of the outline, y down.
 */
export function draftBoard(
  id: string,
  records: readonly TestRecord[],
  placements: readonly Placement[] = [],
): BoardDraft {
  const pads = records.filter((r) => r.ref !== '');
  const xs = records.map((r) => r.xMm);
  const ys = records.map((r) => r.yMm);
  const [x0, x1] = [least(xs) - MARGIN_MM, most(xs) + MARGIN_MM];
  const [y0, y1] = [least(ys) - MARGIN_MM, most(ys) + MARGIN_MM];
  const round = (mm: number): number => Number(mm.toFixed(3));
  const place = (p: { xMm: number; yMm: number }) => ({ xMm: round(p.xMm - x0), yMm: round(y1 - p.yMm) });
  const byRef = new Map<string, TestRecord[]>();
  for (const pad of pads) byRef.set(pad.ref, [...(byRef.get(pad.ref) ?? []), pad]);
  const placed = new Map(placements.map((p) => [p.ref, p]));
  const points: object[] = [];
  const parts: object[] = [];
  const packages: Record<string, unknown> = {};
  const guesses: string[] = [];
  const unvalued: string[] = [];
  for (const [ref, list] of byRef) {
    const letters = lettersOf(ref);
    if (letters === 'TP') {
      points.push({ id: ref, net: cleanNet(list[0].net), ...place(list[0]), side: sideOf(list[0]) });
      continue;
    }
    const known = placed.get(ref);
    const centre = known ?? { xMm: middle(list.map((p) => p.xMm)), yMm: middle(list.map((p) => p.yMm)) };
    const kind = KIND_BY_LETTERS[letters] ?? 'connector';
    const value = kind === 'resistor' ? parseFigure((known?.what ?? '').replace(/\s*(ohm|Ω|R)$/i, '')) : undefined;
    if (kind === 'resistor' && !value?.ok) unvalued.push(ref);
    if (GUESSED.has(letters) || KIND_BY_LETTERS[letters] === undefined) guesses.push(ref);
    packages[`P_${ref}`] = packageOf(list, centre);
    parts.push({
      ref,
      kind,
      what: known?.what || kind,
      ...(kind === 'resistor' && value?.ok ? { ohm: value.value } : {}),
      package: `P_${ref}`,
      ...place(centre),
      side: known?.side ?? sideOf(list[0]),
      pins: Object.fromEntries(list.map((p) => [p.pin, cleanNet(p.net)])),
    });
  }
  const nets = [...new Set(records.map((r) => cleanNet(r.net)))].sort();
  const ground = nets.find((n) => /^(GND|GROUND|VSS|AGND|DGND)$/.test(n));
  const board = {
    format: 'unisolda-board/1',
    id,
    device: '',
    name: '',
    revision: '',
    outlineMm: [
      [0, 0],
      [round(x1 - x0), 0],
      [round(x1 - x0), round(y1 - y0)],
      [0, round(y1 - y0)],
    ],
    packages,
    nets: Object.fromEntries(
      nets.map((n) => [n, { role: n === ground ? 'ground' : /^V|PWR|BUS/.test(n) ? 'power' : 'signal' }]),
    ),
    parts,
    points,
    ports: [],
    rails: [],
    functions: [],
  };
  return { board, missing: missingOf(board, ground, guesses, unvalued) };
}

/** What a person still has to say before the draft is a board file. */
function missingOf(
  board: { parts: readonly object[] },
  ground: string | undefined,
  guesses: readonly string[],
  unvalued: readonly string[],
): string[] {
  return [
    'Name the device, the board and its revision.',
    ...(ground ? [] : ['Name the ground net: none is called GND.']),
    'Give the outline, the thickness and the copper layers: the outline is only a box round the pads.',
    ...(guesses.length > 0 ? [`Confirm what these are: ${some(guesses)}.`] : []),
    ...(unvalued.length > 0 ? [`Give these resistors their values: ${some(unvalued)}.`] : []),
    'Say which connectors are ports, with their controller, image part, CC nets and design level.',
    'List the rails in the order in which they come up, with what feeds them.',
    'List the functions with the parts they use.',
    'Give heat limits to plastic parts and to parts with underfill.',
    ...(board.parts.length === 0 ? ['No part was found: the netlist holds vias and points only.'] : []),
  ];
}

const MOST_NAMED = 12;

/** Designators as they are listed in a sentence: the first dozen, and how many more. */
export const some = (refs: readonly string[]): string =>
  refs.length > MOST_NAMED
    ? `${refs.slice(0, MOST_NAMED).join(', ')} and ${refs.length - MOST_NAMED} more`
    : refs.join(', ');

const sideOf = (r: TestRecord): 'front' | 'back' => (r.side === 'back' ? 'back' : 'front');
const least = (list: readonly number[]): number => list.reduce((a, b) => Math.min(a, b), Infinity);
const most = (list: readonly number[]): number => list.reduce((a, b) => Math.max(a, b), -Infinity);
const middle = (list: readonly number[]): number => (least(list) + most(list)) / 2;

function packageOf(list: readonly TestRecord[], centre: { xMm: number; yMm: number }): unknown {
  const local = list.map((p) => ({
    pin: p.pin,
    xMm: Number((p.xMm - centre.xMm).toFixed(3)),
    yMm: Number((centre.yMm - p.yMm).toFixed(3)),
    wMm: Math.max(0.05, p.wMm),
    hMm: Math.max(0.05, p.hMm),
  }));
  const half = (axis: 'xMm' | 'yMm', size: 'wMm' | 'hMm'): number =>
    most(local.map((p) => Math.abs(p[axis]) + p[size] / 2));
  return {
    bodyMm: [2 * half('xMm', 'wMm'), 2 * half('yMm', 'hMm')].map((mm) => Number(mm.toFixed(3))),
    heightMm: 1,
    lands: { kind: 'list', pads: local },
  };
}
