/**
 * The step of the heat solver for WebAssembly, two doubles at a time: the twin of ../typescript-kernel.ts, which says what each loop
 * computes. Arrays are byte offsets into the memory that the caller made, past their padding; rows have at least two cells.
 */

// @ts-ignore: decorator
@inline
function next(v: v128, w: v128): v128 {
  // The upper lane of v, then the lower lane of w.
  return v128.shuffle<f64>(v, w, 1, 2);
}

// @ts-ignore: decorator
@inline
function bound(runs: usize, r: usize): usize {
  return (<usize>load<u32>(runs + (r << 2))) << 3;
}

/** d = Δt · conduction from all six neighbours. `bounds` is the number of entries in `runs`. */
export function conduct(
  d: usize,
  t: usize,
  gx: usize,
  gy: usize,
  gz: usize,
  runs: usize,
  bounds: usize,
  nx: usize,
  plane: usize,
  stepS: f64,
): void {
  const step = f64x2.splat(stepS);
  const row = nx << 3;
  const layer = plane << 3;
  for (let r: usize = 0; r < bounds; r += 2) {
    const to = bound(runs, r + 1);
    let i = bound(runs, r);
    const even = i + (((to - i) >> 4) << 4);
    let eastBefore = f64x2.splat(0);
    for (; i < even; i += 16) {
      const here = v128.load(t + i);
      const east = f64x2.mul(v128.load(gx + i), f64x2.sub(v128.load(t + i, 8), here));
      const alongX = f64x2.sub(east, next(eastBefore, east));
      eastBefore = east;
      const alongY = f64x2.add(
        f64x2.mul(v128.load(gy + i), f64x2.sub(v128.load(t + i + row), here)),
        f64x2.mul(v128.load(gy + i - row), f64x2.sub(v128.load(t + i - row), here)),
      );
      const alongZ = f64x2.add(
        f64x2.mul(v128.load(gz + i), f64x2.sub(v128.load(t + i + layer), here)),
        f64x2.mul(v128.load(gz + i - layer), f64x2.sub(v128.load(t + i - layer), here)),
      );
      v128.store(d + i, f64x2.mul(step, f64x2.add(alongX, f64x2.add(alongY, alongZ))));
    }
    for (; i < to; i += 8) {
      const here = load<f64>(t + i);
      const alongX =
        load<f64>(gx + i) * (load<f64>(t + i, 8) - here) - load<f64>(gx + i - 8) * (here - load<f64>(t + i - 8));
      const alongY =
        load<f64>(gy + i) * (load<f64>(t + i + row) - here) + load<f64>(gy + i - row) * (load<f64>(t + i - row) - here);
      const alongZ =
        load<f64>(gz + i) * (load<f64>(t + i + layer) - here) +
        load<f64>(gz + i - layer) * (load<f64>(t + i - layer) - here);
      store<f64>(d + i, stepS * (alongX + (alongY + alongZ)));
    }
  }
}

/** d += Δt · what the faces get from the air. Returns what they give back now, W: the sum of conductance · temperature. */
export function exchange(d: usize, t: usize, cells: usize, air: usize, airC: usize, faces: usize, stepS: f64): f64 {
  let lost: f64 = 0;
  for (let k: usize = 0; k < faces; k++) {
    const at = (<usize>load<u32>(cells + (k << 2))) << 3;
    const conductance = load<f64>(air + (k << 3));
    const here = load<f64>(t + at);
    lost += conductance * here;
    store<f64>(d + at, load<f64>(d + at) + stepS * conductance * (load<f64>(airC + (k << 3)) - here));
  }
  return lost;
}

/** (C − θΔtLx) d₁ = d, in place, run by run. */
export function sweepRows(d: usize, lower: usize, inverse: usize, runs: usize, bounds: usize, nx: usize): void {
  for (let r: usize = 0; r < bounds; r += 2) {
    const from = bound(runs, r);
    const to = bound(runs, r + 1);
    const share = ((to - from) / (nx << 5)) * (nx << 3);
    if (share > 0) sweepFour(d + from, lower + from, inverse + from, share);
    sweepOne(d, lower, inverse, from + (share << 2), to);
  }
}

function sweepOne(d: usize, lower: usize, inverse: usize, from: usize, to: usize): void {
  let a: f64 = 0;
  for (let i = from; i < to; i += 8) {
    a = load<f64>(d + i) - load<f64>(lower + i) * a;
    store<f64>(d + i, a);
  }
  a = 0;
  for (let i = to; i > from; ) {
    i -= 8;
    a = load<f64>(d + i) * load<f64>(inverse + i) - load<f64>(lower + i, 8) * a;
    store<f64>(d + i, a);
  }
}

/** Rows in four shares side by side: each row is a chain of steps that wait for each other. */
function sweepFour(d: usize, lower: usize, inverse: usize, share: usize): void {
  const s2 = share << 1;
  const s3 = s2 + share;
  let a: f64 = 0;
  let b: f64 = 0;
  let c: f64 = 0;
  let e: f64 = 0;
  for (let i = d, l = lower; i < d + share; i += 8, l += 8) {
    a = load<f64>(i) - load<f64>(l) * a;
    b = load<f64>(i + share) - load<f64>(l + share) * b;
    c = load<f64>(i + s2) - load<f64>(l + s2) * c;
    e = load<f64>(i + s3) - load<f64>(l + s3) * e;
    store<f64>(i, a);
    store<f64>(i + share, b);
    store<f64>(i + s2, c);
    store<f64>(i + s3, e);
  }
  a = b = c = e = 0;
  for (let i = share; i > 0; ) {
    i -= 8;
    const at = d + i;
    const l = lower + i;
    const v = inverse + i;
    a = load<f64>(at) * load<f64>(v) - load<f64>(l, 8) * a;
    b = load<f64>(at + share) * load<f64>(v + share) - load<f64>(l + share, 8) * b;
    c = load<f64>(at + s2) * load<f64>(v + s2) - load<f64>(l + s2, 8) * c;
    e = load<f64>(at + s3) * load<f64>(v + s3) - load<f64>(l + s3, 8) * e;
    store<f64>(at, a);
    store<f64>(at + share, b);
    store<f64>(at + s2, c);
    store<f64>(at + s3, e);
  }
}

/** First half of (C − θΔtL) d′ = C d along an axis, cells `i` to `to`: upwards. */
function forward(d: usize, c: usize, lower: usize, from: usize, to: usize, back: usize): void {
  let i = from;
  const even = i + (((to - i) >> 4) << 4);
  for (; i < even; i += 16) {
    const before = f64x2.mul(v128.load(lower + i), v128.load(d + i - back));
    v128.store(d + i, f64x2.sub(f64x2.mul(v128.load(d + i), v128.load(c + i)), before));
  }
  for (; i < to; i += 8)
    store<f64>(d + i, load<f64>(d + i) * load<f64>(c + i) - load<f64>(lower + i) * load<f64>(d + i - back));
}

/** (C − θΔtLy) d₂ = C d₁, layer by layer; `first` and `end` are the entries of a layer's runs. */
export function sweepColumns(
  d: usize,
  c: usize,
  lower: usize,
  inverse: usize,
  runs: usize,
  first: usize,
  end: usize,
  nx: usize,
): void {
  const ahead = nx << 3;
  for (let r = first; r < end; r += 2) forward(d, c, lower, bound(runs, r), bound(runs, r + 1), ahead);
  for (let r = end; r > first; ) {
    r -= 2;
    const from = bound(runs, r);
    let i = bound(runs, r + 1);
    if ((i - from) & 8) {
      i -= 8;
      store<f64>(
        d + i,
        load<f64>(d + i) * load<f64>(inverse + i) - load<f64>(lower + i + ahead) * load<f64>(d + i + ahead),
      );
    }
    for (; i > from; ) {
      i -= 16;
      const after = f64x2.mul(v128.load(lower + i + ahead), v128.load(d + i + ahead));
      v128.store(d + i, f64x2.sub(f64x2.mul(v128.load(d + i), v128.load(inverse + i)), after));
    }
  }
}

/** (C − θΔtLz) d₃ = C d₂, and T += d₃. */
export function sweepStacks(
  d: usize,
  t: usize,
  c: usize,
  lower: usize,
  inverse: usize,
  runs: usize,
  bounds: usize,
  plane: usize,
): void {
  const ahead = plane << 3;
  for (let r: usize = 0; r < bounds; r += 2) forward(d, c, lower, bound(runs, r), bound(runs, r + 1), ahead);
  for (let r = bounds; r > 0; ) {
    r -= 2;
    const from = bound(runs, r);
    let i = bound(runs, r + 1);
    if ((i - from) & 8) {
      i -= 8;
      const value = load<f64>(d + i) * load<f64>(inverse + i) - load<f64>(lower + i + ahead) * load<f64>(d + i + ahead);
      store<f64>(d + i, value);
      store<f64>(t + i, load<f64>(t + i) + value);
    }
    for (; i > from; ) {
      i -= 16;
      const after = f64x2.mul(v128.load(lower + i + ahead), v128.load(d + i + ahead));
      const value = f64x2.sub(f64x2.mul(v128.load(d + i), v128.load(inverse + i)), after);
      v128.store(d + i, value);
      v128.store(t + i, f64x2.add(v128.load(t + i), value));
    }
  }
}
