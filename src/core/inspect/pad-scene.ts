import type { Random } from '../math';
import { extentOf, gapsOf, type Homography, type Point, type SitePad } from '../site';
import type { GreyPicture } from './picture';
import { ballLevel, covered, fromSegment, photograph, type Cover, type View } from './render';
import { CAMERA_WIDTHS, HARD, cameraView, drawCover, type Trouble } from './scenes';

/** What a cleaned pad is like. */
export type DrawnPad = 'even' | 'lifted' | 'lump' | 'bare';

/** A cleaned site with everything about it known. Lengths in mm, places in the package's frame. */
export interface PadScene extends View, Cover {
  readonly pads: readonly SitePad[];
  readonly states: readonly DrawnPad[];
  readonly bridges: readonly { readonly a: number; readonly b: number; readonly from: Point; readonly to: Point }[];
  readonly strandMm: number;
  readonly substrate: number;
  /** Where on a pad its lump or bare patch lies, shares of its half sizes. */
  readonly spots: readonly Point[];
}

/** How bright things are under a ring light, 0 to 1: engineering estimates for a picture that looks like one. */
const TINNED_LEVEL = 0.62;
const CRATER_LEVEL = 0.06;
const BARE_LEVEL = 0.3;
/** A lump and a bare patch against a pad's half size. */
const LUMP_SHARE = 0.72;
const BARE_SHARE = 0.6;

/** A cleaned site under a tilted camera, some of its pads lifted, lumpy, bare in places or joined by solder. */
export function drawPadScene(pads: readonly SitePad[], pxPerMm: number, random: Random, trouble = HARD): PadScene {
  const between = (low: number, high: number): number => low + (high - low) * random();
  const { w, h } = extentOf(pads);
  const unit = Math.min(...gapsOf(pads).map((g) => g.lengthMm)) * 2;
  const [across, down] = [w + 4 * unit, h + 4 * unit];
  const [width, height] = [Math.round(across * pxPerMm * 1.12), Math.round(down * pxPerMm * 1.12)];
  const lean = { x: between(-trouble.tiltDeg, trouble.tiltDeg), y: between(-trouble.tiltDeg, trouble.tiltDeg) };
  const turnDeg = between(-trouble.tiltDeg, trouble.tiltDeg);
  const middle = { x: width / 2, y: height / 2 };
  const toPicture: Homography = cameraView(pxPerMm, turnDeg, lean, CAMERA_WIDTHS * Math.max(across, down), middle);
  return {
    pads,
    ...{ toPicture, width, height },
    ...drawDefects(pads, random, trouble),
    ...drawCover([across, down], unit, random, trouble),
    strandMm: unit * between(0.25, 0.4),
    substrate: between(0.1, 0.2),
    spots: pads.map(() => ({ x: between(-0.2, 0.2), y: between(-0.2, 0.2) })),
    blurPx: Math.max(0.4, between(0.4, trouble.blurPx)),
    noise: between(1, trouble.noise),
  };
}

function drawDefects(pads: readonly SitePad[], random: Random, trouble: Trouble): Pick<PadScene, 'states' | 'bridges'> {
  const states: DrawnPad[] = pads.map(() => 'even');
  const bridges: PadScene['bridges'][number][] = [];
  const spoiled = new Set<number>();
  const gaps = gapsOf(pads);
  pads.forEach((_, i) => {
    if (spoiled.has(i) || random() >= trouble.defects) return;
    const kind = random();
    const gap = gaps.find(({ a, b }) => (a === i || b === i) && !spoiled.has(a) && !spoiled.has(b));
    spoiled.add(i);
    if (kind < 0.4) states[i] = 'lifted';
    else if (kind < 0.65 && gap) {
      const shift = 0.3 * gap.facingMm * (random() - 0.5);
      const level = gap.from.y === gap.to.y;
      const along = (p: Point): Point => (level ? { x: p.x, y: p.y + shift } : { x: p.x + shift, y: p.y });
      bridges.push({ a: gap.a, b: gap.b, from: along(gap.from), to: along(gap.to) });
      [gap.a, gap.b].forEach((k) => spoiled.add(k));
    } else states[i] = random() < 0.5 ? 'lump' : 'bare';
  });
  return { states, bridges };
}

/** Draws a site as a microscope's camera would see it. */
export const renderPadScene = (scene: PadScene, random: Random): GreyPicture =>
  photograph(scene, covered(scene, shader(scene)), random);

function shader({ pads, states, bridges, strandMm, substrate, spots }: PadScene): (at: Point) => number {
  const near = padsByPlace(pads);
  return (at) => {
    let level = substrate + 0.015 * Math.sin(23 * at.x) * Math.sin(29 * at.y);
    for (const i of near(at)) {
      const pad = pads[i];
      const [u, v] = [(2 * (at.x - pad.x)) / pad.wMm, (2 * (at.y - pad.y)) / pad.hMm];
      if (pad.round ? u * u + v * v < 1 : Math.abs(u) < 1 && Math.abs(v) < 1)
        level = padLevel(states[i], u - spots[i].x, v - spots[i].y);
    }
    for (const { from, to } of bridges) {
      const d = fromSegment(at, from, to) / (strandMm / 2);
      if (d < 1) level = Math.max(level, TINNED_LEVEL * (1 - 0.3 * d * d));
    }
    return level;
  };
}

const CELL_MM = 0.25;

/** Which pads a place can lie on. */
function padsByPlace(pads: readonly SitePad[]): (at: Point) => readonly number[] {
  const cells = new Map<string, number[]>();
  const cell = (mm: number): number => Math.floor(mm / CELL_MM);
  pads.forEach(({ x, y, wMm, hMm }, i) => {
    for (let u = cell(x - wMm / 2); u <= cell(x + wMm / 2); u++) {
      for (let v = cell(y - hMm / 2); v <= cell(y + hMm / 2); v++) {
        cells.set(`${u} ${v}`, [...(cells.get(`${u} ${v}`) ?? []), i]);
      }
    }
  });
  return ({ x, y }) => cells.get(`${cell(x)} ${cell(y)}`) ?? [];
}

/** Brightness of a pad at a place, shares of its half sizes from its lump or patch. */
function padLevel(state: DrawnPad, u: number, v: number): number {
  const r = Math.hypot(u, v);
  if (state === 'lifted') return CRATER_LEVEL;
  if (state === 'lump' && r < LUMP_SHARE) return ballLevel(r / LUMP_SHARE, 0.9);
  if (state === 'bare' && r < BARE_SHARE) return BARE_LEVEL;
  return TINNED_LEVEL;
}
