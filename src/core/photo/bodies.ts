import { Mask, fromMask, type Roi } from 'image-js';
import type { PartPackage } from '../board';
import { foregroundOf, type Foreground } from './background';
import type { Pixels } from './straighten';

/** A package that may be seen. */
export interface PatternChoice {
  readonly name: string;
  readonly package: PartPackage;
}

/** Something on the board that looks like a part. */
export interface SeenBody {
  readonly xMm: number;
  readonly yMm: number;
  /** 0 or 90: as the package is turned, up to half a turn. */
  readonly rotationDeg: number;
  /** Body as seen, along the board's own axes. */
  readonly sizeMm: readonly [width: number, height: number];
  /** The package that fits best. */
  readonly pattern: string;
}

/** Strokes narrower than this are print, not parts, mm. Common practice: print is 0.1 to 0.18 mm. */
const PRINT_MM = 0.2;
/** Smaller than this nothing is a part, mm². */
const LEAST_MM2 = 0.15;
/** A part fills its rectangle at least so far. */
const LEAST_FILL = 0.62;
/** Rows and columns of a body are filled at least so far; legs and fillets beside it are not. */
const BODY_FILL = 0.78;
/** Sizes of a package and of what is seen agree within so much, as a share, with a floor in mm. Engineering estimates. */
const SIZE_SHARE = 0.09;
const SIZE_FLOOR_MM = 0.14;

/**
 * Finds what looks like parts in a straightened photograph, with the package that fits each best by size, by its legs and by
 * what its ends and middle look like. Outlines by a general vision library; what is seen is a proposal that a person accepts.
 * @param pxPerMm scale of the photograph; twelve or more, so that small chips are some pixels wide.
 */
export function seenBodies(photo: Pixels, pxPerMm: number, choices: readonly PatternChoice[]): SeenBody[] {
  const ground = foregroundOf(photo, pxPerMm);
  const { width, height } = ground;
  const mask = new Mask(width, height, {
    data: opened(ground.mask, width, height, Math.max(1, Math.round((PRINT_MM * pxPerMm) / 2))),
  });
  const seen = fromMask(mask)
    .getRois({ kind: 'white' })
    .filter((roi) => roi.surface >= LEAST_MM2 * pxPerMm ** 2)
    .map((roi) => shapeOf(ground, roi, pxPerMm))
    .filter((shape) => shape.fill >= LEAST_FILL);
  return seen.flatMap((shape) => {
    const best = bestPattern(ground, shape, pxPerMm, choices);
    if (!best) return [];
    const { left, right, top, bottom } = shape.body;
    const mm = (px: number): number => Number((px / pxPerMm).toFixed(2));
    return [
      {
        xMm: mm((left + right) / 2),
        yMm: mm((top + bottom) / 2),
        rotationDeg: best.turned ? 90 : 0,
        sizeMm: [mm(right - left), mm(bottom - top)] as const,
        pattern: best.name,
      },
    ];
  });
}

/** Morphological opening with a square: what is narrower goes, what is wider stays as it is. Each way by running sums. */
function opened(mask: Uint8Array, width: number, height: number, radius: number): Uint8Array {
  const eroded = spread(mask, width, height, radius, (sum, count) => sum === count);
  return spread(eroded, width, height, radius, (sum) => sum > 0);
}

function spread(
  mask: Uint8Array,
  width: number,
  height: number,
  radius: number,
  holds: (sum: number, count: number) => boolean,
): Uint8Array {
  const along = (
    from: Uint8Array,
    lines: number,
    length: number,
    at: (line: number, k: number) => number,
  ): Uint8Array => {
    const to = new Uint8Array(from.length);
    for (let line = 0; line < lines; line++) {
      let sum = 0;
      let count = 0;
      for (let k = -radius; k < length; k++) {
        if (k + radius < length) {
          sum += from[at(line, k + radius)];
          count++;
        }
        if (k - radius - 1 >= 0) {
          sum -= from[at(line, k - radius - 1)];
          count--;
        }
        if (k >= 0 && holds(sum, count)) to[at(line, k)] = 1;
      }
    }
    return to;
  };
  const rows = along(mask, height, width, (y, x) => y * width + x);
  return along(rows, width, height, (x, y) => y * width + x);
}

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

interface Shape {
  /** The body, without legs and fillets, px. */
  readonly body: Box;
  /** How far legs stand out on both sides, px. */
  readonly legsPx: { readonly x: number; readonly y: number };
  readonly fill: number;
}

/** A body and what stands out of it: rows and columns that are mostly filled are the body. */
function shapeOf(ground: Foreground, roi: Roi, pxPerMm: number): Shape {
  const { column, row } = roi.origin;
  const reach = Math.round(LEG_REACH_MM * pxPerMm);
  const [x0, x1] = [Math.max(0, column - reach), Math.min(ground.width, column + roi.width + reach)];
  const [y0, y1] = [Math.max(0, row - reach), Math.min(ground.height, row + roi.height + reach)];
  // Legs on two sides thin out the lines between them: the body's own width is found first, then its height within it.
  let box = { left: column, right: column + roi.width, top: row, bottom: row + roi.height };
  for (let round = 0; round < 2; round++) {
    const [left, right] = filledRange(columnFills(ground, box, x0, x1), box.left - x0, box.right - x0);
    box = { ...box, left: x0 + left, right: x0 + right };
    const [top, bottom] = filledRange(rowFills(ground, box, y0, y1), box.top - y0, box.bottom - y0);
    box = { ...box, top: y0 + top, bottom: y0 + bottom };
  }
  return {
    body: box,
    // Legs may be too thin for the outline: they are looked for in all that lies on the board.
    legsPx: {
      x: legsBeside(columnFills(ground, box, x0, x1), box.left - x0, box.right - x0),
      y: legsBeside(rowFills(ground, box, y0, y1), box.top - y0, box.bottom - y0),
    },
    fill: roi.surface / (roi.width * roi.height),
  };
}

/** How full each column is between a body's top and bottom. */
const columnFills = ({ width, mask }: Foreground, { top, bottom }: Box, from: number, to: number): number[] =>
  Array.from({ length: to - from }, (_, i) => {
    let sum = 0;
    for (let y = top; y < bottom; y++) sum += mask[y * width + from + i];
    return sum / (bottom - top);
  });

/** How full each row is between a body's left and right. */
const rowFills = ({ width, mask }: Foreground, { left, right }: Box, from: number, to: number): number[] =>
  Array.from({ length: to - from }, (_, j) => {
    let sum = 0;
    for (let x = left; x < right; x++) sum += mask[(from + j) * width + x];
    return sum / (right - left);
  });

/** Legs are looked for so far from a body, mm; lines with fewer of them are none, as a share of the body's side. */
const LEG_REACH_MM = 1.4;
const LEG_FILL = 0.15;

/** How far lines go on that are partly filled, on the side where they end sooner. */
function legsBeside(fills: readonly number[], from: number, to: number): number {
  const run = (start: number, step: 1 | -1): number => {
    let n = 0;
    while (fills[start + n * step] >= LEG_FILL) n++;
    return n;
  };
  return Math.min(run(from - 1, -1), run(to, 1));
}

/** From the first to the last line that is as full as a body, its edges between pixels. */
function filledRange(fills: readonly number[], from: number, to: number): [number, number] {
  const most = Math.max(...fills.slice(from, to));
  const isBody = (f: number, i: number): boolean => i >= from && i < to && f >= BODY_FILL * most;
  return [fills.findIndex(isBody), fills.findLastIndex(isBody) + 1];
}

interface Fit {
  readonly name: string;
  readonly turned: boolean;
  readonly cost: number;
}

const isCoil = ({ bodyMm: [w, h], lands }: PartPackage): boolean =>
  lands.kind === 'two' && w > COIL_FROM_MM && w <= 1.3 * h;
/** Two-pad parts that are nearly square and larger are coils, mm. Common practice. */
const COIL_FROM_MM = 2;

/** What of a package shows from above, mm: chips with the solder at their ends, others their body. */
function visibleMm(pkg: PartPackage): readonly [number, number] {
  const { bodyMm, lands } = pkg;
  return lands.kind === 'two' && !isCoil(pkg)
    ? [Math.max(bodyMm[0], lands.pitchMm + lands.padMm[0]), Math.max(bodyMm[1], lands.padMm[1])]
    : bodyMm;
}

function bestPattern(
  ground: Foreground,
  shape: Shape,
  pxPerMm: number,
  choices: readonly PatternChoice[],
): Fit | undefined {
  const { body, legsPx } = shape;
  const size = [(body.right - body.left) / pxPerMm, (body.bottom - body.top) / pxPerMm] as const;
  const long = Math.max(...size);
  const looks = looksOf(ground, body);
  // A bright spot without ends is a pad, not a part.
  if (looks.bright && long < BRIGHT_PART_MM) return undefined;
  const [outX, outY] = [legsPx.x / pxPerMm, legsPx.y / pxPerMm];
  const legs = outX > LEG_MM && outY <= LEG_MM ? 'x' : outY > LEG_MM && outX <= LEG_MM ? 'y' : 'none';
  const fits: Fit[] = [];
  for (const { name, package: pkg } of choices)
    for (const turned of isSquare(pkg) ? [false] : [false, true]) {
      const [w, h] = visibleMm(pkg);
      const off = turned ? apart(size, [h, w]) : apart(size, [w, h]);
      if (off > 1) continue;
      const look = lookCost(ground, shape, pxPerMm, pkg, looks, turned, legs);
      if (look !== undefined) fits.push({ name, turned, cost: off + look });
    }
  return fits.sort((a, b) => a.cost - b.cost)[0];
}

const isSquare = ({ bodyMm: [w, h], lands }: PartPackage): boolean =>
  w === h && lands.kind !== 'two' && lands.kind !== 'dual';

/** How far two sizes lie apart, in tolerances. */
const apart = (seen: readonly [number, number], own: readonly [number, number]): number =>
  Math.max(...seen.map((s, i) => Math.abs(s - own[i]) / Math.max(SIZE_FLOOR_MM, SIZE_SHARE * own[i])));

/** Everything that shines and is smaller is a pad or a test point, mm. */
const BRIGHT_PART_MM = 2.2;
/** What stands out of a body by more is a leg, mm. */
const LEG_MM = 0.45;
/** Bright metal, and a difference that is seen, of 255. Engineering estimates. */
const METAL_LUMA = 140;
const SEEN_LUMA = 14;

interface Looks {
  readonly middle: number;
  /** Mean of both ends along each axis. */
  readonly endsX: number;
  readonly endsY: number;
  /** A disc in the middle against the corners. */
  readonly disc: number;
  readonly bright: boolean;
}

function looksOf({ width, luma }: Foreground, { left, right, top, bottom }: Box): Looks {
  const [w, h] = [right - left, bottom - top];
  const mean = (x0: number, x1: number, y0: number, y1: number): number => {
    let [sum, n] = [0, 0];
    for (let y = Math.round(y0); y < y1; y++)
      for (let x = Math.round(x0); x < x1; x++) {
        sum += luma[y * width + x];
        n++;
      }
    return n === 0 ? 0 : sum / n;
  };
  const part = (fx0: number, fx1: number, fy0: number, fy1: number): number =>
    mean(left + fx0 * w, left + fx1 * w, top + fy0 * h, top + fy1 * h);
  const middle = part(0.38, 0.62, 0.2, 0.8);
  const middleY = part(0.2, 0.8, 0.38, 0.62);
  const endsX = (part(0.03, 0.14, 0.2, 0.8) + part(0.86, 0.97, 0.2, 0.8)) / 2;
  const endsY = (part(0.2, 0.8, 0.03, 0.14) + part(0.2, 0.8, 0.86, 0.97)) / 2;
  const corner = (part(0.04, 0.14, 0.04, 0.14) + part(0.86, 0.96, 0.86, 0.96) + part(0.86, 0.96, 0.04, 0.14)) / 3;
  return {
    middle: (middle + middleY) / 2,
    endsX,
    endsY,
    disc: part(0.3, 0.45, 0.6, 0.75) - corner,
    bright:
      part(0.1, 0.9, 0.1, 0.9) > METAL_LUMA &&
      Math.abs(endsX - middle) < SEEN_LUMA &&
      Math.abs(endsY - middleY) < SEEN_LUMA,
  };
}

/** How badly a package's look fits, in tolerances; undefined where it cannot be. */
function lookCost(
  ground: Foreground,
  shape: Shape,
  pxPerMm: number,
  pkg: PartPackage,
  looks: Looks,
  turned: boolean,
  legs: 'x' | 'y' | 'none',
): number | undefined {
  const { lands, plastic } = pkg;
  const shines = looks.middle > METAL_LUMA;
  switch (lands.kind) {
    case 'two': {
      const ends = (turned ? looks.endsY : looks.endsX) - looks.middle;
      const across = (turned ? looks.endsX : looks.endsY) - looks.middle;
      if (isCoil(pkg)) return legs === 'none' && looks.disc > 4 && !shines ? 0.1 : 1.2;
      return ends > SEEN_LUMA && ends > across ? 0 : undefined;
    }
    case 'dual': {
      const outward = lands.spanMm > pkg.bodyMm[0];
      if (!outward) return shines ? undefined : 0.9;
      return legs === (turned ? 'y' : 'x') && !shines ? 0 : undefined;
    }
    case 'quad': {
      if (legs !== 'none' || shines) return undefined;
      const seen = leadContrast(ground, shape, pxPerMm, lands.pins / 4, lands.pitchMm);
      return seen > SEEN_LUMA ? 0.5 * Math.exp(-seen / 40) : 1.5;
    }
    case 'array':
      return legs === 'none' && !shines ? (looks.disc > 4 ? 1.4 : 0.6) : undefined;
    case 'list':
      return plastic === shines ? 0.4 : plastic ? undefined : 1;
  }
}

/** How far beyond a body its fillets are looked for, mm. */
const FILLET_MM = 0.09;

/** How much brighter it is where leads of a pitch should be than between them, along all four sides; of 255. */
function leadContrast(
  { width, height, luma }: Foreground,
  { body }: Shape,
  pxPerMm: number,
  count: number,
  pitchMm: number,
): number {
  const at = (x: number, y: number): number =>
    luma[
      Math.min(height - 1, Math.max(0, Math.round(y - 0.5))) * width +
        Math.min(width - 1, Math.max(0, Math.round(x - 0.5)))
    ];
  const [cx, cy] = [(body.left + body.right) / 2, (body.top + body.bottom) / 2];
  const out = FILLET_MM * pxPerMm;
  let [onLeads, between] = [0, 0];
  for (let k = 0; k < 2 * count - 1; k++) {
    const along = ((k - (count - 1)) / 2) * pitchMm * pxPerMm;
    const sum =
      at(cx + along, body.top - out) +
      at(cx + along, body.bottom + out) +
      at(body.left - out, cy + along) +
      at(body.right + out, cy + along);
    if (k % 2 === 0) onLeads += sum / (4 * count);
    else between += sum / (4 * (count - 1));
  }
  return onLeads - between;
}
