import SParse from 's-expression';
import { fail, ok, type Result } from '../result';
import type { ForeignBoard, ForeignPad, ForeignPart } from './foreign';

/** An expression as the parser gives it: words are texts, quoted texts are text objects, lists are arrays. */
type Expr = string | Expr[];
type List = Expr[];

const MOST_PARTS = 20_000;
/** Newest and oldest layout of the format that is read, by the day in its head: suites 5 to 9. */
const OLDEST = 20171114;
const NEWEST = 20251231;

const isList = (e: Expr | undefined): e is List => Array.isArray(e);
const textOf = (e: Expr | undefined): string => (e === undefined || isList(e) ? '' : String(e));
const numberOf = (e: Expr | undefined): number => Number(textOf(e));
/** The lists of a list that begin with a word. */
const all = (list: List, head: string): List[] => list.filter((e): e is List => isList(e) && textOf(e[0]) === head);
const one = (list: List, head: string): List | undefined => all(list, head)[0];

/**
 * Reads a board of a general EDA suite in its open text form: outline, thickness, copper layers, footprints with every pad's
 * true place, nets and values. Source: the suite's published description of its file format, versions 5 to 9.
 */
export function parseKicad(text: string): Result<ForeignBoard> {
  const parsed: unknown = SParse(text.trim());
  if (parsed instanceof Error) return fail(`Expected a board as one expression in brackets; ${parsed.message}.`);
  const root = parsed as Expr;
  if (!isList(root) || textOf(root[0]) !== 'kicad_pcb')
    return fail('Expected a board that begins with (kicad_pcb; got another file.');
  const version = numberOf(one(root, 'version')?.[1]);
  if (!(version >= OLDEST))
    return fail(`Expected a board of version ${OLDEST} or newer; got "${textOf(one(root, 'version')?.[1])}".`);
  const footprints = [...all(root, 'footprint'), ...all(root, 'module')];
  if (footprints.length > MOST_PARTS)
    return fail(`Expected at most ${MOST_PARTS} footprints; got ${footprints.length}.`);
  const notes: string[] = [];
  if (version > NEWEST) notes.push(`The file is of a newer version, ${version}: what is unknown in it is left out.`);
  const parts: ForeignPart[] = [];
  let unnamed = 0;
  for (const footprint of footprints) {
    const part = partOf(footprint);
    if (typeof part === 'string') return fail(part);
    if (part.ref === '') unnamed++;
    else parts.push(part);
  }
  if (unnamed > 0) notes.push(`${unnamed} footprints without a designator are left out.`);
  if (parts.length === 0) return fail('Expected footprints with designators; got none.');
  const outline = outlineOf(root);
  if (!outline) notes.push('The edge of the board is not closed: a box round the pads is taken.');
  const copper = (one(root, 'layers') ?? []).filter((e): e is List => isList(e) && /\.Cu$/.test(textOf(e[1]))).length;
  const thickness = numberOf(one(one(root, 'general') ?? [], 'thickness')?.[1]);
  return ok({
    outlineMm: outline,
    thicknessMm: thickness > 0 ? thickness : undefined,
    copperLayers: copper > 0 ? copper : undefined,
    parts,
    loose: all(root, 'via').flatMap((via) => looseOf(root, via)),
    notes,
  });
}

function partOf(footprint: List): ForeignPart | string {
  const at = one(footprint, 'at') ?? [];
  const [x, y, turn] = [numberOf(at[1]), numberOf(at[2]), at[3] === undefined ? 0 : numberOf(at[3])];
  const name = textOf(footprint[1]);
  const ref = fieldOf(footprint, 'reference');
  if ([x, y, turn].some(Number.isNaN))
    return `Expected a place of three figures for ${ref || name}; got "${at.map(textOf).join(' ')}".`;
  const side = /^B\./.test(textOf(one(footprint, 'layer')?.[1])) ? 'back' : 'front';
  const pads: ForeignPad[] = [];
  for (const pad of all(footprint, 'pad')) {
    const read = padOf(pad, { x, y, turn });
    if (typeof read === 'string') return `${ref}: ${read}`;
    pads.push(read);
  }
  return {
    ref,
    value: fieldOf(footprint, 'value'),
    footprint: name.replace(/^.*:/, ''),
    xMm: x,
    yMm: y,
    // The suite counts counter-clockwise, the board format clockwise.
    rotationDeg: ((-turn % 360) + 360) % 360,
    side,
    pads,
  };
}

/** Reference or value: a property since version 8, a text before. */
function fieldOf(footprint: List, field: 'reference' | 'value'): string {
  const property = all(footprint, 'property').find((p) => textOf(p[1]).toLowerCase() === field);
  if (property) return textOf(property[2]);
  return textOf(all(footprint, 'fp_text').find((t) => textOf(t[1]) === field)?.[2]);
}

/** A pad's place turns with its footprint; its own angle is already that on the board. */
function padOf(pad: List, at: { x: number; y: number; turn: number }): ForeignPad | string {
  const place = one(pad, 'at') ?? [];
  const size = one(pad, 'size') ?? [];
  const [px, py, turn] = [numberOf(place[1]), numberOf(place[2]), place[3] === undefined ? 0 : numberOf(place[3])];
  const [w, h] = [numberOf(size[1]), numberOf(size[2])];
  if ([px, py, turn, w, h].some(Number.isNaN))
    return `expected place and size of pad ${textOf(pad[1])}; got other words.`;
  const angle = (at.turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const layers = (one(pad, 'layers') ?? []).slice(1).map(textOf);
  const through = /thru_hole/.test(textOf(pad[2])) || layers.includes('*.Cu');
  const quarter = Math.abs(Math.round(turn / 90)) % 2 === 1;
  const net = one(pad, 'net');
  const netName = net ? textOf(net[2] ?? net[1]) : '';
  const drill = one(pad, 'drill');
  const hole = drill ? numberOf(drill.slice(1).find((e) => !Number.isNaN(numberOf(e)))) : NaN;
  return {
    pin: textOf(pad[1]),
    net: netName === '' || /^unconnected-\(/.test(netName) ? undefined : netName,
    xMm: at.x + px * cos + py * sin,
    yMm: at.y - px * sin + py * cos,
    wMm: quarter ? h : w,
    hMm: quarter ? w : h,
    side: through ? 'both' : layers.some((l) => /^B\.Cu$/.test(l)) ? 'back' : 'front',
    holeMm: hole > 0 ? hole : undefined,
  };
}

function looseOf(root: List, via: List): ForeignPad[] {
  const at = one(via, 'at') ?? [];
  const size = numberOf(one(via, 'size')?.[1]);
  const code = textOf(one(via, 'net')?.[1]);
  const net = netNames(root).get(code) ?? (Number.isNaN(Number(code)) ? code : undefined);
  const [x, y] = [numberOf(at[1]), numberOf(at[2])];
  if ([x, y, size].some(Number.isNaN)) return [];
  return [{ pin: '', net: net || undefined, xMm: x, yMm: y, wMm: size, hMm: size, side: 'both' }];
}

const names = new WeakMap<List, Map<string, string>>();
/** Net names by their numbers, made once for a board. */
function netNames(root: List): Map<string, string> {
  const kept = names.get(root) ?? new Map(all(root, 'net').map((net) => [textOf(net[1]), textOf(net[2])]));
  names.set(root, kept);
  return kept;
}

type Point = readonly [number, number];
const pointOf = (list: List | undefined): Point => [numberOf(list?.[1]), numberOf(list?.[2])];
/** Ends of lines of the edge that lie this near to each other are one, mm. Engineering estimate: layout programs round to a nanometre. */
const SAME_MM = 0.02;
const near = (a: Point, b: Point): boolean => Math.hypot(a[0] - b[0], a[1] - b[1]) < SAME_MM;
const ARC_STEPS = 12;
const CIRCLE_STEPS = 48;

/** The edge of the board as one closed outline: the longest of those that its lines and arcs make. */
function outlineOf(root: List): Point[] | undefined {
  const onEdge = (list: List): boolean => textOf(one(list, 'layer')?.[1]) === 'Edge.Cuts';
  const runs: Point[][] = [
    ...all(root, 'gr_line')
      .filter(onEdge)
      .map((l) => [pointOf(one(l, 'start')), pointOf(one(l, 'end'))]),
    ...all(root, 'gr_arc').filter(onEdge).map(arcOf),
  ];
  const closed: Point[][] = [
    ...all(root, 'gr_rect')
      .filter(onEdge)
      .map((r): Point[] => {
        const [a, b] = [pointOf(one(r, 'start')), pointOf(one(r, 'end'))];
        return [a, [b[0], a[1]], b, [a[0], b[1]]];
      }),
    ...all(root, 'gr_circle')
      .filter(onEdge)
      .map((c): Point[] => {
        const [centre, end] = [pointOf(one(c, 'center')), pointOf(one(c, 'end'))];
        const radius = Math.hypot(end[0] - centre[0], end[1] - centre[1]);
        return Array.from({ length: CIRCLE_STEPS }, (_, i) => {
          const angle = (2 * Math.PI * i) / CIRCLE_STEPS;
          return [centre[0] + radius * Math.cos(angle), centre[1] + radius * Math.sin(angle)];
        });
      }),
    ...all(root, 'gr_poly')
      .filter(onEdge)
      .map((p): Point[] => all(one(p, 'pts') ?? [], 'xy').map(pointOf)),
  ];
  for (let rest = runs.filter((run) => run.every(([x, y]) => !Number.isNaN(x + y))); rest.length > 0;) {
    let chain = rest[0];
    rest = rest.slice(1);
    for (;;) {
      const end = chain[chain.length - 1];
      const next = rest.findIndex((run) => near(run[0], end) || near(run[run.length - 1], end));
      if (next < 0) break;
      const run = near(rest[next][0], end) ? rest[next] : [...rest[next]].reverse();
      chain = [...chain, ...run.slice(1)];
      rest = rest.filter((_, i) => i !== next);
    }
    if (chain.length > 3 && near(chain[0], chain[chain.length - 1])) closed.push(chain.slice(0, -1));
  }
  const box = (points: readonly Point[]): number => {
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    return (Math.max(...xs) - Math.min(...xs)) * (Math.max(...ys) - Math.min(...ys));
  };
  return closed.filter((c) => c.length >= 3).sort((a, b) => box(b) - box(a))[0];
}

/** An arc by start, middle and end; in older files by centre, start and angle. */
function arcOf(arc: List): Point[] {
  const [start, mid, end] = ['start', 'mid', 'end'].map((w) => pointOf(one(arc, w)));
  if (!Number.isNaN(mid[0])) return throughThree(start, mid, end);
  // The older form: "start" is the centre, "end" the first point, and the angle runs clockwise.
  const sweep = (numberOf(one(arc, 'angle')?.[1]) * Math.PI) / 180;
  const radius = Math.hypot(end[0] - start[0], end[1] - start[1]);
  const from = Math.atan2(end[1] - start[1], end[0] - start[0]);
  return Array.from({ length: ARC_STEPS + 1 }, (_, i) => {
    const angle = from + (sweep * i) / ARC_STEPS;
    return [start[0] + radius * Math.cos(angle), start[1] + radius * Math.sin(angle)];
  });
}

function throughThree(a: Point, b: Point, c: Point): Point[] {
  const d = 2 * (a[0] * (b[1] - c[1]) + b[0] * (c[1] - a[1]) + c[0] * (a[1] - b[1]));
  if (Math.abs(d) < 1e-9) return [a, c];
  const square = (p: Point): number => p[0] ** 2 + p[1] ** 2;
  const x = (square(a) * (b[1] - c[1]) + square(b) * (c[1] - a[1]) + square(c) * (a[1] - b[1])) / d;
  const y = (square(a) * (c[0] - b[0]) + square(b) * (a[0] - c[0]) + square(c) * (b[0] - a[0])) / d;
  const angleOf = (p: Point): number => Math.atan2(p[1] - y, p[0] - x);
  const from = angleOf(a);
  const turn = (p: Point): number => (angleOf(p) - from + 4 * Math.PI) % (2 * Math.PI);
  const sweep = turn(b) < turn(c) ? turn(c) : turn(c) - 2 * Math.PI;
  const radius = Math.hypot(a[0] - x, a[1] - y);
  return Array.from({ length: ARC_STEPS + 1 }, (_, i) => {
    const angle = from + (sweep * i) / ARC_STEPS;
    return [x + radius * Math.cos(angle), y + radius * Math.sin(angle)];
  });
}
