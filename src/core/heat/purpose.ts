import type { PartRef } from '../identities';
import { z } from 'zod';
import { bodyOutline, type Board, type Part } from '../board';
import { ALLOYS, type AlloyName } from '../joints';
import type { HeatGoals } from './goals';

/** What a heat plan is for. */
export const PURPOSES = ['lift', 'place', 'soften', 'site', 'partBoards', 'reball'] as const;
export const purposeSchema = z.enum(PURPOSES);
export type Purpose = z.infer<typeof purposeSchema>;

/** The upper one of two boards that are joined by a frame of solder joints. */
export const stackSchema = z.object({
  xMm: z.number().describe('its centre'),
  yMm: z.number(),
  sizeMm: z.tuple([z.number().min(6).max(200), z.number().min(6).max(200)]),
  thicknessMm: z.number().min(0.2).max(3),
  gapMm: z.number().min(0.05).max(5).default(0.5).describe('between the two boards'),
});
export type Stack = z.infer<typeof stackSchema>;

/** What stands on the lower board under the upper one. */
export interface Between {
  readonly outlineMm: readonly (readonly [number, number])[];
  readonly heightMm: number;
}

/** A board with another one on it. */
export interface Stacked extends Board {
  readonly gapMm: number;
  readonly between: readonly Between[];
}

/** The upper board as the simulation sees it: a part whose joints stand along its edge. */
export const UPPER_BOARD = 'MB1';

export const PURPOSE_WORDS: Readonly<Record<Purpose, string>> = {
  lift: 'Lift',
  place: 'Place',
  soften: 'Soften underfill',
  site: 'Warm the site',
  partBoards: 'Part the boards',
  reball: 'Reball off the board',
};

/**
 * Kinds of underfill with the temperature from which a fine tool clears them, °C. Practitioners agree only that it lies well
 * below solder; the figures are engineering estimates, to be replaced by what the bench sees.
 */
export const UNDERFILLS = {
  edge: { words: 'edge bond', softensC: 110 },
  soft: { words: 'soft underfill', softensC: 130 },
  hard: { words: 'hard underfill', softensC: 170 },
  unknown: { words: 'unknown underfill', softensC: 150 },
} as const;
export type UnderfillKind = keyof typeof UNDERFILLS;

/** Pads level more easily with an iron when the board under them is so warm, °C. Engineering estimate. */
export const SITE_C = 140;

/** What the coldest joint has to reach for a purpose, and what the hottest must stay below where it must. */
export interface JointWindow {
  readonly reachC: number;
  /** K above {@link reachC} that a plan aims at. */
  readonly aimOverK: number;
  /** Limit of the worked part's own joints: clearing and warming must not melt them. */
  readonly ownLimitC?: number;
}

/** Over the temperature of softening or of a warm site, K: neither is sharp. Engineering estimate. */
const SOFT_OVER_K = 10;

export function jointWindow(
  { purpose, alloy, softensC }: { purpose: Purpose; alloy: AlloyName; softensC: number },
  goals: HeatGoals,
): JointWindow {
  const { liquidusC, solidusC } = ALLOYS[alloy];
  const ownLimitC = solidusC - goals.neighbourUnderSolidusK;
  if (purpose === 'soften') return { reachC: softensC, aimOverK: SOFT_OVER_K, ownLimitC };
  if (purpose === 'site') return { reachC: Math.min(SITE_C, ownLimitC - 20), aimOverK: SOFT_OVER_K, ownLimitC };
  return { reachC: liquidusC, aimOverK: goals.coldestOverLiquidusK };
}

/**
 * The board that a plan heats: the job's own; with the upper board on it where two are parted; a flat carrier with the chip
 * on its back, balls up, where it is reballed.
 */
export function workplaceOf(
  board: Board,
  plan: { readonly purpose: Purpose; readonly partRef: PartRef; readonly stack: Stack | null },
): Board {
  if (plan.purpose === 'reball') return carrierFor(board, plan.partRef);
  const known = withoutUnplaced(board, plan.partRef);
  return plan.purpose === 'partBoards' && plan.stack ? stacked(known, plan.stack) : known;
}

/** Parts of a sketch whose place nobody has said; a plan knows nothing of them. */
export const unplacedParts = (board: Board): string[] =>
  board.parts.filter((p) => p.assumed?.includes('place')).map((p) => p.ref);

/** Boards without such parts, by the worked part: asked for again and again with the same board. */
const placedBoards = new WeakMap<Board, Map<string, Board>>();

/** A neighbour that may be anywhere is none: it would be guarded where it is not, and missed where it is. */
function withoutUnplaced(board: Board, worked: string): Board {
  const unplaced = new Set(unplacedParts(board).filter((ref) => ref !== worked));
  if (unplaced.size === 0) return board;
  let byPart = placedBoards.get(board);
  if (!byPart) placedBoards.set(board, (byPart = new Map<string, Board>()));
  let placed = byPart.get(worked);
  if (!placed) byPart.set(worked, (placed = { ...board, parts: board.parts.filter((p) => !unplaced.has(p.ref)) }));
  return placed;
}

/** How far a board whose layers and thickness were taken by look may differ, one standard deviation. Engineering estimates. */
const BY_LOOK = { copper: 1.5, thickness: 1.2 };

/** What a board may be that was only looked at: lighter and heavier by one standard deviation; none where it is known. */
export function boardsInDoubt(board: Board): Board[] {
  if (!board.assumed?.includes('stack')) return [];
  return [1, -1].map((sign) => ({
    ...withCopper(board, BY_LOOK.copper ** sign),
    thicknessMm: board.thicknessMm * BY_LOOK.thickness ** sign,
  }));
}

/** What if the board held more or less copper than its file says: all layers and areas by one factor. */
export function withCopper(board: Board, factor: number): Board {
  if (factor === 1) return board;
  const more = (coverage: number): number => Math.min(1, coverage * factor);
  return {
    ...board,
    layers: board.layers.map((l) => ({
      ...l,
      copperUm: l.copperUm * Math.max(1, factor * l.coverage),
      coverage: more(l.coverage),
    })),
    copperAreas: board.copperAreas.map((a) => ({ ...a, coverage: more(a.coverage) })),
  };
}

/** A carrier of ceramic or glass-fibre, mm; it conducts like a board with little copper. Engineering estimates. */
const CARRIER_MM = 30;
const CARRIER_THICK_MM = 1.5;

function carrierFor(board: Board, partRef: PartRef): Board {
  const part = board.parts.find((p) => p.ref === partRef);
  if (!part) return board;
  const size = CARRIER_MM;
  return {
    ...board,
    outlineMm: [
      [0, 0],
      [size, 0],
      [size, size],
      [0, size],
    ],
    thicknessMm: CARRIER_THICK_MM,
    layers: [{ name: 'carrier', copperUm: 18, coverage: 0.1 }],
    copperAreas: [],
    shields: [],
    parts: [{ ...part, xMm: size / 2, yMm: size / 2, side: 'front', underfilled: false }],
  };
}

/** Frame joints stand a pad's width in from the edge, and so far apart, mm. Engineering estimates. */
const FRAME_INSET_MM = 0.8;
const FRAME_PITCH_MM = 1.5;

/** The lower board with the upper one as a part, and what lies between the two. */
function stacked(board: Board, { xMm, yMm, sizeMm: [w, h], thicknessMm, gapMm }: Stack): Stacked {
  const under = (p: Part): boolean =>
    p.side === 'front' && Math.abs(p.xMm - xMm) < w / 2 && Math.abs(p.yMm - yMm) < h / 2;
  const upper: Part = {
    ref: UPPER_BOARD,
    kind: 'connector',
    what: 'upper board',
    package: UPPER_BOARD,
    ...{ xMm, yMm, rotationDeg: 0, side: 'front', pins: {} },
    ...{ loadsOhm: {}, underfilled: false, optional: false, required: false },
  };
  return {
    ...board,
    packages: {
      ...board.packages,
      [UPPER_BOARD]: { bodyMm: [w, h], heightMm: thicknessMm, plastic: false, lands: framePads(w, h) },
    },
    parts: [...board.parts.filter((p) => !under(p) && p.ref !== UPPER_BOARD), upper],
    gapMm,
    between: board.parts.filter(under).map((p) => ({
      outlineMm: bodyOutline(board, p),
      heightMm: board.packages[p.package].heightMm,
    })),
  };
}

function framePads(w: number, h: number): Board['packages'][string]['lands'] {
  const [x, y] = [w / 2 - FRAME_INSET_MM, h / 2 - FRAME_INSET_MM];
  const along = (length: number): number[] => {
    const count = Math.max(2, Math.round((2 * length) / FRAME_PITCH_MM));
    return Array.from({ length: count + 1 }, (_, k) => -length + (2 * length * k) / count);
  };
  const places = [
    ...along(x).flatMap((at) => [
      [at, -y],
      [at, y],
    ]),
    ...along(y)
      .slice(1, -1)
      .flatMap((at) => [
        [-x, at],
        [x, at],
      ]),
  ];
  return {
    kind: 'list',
    pads: places.map(([xMm, yMm], k) => ({ pin: String(k + 1), xMm, yMm, wMm: 0.8, hMm: 0.8 })),
  };
}

/** A stack to begin with, on the middle of a board: the bench enters its own. */
export function usualStack({ outlineMm, thicknessMm }: Board): Stack {
  const [xs, ys] = [0, 1].map((k) => outlineMm.map((p) => p[k]));
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const half = (length: number): number => Math.max(6, Math.round(length / 2));
  return { xMm: (x0 + x1) / 2, yMm: (y0 + y1) / 2, sizeMm: [half(x1 - x0), half(y1 - y0)], thicknessMm, gapMm: 0.5 };
}
