import type { PartRef } from '../identities';
import { fail, failAll, ok, type Problem, type Result } from '../result';
import type { ForeignBoard, ForeignPart } from './foreign';

/** Where a part sits, as a placement list says; lengths as they stand in it. */
export interface Placement {
  readonly ref: PartRef;
  readonly x: number;
  readonly y: number;
  /** Counter-clockwise, as layout programs count. */
  readonly rotationDeg: number;
  readonly side: 'front' | 'back';
  /** What the list calls it: value, part or comment. */
  readonly what: string;
  readonly footprint: string;
}

export interface PlacementList {
  readonly placements: readonly Placement[];
  /** Millimetres to a unit of the list where it names one. */
  readonly unitMm?: number;
}

type Role = 'ref' | 'x' | 'y' | 'rotation' | 'side' | 'what' | 'footprint';
const NAMES: Readonly<Record<Role, RegExp>> = {
  ref: /^(?:ref(?:erence|des|s)?\b|ref[ _-]?des|designator|part ?ref|name$|comp(?:onent)?$)/i,
  x: /^(?:(?:mid|center|centre|pos(?:ition)?|ref|loc(?:ation)?)[-_ .]*x\b|x\b|pos ?x|x[-_ ]?(?:pos|coord|loc|mm|mil|inch))/i,
  y: /^(?:(?:mid|center|centre|pos(?:ition)?|ref|loc(?:ation)?)[-_ .]*y\b|y\b|pos ?y|y[-_ ]?(?:pos|coord|loc|mm|mil|inch))/i,
  rotation: /^(?:rot|angle|orient)/i,
  side: /^(?:side|layer|tb$|mirror|face)/i,
  what: /^(?:val(?:ue)?|comment|part(?! ?ref)|description|device|type)/i,
  footprint: /^(?:package|footprint|pattern|case)/i,
};
const NEEDED: readonly Role[] = ['ref', 'x', 'y'];
const MOST_PARTS = 20_000;
const UNIT_MM: Readonly<Record<string, number>> = {
  mm: 1,
  mil: 0.0254,
  mils: 0.0254,
  thou: 0.0254,
  in: 25.4,
  inch: 25.4,
  '"': 25.4,
};

/** Whether a row of cells is the header of a placement list. */
export const isPlacementHeader = (row: readonly string[]): boolean =>
  NEEDED.every((role) => row.some((cell) => NAMES[role].test(cell.trim())));

/** Reads the rows of a placement list from any layout program: columns by their names, lengths with or without a unit. */
export function placementsFrom(rows: readonly (readonly string[])[]): Result<PlacementList> {
  const head = rows.findIndex(isPlacementHeader);
  if (head < 0) return fail('Expected a header with the columns reference, X and Y; got none.');
  const columns = Object.fromEntries(
    (Object.keys(NAMES) as Role[]).map((role) => [role, rows[head].findIndex((cell) => NAMES[role].test(cell.trim()))]),
  ) as Record<Role, number>;
  const stated = /\b(mm|mils?|thou|inch|in)\b/i.exec(
    rows
      .slice(0, head + 1)
      .map((row) => row.join(' ').replace(/[_()[\]]/g, ' '))
      .join(' '),
  )?.[1];
  const headUnit = stated === undefined ? undefined : UNIT_MM[stated.toLowerCase()];
  // Where cells carry units of their own, all lengths are made millimetres.
  const ownUnits = rows.slice(head + 1).some((row) => length((row[columns.x] ?? '').trim())?.unitMm !== undefined);
  const inList = (l: Length): number => (ownUnits ? l.value * (l.unitMm ?? headUnit ?? 1) : l.value);
  const problems: Problem[] = [];
  const placements = rows.slice(head + 1).flatMap((row, i): Placement[] => {
    const cell = (role: Role): string => (columns[role] < 0 ? '' : (row[columns[role]] ?? '').trim());
    if (row.every((c) => c.trim() === '')) return [];
    const [x, y] = [length(cell('x')), length(cell('y'))];
    const rotation = Number(cell('rotation').replace(',', '.').replace(/°$/, ''));
    if (cell('ref') !== '' && x && y && !Number.isNaN(rotation)) {
      return [
        {
          ref: cell('ref'),
          x: inList(x),
          y: inList(y),
          rotationDeg: rotation,
          side: /^(?:b|bot|back|2|yes|true|m)/i.test(cell('side')) ? 'back' : 'front',
          what: cell('what'),
          footprint: cell('footprint'),
        },
      ];
    }
    problems.push({
      at: `line ${head + i + 2}`,
      message: `expected a reference, two lengths and an angle; got "${row.join(', ').slice(0, 60)}".`,
    });
    return [];
  });
  const once = new Map<PartRef, Placement>();
  for (const placement of placements) {
    const { ref, x, y, side } = placement;
    const other = once.get(ref);
    if (other && (other.x !== x || other.y !== y || other.side !== side))
      problems.push({
        message: `Expected each part once; got ${ref} at ${other.x}, ${other.y} and at ${x}, ${y}: a list of several boards is taken apart first.`,
      });
    once.set(ref, placement);
  }
  if (problems.length > 0) return failAll(problems.slice(0, 5));
  if (placements.length > MOST_PARTS) return fail(`Expected at most ${MOST_PARTS} parts; got ${placements.length}.`);
  if (placements.length === 0) return fail('Expected one part or more; got a header only.');
  return ok({ placements: [...once.values()], unitMm: ownUnits ? 1 : headUnit });
}

interface Length {
  readonly value: number;
  readonly unitMm?: number;
}

/** A length with or without its unit. */
function length(text: string): Length | undefined {
  const found = /^([-+]?\d+(?:[.,]\d+)?)\s*(mm|mils?|in|inch|")?$/i.exec(text);
  if (!found) return undefined;
  const unitMm = found[2] === undefined ? undefined : UNIT_MM[found[2].toLowerCase()];
  return { value: Number(found[1].replace(',', '.')), unitMm };
}

/** How a placement list lies on a netlist: its scale, origin and whether its x runs the other way on the back. */
export interface PlacementFit {
  readonly scaleMm: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly mirroredBack: boolean;
  /** Half of the parts lie nearer than this to the middle of their pads, mm. */
  readonly typicalOffMm: number;
  readonly matched: number;
}

/** The middle of a part's pads lies this near to its place in the list, for half of the parts, mm. Engineering estimate. */
const MOST_OFF_MM = 0.6;
const LEAST_MATCHED = 3;

const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

/** Finds scale and origin of a placement list by laying it over the pads; a sentence where none fits. */
export function fitPlacements(board: ForeignBoard, list: PlacementList): Result<PlacementFit> {
  const parts = new Map(board.parts.map((p) => [p.ref.toUpperCase(), p]));
  const pairs = list.placements.flatMap((placement) => {
    const part = parts.get(placement.ref.toUpperCase());
    return part && part.pads.length > 0 ? [{ placement, part }] : [];
  });
  if (pairs.length < LEAST_MATCHED)
    return fail(`Expected at least ${LEAST_MATCHED} parts of the list on the board; got ${pairs.length}.`);
  const scales = list.unitMm === undefined ? [1, 25.4, 0.0254] : [list.unitMm];
  const fits = scales.flatMap((scaleMm) =>
    [false, true].map((mirroredBack): PlacementFit => {
      const at = pairs.map(({ placement, part }) => ({
        xMm: part.xMm - scaleMm * (mirroredBack && placement.side === 'back' ? -placement.x : placement.x),
        yMm: part.yMm + scaleMm * placement.y,
      }));
      const [xMm, yMm] = [median(at.map((p) => p.xMm)), median(at.map((p) => p.yMm))];
      const typicalOffMm = median(at.map((p) => Math.hypot(p.xMm - xMm, p.yMm - yMm)));
      return { scaleMm, xMm, yMm, mirroredBack, typicalOffMm, matched: pairs.length };
    }),
  );
  const best = fits.reduce((a, b) => (b.typicalOffMm < a.typicalOffMm - 1e-9 ? b : a));
  return best.typicalOffMm <= MOST_OFF_MM
    ? ok(best)
    : fail(
        `Expected the list’s places on the netlist’s pads; at the best scale half of ${pairs.length} parts lie more than ${best.typicalOffMm.toFixed(1)} mm off.`,
      );
}

/** The board with places, turns and values of a list that fits it. */
export function withPlacements(board: ForeignBoard, list: PlacementList, fit: PlacementFit): ForeignBoard {
  const byRef = new Map(list.placements.map((p) => [p.ref.toUpperCase(), p]));
  return {
    ...board,
    parts: board.parts.map((part): ForeignPart => {
      const placed = byRef.get(part.ref.toUpperCase());
      if (!placed) return part;
      const x = fit.mirroredBack && placed.side === 'back' ? -placed.x : placed.x;
      const rotation = placed.side === 'back' ? placed.rotationDeg : -placed.rotationDeg;
      return {
        ...part,
        value: placed.what || part.value,
        footprint: placed.footprint || part.footprint,
        xMm: fit.xMm + fit.scaleMm * x,
        yMm: fit.yMm - fit.scaleMm * placed.y,
        rotationDeg: ((rotation % 360) + 360) % 360,
      };
    }),
  };
}
