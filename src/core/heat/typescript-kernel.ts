/**
 * The hot loops of the solver in TypeScript: one step of the Douglas scheme over a block of cells, stored x fastest, then y,
 * then z. Every loop reads views that are shifted to its neighbours, all at the same index: the compiler then checks one
 * index against one length (measured: half the time of computed indices). Padding of zeros on either side and factors
 * that are zero at the first cell of a line let all lines of a run be one loop, so no edge is asked for.
 */

/** LDLᵀ of (C − θΔt·L) along one axis: `lower` multiplies the cell before and is 0 at the first of a line; `inverse` is 1/D. */
export interface Tridiagonal {
  readonly lower: Float64Array;
  readonly inverse: Float64Array;
}

/** Factors of the three sweeps for one step length. */
export interface Factors {
  readonly stepS: number;
  readonly x: Tridiagonal;
  readonly y: Tridiagonal;
  readonly z: Tridiagonal;
}

/** What the loops run over. `t`, `g…`, `delta` and every `lower` carry a plane of zeros before and after the n cells. */
export interface SolverArrays {
  readonly nx: number;
  readonly plane: number;
  readonly n: number;
  /** Runs of filled cells, first and past the last, in order and within one layer each: air is left out. */
  readonly runs: Int32Array;
  /** For every layer the index in `runs` of its first run, and one more past the last. */
  readonly layers: Int32Array;
  readonly t: Float64Array;
  readonly gx: Float64Array;
  readonly gy: Float64Array;
  readonly gz: Float64Array;
  readonly delta: Float64Array;
  readonly capacity: Float64Array;
  /** Faces to the air: the cell, its conductance in W/K, and the air's temperature in °C. */
  readonly faceCells: Int32Array;
  readonly faceAir: Float64Array;
  readonly faceC: Float64Array;
}

export function stepInTypeScript(arrays: SolverArrays, { stepS, x, y, z }: Factors): number {
  const { nx, plane, n, capacity, runs, layers } = arrays;
  const view = (padded: Float64Array, shift = 0): Float64Array => padded.subarray(plane + shift, plane + shift + n);
  const t = view(arrays.t);
  const d = view(arrays.delta);
  conduct(
    d,
    t,
    view(arrays.t, 1),
    view(arrays.t, nx),
    view(arrays.t, -nx),
    view(arrays.t, plane),
    view(arrays.t, -plane),
    view(arrays.gx),
    view(arrays.gy),
    view(arrays.gy, -nx),
    view(arrays.gz),
    view(arrays.gz, -plane),
    stepS,
    runs,
  );
  const lostW = exchange(d, t, arrays.faceCells, arrays.faceAir, arrays.faceC, stepS);
  const [xLower, xAhead] = [view(x.lower), view(x.lower, 1)];
  for (let r = 0; r < runs.length; r += 2) {
    const [from, to] = [runs[r], runs[r + 1]];
    const middle = from + Math.ceil((to - from) / nx / 2) * nx;
    if (middle < to) sweepTwo(...[d, xLower, x.inverse, xAhead].flatMap((a) => halves(a, from, middle, to)));
    else sweepOne(d, xLower, x.inverse, xAhead, from, to);
  }
  const [yBefore, yAfter] = [view(arrays.delta, -nx), view(arrays.delta, nx)];
  const [yLower, yAhead] = [view(y.lower), view(y.lower, nx)];
  for (let layer = 0; layer + 1 < layers.length; layer++) {
    forward(d, yBefore, capacity, yLower, runs, layers[layer], layers[layer + 1]);
    backward(d, yAfter, y.inverse, yAhead, runs, layers[layer], layers[layer + 1]);
  }
  forward(d, view(arrays.delta, -plane), capacity, view(z.lower), runs, 0, runs.length);
  backwardInto(t, d, view(arrays.delta, plane), z.inverse, view(z.lower, plane), runs);
  return lostW;
}

type Two = [Float64Array, Float64Array];
const halves = (a: Float64Array, from: number, middle: number, to: number): Two => [
  a.subarray(from, middle),
  a.subarray(middle, to),
];

/** d = Δt · conduction from all six neighbours. */
function conduct(
  d: Float64Array,
  t: Float64Array,
  east: Float64Array,
  south: Float64Array,
  north: Float64Array,
  up: Float64Array,
  down: Float64Array,
  gx: Float64Array,
  gy: Float64Array,
  gyNorth: Float64Array,
  gz: Float64Array,
  gzDown: Float64Array,
  stepS: number,
  runs: Int32Array,
): void {
  for (let r = 0; r < runs.length; r += 2) {
    const to = runs[r + 1];
    let i = runs[r];
    let here = t[i];
    let fromWest = 0; // each flux along x is computed once and used twice
    for (; i < to; i++) {
      const tEast = east[i];
      const toEast = gx[i] * (tEast - here);
      const alongY = gy[i] * (south[i] - here) + gyNorth[i] * (north[i] - here);
      const alongZ = gz[i] * (up[i] - here) + gzDown[i] * (down[i] - here);
      d[i] = stepS * (toEast - fromWest + (alongY + alongZ));
      fromWest = toEast;
      here = tEast;
    }
  }
}

/** d += Δt · what the faces get from the air. Returns what they give back now, W: the sum of conductance · temperature. */
function exchange(
  d: Float64Array,
  t: Float64Array,
  cells: Int32Array,
  air: Float64Array,
  airC: Float64Array,
  stepS: number,
): number {
  let lost = 0;
  for (let k = 0; k < cells.length; k++) {
    const here = t[cells[k]];
    lost += air[k] * here;
    d[cells[k]] += stepS * air[k] * (airC[k] - here);
  }
  return lost;
}

/** (C − θΔtLx) d₁ = d, in place, over one run. */
function sweepOne(
  d: Float64Array,
  lower: Float64Array,
  inverse: Float64Array,
  ahead: Float64Array,
  from: number,
  to: number,
): void {
  let v = 0;
  for (let i = from; i < to; i++) d[i] = v = d[i] - lower[i] * v;
  v = 0;
  for (let i = to - 1; i >= from; i--) d[i] = v = d[i] * inverse[i] - ahead[i] * v;
}

/** The same over a run of several rows, cut in two: a row is a chain of steps that wait for each other, two run side by side. */
function sweepTwo(...[a, b, lowerA, lowerB, inverseA, inverseB, aheadA, aheadB]: readonly Float64Array[]): void {
  const both = b.length; // the second half is never the longer one
  let va = 0;
  let vb = 0;
  for (let i = 0; i < both; i++) {
    a[i] = va = a[i] - lowerA[i] * va;
    b[i] = vb = b[i] - lowerB[i] * vb;
  }
  for (let i = both; i < a.length; i++) a[i] = va = a[i] - lowerA[i] * va;
  va = vb = 0;
  for (let i = a.length - 1; i >= both; i--) a[i] = va = a[i] * inverseA[i] - aheadA[i] * va;
  for (let i = both - 1; i >= 0; i--) {
    a[i] = va = a[i] * inverseA[i] - aheadA[i] * va;
    b[i] = vb = b[i] * inverseB[i] - aheadB[i] * vb;
  }
}

/** First half of (C − θΔtL) d′ = C d along an axis: upwards. */
function forward(
  d: Float64Array,
  before: Float64Array,
  c: Float64Array,
  lower: Float64Array,
  runs: Int32Array,
  first: number,
  end: number,
): void {
  for (let r = first; r < end; r += 2) {
    const to = runs[r + 1];
    let i = runs[r];
    // Four at a time: a tenth of the whole step (measured); the cells of four never wait for each other's rows.
    for (; i < to - 3; i += 4) {
      d[i] = d[i] * c[i] - lower[i] * before[i];
      d[i + 1] = d[i + 1] * c[i + 1] - lower[i + 1] * before[i + 1];
      d[i + 2] = d[i + 2] * c[i + 2] - lower[i + 2] * before[i + 2];
      d[i + 3] = d[i + 3] * c[i + 3] - lower[i + 3] * before[i + 3];
    }
    for (; i < to; i++) d[i] = d[i] * c[i] - lower[i] * before[i];
  }
}

/** Second half: downwards. */
function backward(
  d: Float64Array,
  after: Float64Array,
  inverse: Float64Array,
  ahead: Float64Array,
  runs: Int32Array,
  first: number,
  end: number,
): void {
  for (let r = end - 2; r >= first; r -= 2) {
    const from = runs[r];
    for (let i = runs[r + 1] - 1; i >= from; i--) d[i] = d[i] * inverse[i] - ahead[i] * after[i];
  }
}

/** Second half of the last sweep, and T += d₃. */
function backwardInto(
  t: Float64Array,
  d: Float64Array,
  after: Float64Array,
  inverse: Float64Array,
  ahead: Float64Array,
  runs: Int32Array,
): void {
  for (let r = runs.length - 2; r >= 0; r -= 2) {
    const from = runs[r];
    for (let i = runs[r + 1] - 1; i >= from; i--) {
      const value = d[i] * inverse[i] - ahead[i] * after[i];
      d[i] = value;
      t[i] += value;
    }
  }
}
