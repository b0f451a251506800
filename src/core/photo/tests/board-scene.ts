import type { PartRef } from '../../identities';
import { inverse, mapPoint, type Homography } from '../../site';
import { normalDraw, seededRandom, type Random } from '../../math';
import type { Pixels } from '../straighten';

/** A part as it is drawn: what there is to be found. */
export interface DrawnPart {
  readonly ref: PartRef;
  readonly pattern: string;
  readonly look: 'leadless' | 'balls' | 'legs' | 'capacitor' | 'resistor' | 'coil' | 'fuse' | 'port' | 'fet';
  readonly xMm: number;
  readonly yMm: number;
  /** Body, before it is turned. */
  readonly bodyMm: readonly [number, number];
  readonly turned?: boolean;
  readonly pins?: number;
  readonly pitchMm?: number;
}

export interface BoardScene {
  readonly sizeMm: readonly [number, number];
  readonly parts: readonly DrawnPart[];
  /** Colour of the solder mask. */
  readonly mask: readonly [number, number, number];
  readonly seed: number;
  /** Unevenness of the light, as a share from corner to corner. */
  readonly light: number;
  /** Spread of each pixel, of 255. */
  readonly noise: number;
}

type Rgb = readonly [number, number, number];
const SILVER: Rgb = [198, 200, 202];
const GOLD: Rgb = [204, 170, 92];
const SILK: Rgb = [226, 228, 222];
const BENCH: Rgb = [92, 88, 84];

const within = (v: number, half: number): boolean => Math.abs(v) <= half;

/** What a part shows at a place of its own frame, mm; nothing beside it. */
function partColour(part: DrawnPart, x: number, y: number): Rgb | undefined {
  const [w, h] = part.bodyMm;
  const inBody = within(x, w / 2) && within(y, h / 2);
  switch (part.look) {
    case 'leadless': {
      if (inBody) {
        const marked = within(y + h * 0.1, 0.14) && within(x, w * 0.28);
        const dot = Math.hypot(x + w / 2 - 0.6, y + h / 2 - 0.6) < 0.25;
        return marked || dot ? [96, 96, 98] : [38, 38, 41];
      }
      // Fillets of the leads reach out from under the body.
      const reach = 0.18;
      const along = (v: number): boolean => {
        const count = part.pins! / 4;
        const k = v / part.pitchMm! + (count - 1) / 2;
        return Math.abs(k - Math.round(k)) < 0.28 && k > -0.4 && k < count - 0.6;
      };
      if (Math.abs(x) <= w / 2 + reach && Math.abs(x) > w / 2 && along(y)) return SILVER;
      if (Math.abs(y) <= h / 2 + reach && Math.abs(y) > h / 2 && along(x)) return SILVER;
      return undefined;
    }
    case 'balls':
      return inBody ? (within(y, 0.16) && within(x, w * 0.3) ? [104, 104, 104] : [44, 43, 46]) : undefined;
    case 'legs': {
      if (inBody) return [40, 40, 42];
      const count = part.pins! / 2;
      const k = y / part.pitchMm! + (count - 1) / 2;
      const onLeg = Math.abs(k - Math.round(k)) < 0.2 && k > -0.4 && k < count - 0.6;
      return onLeg && Math.abs(x) <= w / 2 + 1.1 && Math.abs(x) > w / 2 ? SILVER : undefined;
    }
    case 'capacitor':
    case 'resistor': {
      const end = 0.2 * w;
      if (inBody) return Math.abs(x) > w / 2 - end ? SILVER : part.look === 'capacitor' ? [168, 132, 92] : [34, 34, 38];
      // Solder runs out a little at the ends.
      return within(y, h / 2) && Math.abs(x) <= w / 2 + 0.2 ? [176, 178, 180] : undefined;
    }
    case 'fuse':
      if (inBody) return Math.abs(x) > w / 2 - 0.5 ? SILVER : [206, 204, 188];
      return within(y, h / 2) && Math.abs(x) <= w / 2 + 0.25 ? [176, 178, 180] : undefined;
    case 'coil':
      return inBody ? (Math.hypot(x, y) < w * 0.36 ? [72, 70, 70] : [52, 51, 52]) : undefined;
    case 'fet':
      if (inBody) return [36, 36, 38];
      return Math.abs(x) <= w / 2 + 0.2 && within(y, h * 0.42) ? SILVER : undefined;
    case 'port':
      return inBody ? (within(y, h * 0.42) && x > -w * 0.4 ? [184, 187, 190] : [158, 160, 164]) : undefined;
  }
}

type Stroke = { readonly x: number; readonly y: number; readonly long: number; readonly upright: boolean };

const onStroke = (s: Stroke, x: number, y: number, width: number): boolean =>
  s.upright
    ? within(x - s.x, width / 2) && y >= s.y && y <= s.y + s.long
    : within(y - s.y, width / 2) && x >= s.x && x <= s.x + s.long;

/** What lies in one square millimetre. */
interface Cell {
  readonly parts: DrawnPart[];
  readonly traces: Stroke[];
  readonly vias: Stroke[];
  readonly prints: Stroke[];
}

/** A drawn board: traces, vias, print and parts, as seen from straight above and without noise. */
class Surface {
  private readonly cells: Cell[];
  private readonly columns: number;

  constructor(
    private readonly scene: BoardScene,
    random: Random,
  ) {
    const [w, h] = scene.sizeMm;
    this.columns = Math.ceil(w) + 1;
    this.cells = Array.from({ length: this.columns * (Math.ceil(h) + 1) }, () => ({
      parts: [],
      traces: [],
      vias: [],
      prints: [],
    }));
    const somewhere = (): Stroke => ({
      x: random() * w,
      y: random() * h,
      long: 2 + 7 * random(),
      upright: random() < 0.5,
    });
    for (let k = 0; k < 60; k++) this.lay('traces', somewhere());
    for (let k = 0; k < 50; k++) this.lay('vias', { ...somewhere(), long: 0 });
    for (const p of scene.parts) {
      // Print stands beside parts, as letters of a few strokes.
      const top = p.yMm - (p.turned ? p.bodyMm[0] : p.bodyMm[1]) / 2 - 0.9;
      for (let i = 0; i < 4; i++)
        this.lay('prints', { x: p.xMm - p.bodyMm[0] / 2 + 0.5 * i, y: top, long: 0.7, upright: i % 2 === 0 });
      const reach = Math.max(...p.bodyMm) / 2 + 1.3;
      this.eachCell(p.xMm - reach, p.xMm + reach, p.yMm - reach, p.yMm + reach, (cell) => cell.parts.push(p));
    }
  }

  private lay(kind: 'traces' | 'vias' | 'prints', s: Stroke): void {
    const [right, down] = s.upright ? [0, s.long] : [s.long, 0];
    this.eachCell(s.x - 0.3, s.x + right + 0.3, s.y - 0.3, s.y + down + 0.3, (cell) => cell[kind].push(s));
  }

  private eachCell(x0: number, x1: number, y0: number, y1: number, then: (cell: Cell) => void): void {
    const rows = this.cells.length / this.columns;
    for (let j = Math.max(0, Math.floor(y0)); j <= Math.min(rows - 1, Math.floor(y1)); j++)
      for (let i = Math.max(0, Math.floor(x0)); i <= Math.min(this.columns - 1, Math.floor(x1)); i++)
        then(this.cells[j * this.columns + i]);
  }

  colour(x: number, y: number): Rgb {
    const [w, h] = this.scene.sizeMm;
    if (x < 0 || y < 0 || x > w || y > h) return BENCH;
    const cell = this.cells[Math.floor(y) * this.columns + Math.floor(x)];
    for (const part of cell.parts) {
      const [dx, dy] = [x - part.xMm, y - part.yMm];
      const found = part.turned ? partColour(part, dy, -dx) : partColour(part, dx, dy);
      if (found) return found;
    }
    if (cell.prints.some((p) => onStroke(p, x, y, 0.14))) return SILK;
    if (cell.vias.some((v) => Math.hypot(x - v.x, y - v.y) < 0.22)) return GOLD;
    const lighter = cell.traces.some((t) => onStroke(t, x, y, 0.25)) ? 1.16 : 1;
    const [r, g, b] = this.scene.mask;
    return [r * lighter, g * lighter, b * lighter];
  }
}

/**
 * A photograph of a drawn board, for tests and demonstrations: perspective, light from one side, noise, each pixel the mean of
 * four samples. @param camera from board mm to px.
 */
export function photographed(scene: BoardScene, camera: Homography, width: number, height: number): Pixels {
  const random = seededRandom(scene.seed);
  const surface = new Surface(scene, random);
  const back = inverse(camera);
  const data = new Uint8ClampedArray(4 * width * height);
  const [bw, bh] = scene.sizeMm;
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      const sum = [0, 0, 0];
      let lit = 1;
      for (const [du, dv] of [
        [0.25, 0.25],
        [0.75, 0.25],
        [0.25, 0.75],
        [0.75, 0.75],
      ]) {
        const at = mapPoint(back, { x: u + du, y: v + dv });
        const c = surface.colour(at.x, at.y);
        lit = 1 + scene.light * ((at.x / bw + at.y / bh) / 2 - 0.5);
        for (let k = 0; k < 3; k++) sum[k] += c[k] / 4;
      }
      const to = 4 * (v * width + u);
      for (let k = 0; k < 3; k++) data[to + k] = sum[k] * lit + scene.noise * normalDraw(random);
      data[to + 3] = 255;
    }
  return { width, height, data };
}

/** Sizes of the two-pad parts that are strewn about. */
const CHIPS: readonly (readonly [string, number, number])[] = [
  ['CHIP-1005', 1, 0.5],
  ['CHIP-1608', 1.6, 0.8],
  ['CHIP-2012', 2, 1.25],
];
const LEADLESS: readonly (readonly [pins: number, pitch: number])[] = [
  [16, 0.5],
  [24, 0.5],
  [32, 0.5],
  [40, 0.5],
  [40, 0.4],
  [48, 0.4],
];
const MASKS: readonly (readonly [number, number, number])[] = [
  [28, 92, 56],
  [24, 58, 112],
  [112, 30, 34],
  [38, 104, 92],
];

/** A board of chips and two-pad parts strewn at random without touching. */
export function strewnScene(seed: number): BoardScene {
  const random = seededRandom(seed);
  const sizeMm: [number, number] = [36 + 20 * random(), 26 + 12 * random()];
  const parts: DrawnPart[] = [];
  const fits = (p: DrawnPart): boolean => {
    const reach = (q: DrawnPart): [number, number] => {
      const [w, h] = q.turned ? [q.bodyMm[1], q.bodyMm[0]] : q.bodyMm;
      return [w / 2 + 0.35, h / 2 + 0.35];
    };
    const [rx, ry] = reach(p);
    if (p.xMm - rx < 1 || p.yMm - ry < 2 || p.xMm + rx > sizeMm[0] - 1 || p.yMm + ry > sizeMm[1] - 1) return false;
    return parts.every((q) => {
      const [qx, qy] = reach(q);
      return Math.abs(p.xMm - q.xMm) > rx + qx || Math.abs(p.yMm - q.yMm) > ry + qy;
    });
  };
  const strew = (count: number, make: () => Omit<DrawnPart, 'xMm' | 'yMm' | 'ref'>): void => {
    for (let n = 0; n < count; n++) {
      const base = make();
      for (let tries = 0; tries < 60; tries++) {
        const part = { ...base, ref: `P${parts.length}`, xMm: random() * sizeMm[0], yMm: random() * sizeMm[1] };
        if (!fits(part)) continue;
        parts.push(part);
        break;
      }
    }
  };
  const oneOf = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  strew(5, () => {
    const [pins, pitchMm] = oneOf(LEADLESS);
    const side = (pins / 4 - 1) * pitchMm + 1.5;
    return { pattern: `QFN-${pins}-${pitchMm}`, look: 'leadless', bodyMm: [side, side], pins, pitchMm };
  });
  strew(1, () => ({ pattern: 'BGA-100-0.8', look: 'balls', bodyMm: [7.9, 7.9] }));
  strew(1, () => ({
    pattern: 'SOIC-8',
    look: 'legs',
    bodyMm: [3.9, 4.9],
    pins: 8,
    pitchMm: 1.27,
    turned: random() < 0.5,
  }));
  strew(2, () => ({ pattern: 'COIL-4040', look: 'coil', bodyMm: [4, 4] }));
  strew(26, () => {
    const [pattern, w, h] = oneOf(CHIPS);
    return { pattern, look: random() < 0.6 ? 'capacitor' : 'resistor', bodyMm: [w, h], turned: random() < 0.5 };
  });
  return { sizeMm, parts, mask: oneOf(MASKS), seed, light: 0.5 * (2 * random() - 1), noise: 3 + 3 * random() };
}
