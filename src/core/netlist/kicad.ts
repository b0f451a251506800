import SParse from 's-expression';
import { fail, ok, type Result } from '../result';
import { all, isList, numberOf, one, textOf, turned, type Expr, type List } from './kicad-expression';
import type { ForeignBoard, ForeignPad, ForeignPart } from './foreign';
import { outlineOf } from './kicad-outline';

const MOST_PARTS = 20_000;
/** Newest and oldest layout of the format that is read, by the day in its head: suites 5 to 9. */
const OLDEST = 20171114;
const NEWEST = 20251231;

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
  const outline = outlineOf(root, footprints);
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
  for (const pad of all(footprint, 'pad').filter(isCopper)) {
    const read = padOf(pad, { x, y, turn });
    if (typeof read === 'string') return `${ref}: ${read}`;
    pads.push(read);
  }
  // A place that is left empty says so beside the value, as in other files.
  const isLeftOff = one(footprint, 'attr')?.some((word) => textOf(word) === 'dnp');
  const value = fieldOf(footprint, 'value');
  return {
    ref,
    value: isLeftOff ? `${value} DNP`.trim() : value,
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

/** Openings of paste and mask are drawn as pads too; holes count, whatever lies round them. */
function isCopper(pad: List): boolean {
  const layers = (one(pad, 'layers') ?? []).slice(1).map(textOf);
  return layers.some((l) => /\.Cu$/.test(l)) || /thru_hole/.test(textOf(pad[2]));
}

/** A pad's place turns with its footprint; its own angle is already that on the board. */
function padOf(pad: List, at: { x: number; y: number; turn: number }): ForeignPad | string {
  const place = one(pad, 'at') ?? [];
  const size = one(pad, 'size') ?? [];
  const [px, py, turn] = [numberOf(place[1]), numberOf(place[2]), place[3] === undefined ? 0 : numberOf(place[3])];
  const [w, h] = [numberOf(size[1]), numberOf(size[2])];
  if ([px, py, turn, w, h].some(Number.isNaN))
    return `expected place and size of pad ${textOf(pad[1])}; got other words.`;
  const [xMm, yMm] = turned([px, py], at);
  const layers = (one(pad, 'layers') ?? []).slice(1).map(textOf);
  const through = /thru_hole/.test(textOf(pad[2])) || layers.some((l) => l === '*.Cu' || l === 'F&B.Cu');
  const quarter = Math.abs(Math.round(turn / 90)) % 2 === 1;
  const net = one(pad, 'net');
  const netName = net ? textOf(net[2] ?? net[1]) : '';
  const drill = one(pad, 'drill');
  const hole = drill ? numberOf(drill.slice(1).find((e) => !Number.isNaN(numberOf(e)))) : NaN;
  return {
    pin: textOf(pad[1]),
    net: netName === '' || /^unconnected-\(/.test(netName) ? undefined : netName,
    xMm,
    yMm,
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
