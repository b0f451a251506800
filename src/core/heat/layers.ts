/** Cells through a slab and through the bodies on it, as shares of their thickness, from the bottom up. */
export interface Layers {
  readonly slab: readonly number[];
  readonly body: readonly number[];
}

/** One material of a wall: W/m·K and J/m³K. */
interface Wall {
  readonly thicknessMm: number;
  readonly k: number;
  readonly heatCapacity: number;
}

/** A wall of two: the slab below, the body on it, and what conducts between them, W/m²K. */
export interface Column {
  readonly slab: Wall & { readonly kInPlane: number };
  readonly body: Wall & { readonly widthMm: number };
  readonly contact: number;
}

/**
 * The joint may be off by so much while it warms, K, by {@link layersError}: on the test bodies the solver itself is then off by two
 * thirds of it, since a body's edges are cooled from the side.
 */
export const LAYERS_TOLERANCE_K = 1;

/** From coarse to fine: layers of the slab and of the body. */
const CHOICES: readonly (readonly [slab: number, body: number])[] = [
  [3, 2],
  [4, 2],
  [5, 2],
  [6, 2],
  [7, 3],
  [8, 3],
  [10, 4],
];
const FINEST = [24, 12] as const;

/** Layers of a slab grow away from the body: the depth of edge i of n is (i/n)^1.75 (by trial on the test bodies). */
const GRADING = 1.75;

const graded = (n: number): number[] =>
  Array.from({ length: n }, (_, i) => ((n - i) / n) ** GRADING - ((n - i - 1) / n) ** GRADING);
const even = (n: number): number[] => new Array<number>(n).fill(1 / n);
const layersOf = ([slab, body]: readonly [number, number]): Layers => ({ slab: graded(slab), body: even(body) });

/** For comparing, where only the difference counts. */
export const FEW_LAYERS = layersOf(CHOICES[0]);

const found = new Map<string, Layers>();

/** The fewest layers whose joint stays within {@link LAYERS_TOLERANCE_K} of fine ones, in a wall that hot air falls on. */
export function layersFor(column: Column): Layers {
  const key = JSON.stringify(column);
  let layers = found.get(key);
  if (!layers) {
    const fine = jointCurve(column, layersOf(FINEST));
    layers = CHOICES.map(layersOf).find((l) => apart(jointCurve(column, l), fine) <= LAYERS_TOLERANCE_K);
    layers ??= layersOf(CHOICES[CHOICES.length - 1]);
    found.set(key, layers);
  }
  return layers;
}

/** Largest difference of the joint's temperature from that of fine layers over the first seconds, K. */
export const layersError = (column: Column, layers: Layers): number =>
  apart(jointCurve(column, layers), jointCurve(column, layersOf(FINEST)));

const apart = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((worst, t, i) => Math.max(worst, Math.abs(t - b[i])), 0);

/** Hot air as strong as a rework nozzle's, on the body's face, and still air below. Engineering estimates. */
const AIR = { film: 300, riseK: 300 };
const STILL_FILM = 15;
const STEP_S = 0.25;
const FOR_S = 15;
/** The slab round the body is cold from so many of its radii on: decides how much flows off sideways, through a logarithm. Engineering estimate. */
const COLD_FROM_RADII = 4;

/**
 * Joint temperature above the start at every step, K, of the wall in one dimension: implicit steps (backward Euler), the same
 * for all layers, so that only the layers differ. What flows off sideways in the slab leaves each of its layers as a steady ring
 * round the body would take it.
 */
function jointCurve({ slab, body, contact }: Column, layers: Layers): number[] {
  const cells = [
    ...layers.slab.map((s) => ({ ...slab, m: (s * slab.thicknessMm) / 1000 })),
    ...layers.body.map((s) => ({ ...body, m: (s * body.thicknessMm) / 1000 })),
  ];
  const n = cells.length;
  const half = cells.map((c) => c.m / (2 * c.k));
  const joint = layers.slab.length - 1;
  const up = half.map((r, i) => (i + 1 < n ? 1 / (r + (i === joint ? 1 / contact : 0) + half[i + 1]) : 0));
  const [below, above] = [1 / (1 / STILL_FILM + half[0]), 1 / (1 / AIR.film + half[n - 1])];
  const radiusM = body.widthMm / 2000;
  const sideways = cells.map(({ m }, i) =>
    i <= joint ? (2 * slab.kInPlane * m) / (radiusM * radiusM * Math.log(COLD_FROM_RADII)) : 0,
  );
  const held = cells.map((c) => (c.heatCapacity * c.m) / STEP_S);
  let temps = new Array<number>(n).fill(0);
  const whole = half[joint] + 1 / contact + half[joint + 1];
  const share = (1 + (half[joint + 1] - half[joint]) / whole) / 2;
  return Array.from({ length: Math.round(FOR_S / STEP_S) }, () => {
    const diagonal = held.map(
      (h, i) => h + sideways[i] + up[i] + (i > 0 ? up[i - 1] : below) + (i === n - 1 ? above : 0),
    );
    const right = held.map((h, i) => h * temps[i] + (i === n - 1 ? above * AIR.riseK : 0));
    for (let i = 1; i < n; i++) {
      const f = up[i - 1] / diagonal[i - 1];
      diagonal[i] -= f * up[i - 1];
      right[i] += f * right[i - 1];
    }
    const next = new Array<number>(n);
    for (let i = n - 1; i >= 0; i--) next[i] = (right[i] + (i + 1 < n ? up[i] * next[i + 1] : 0)) / diagonal[i];
    temps = next;
    return share * temps[joint] + (1 - share) * temps[joint + 1];
  });
}
