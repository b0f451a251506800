import { Matrix, inverse } from 'ml-matrix';
import type { HeatPlan, HeatStep } from './plan';
import { coversPlan, kindOf, productsOf, type ReducedModel, type StepKind } from './reduced';
import type { HeatCurves, PartCurve } from './simulate';
import { outletSteadyC } from './station';

/** Runs plans of a family: keeps what one second does to the modes for every dial that has been asked for. */
export class ReducedRunner {
  private readonly seconds = new Map<string, Second>();
  private readonly nodes = new Map<string, Node>();

  /** All rows of all parts, one after the other: mean, joints, bodies. */
  private readonly rows: Float64Array;

  constructor(readonly model: ReducedModel) {
    const rows = model.parts.flatMap((p) => [p.jointMean, ...p.joints, ...p.bodies]);
    this.rows = new Float64Array(rows.length * model.modes);
    rows.forEach((row, r) => this.rows.set(row, r * model.modes));
  }

  /**
   * Joint and body curves at whole seconds, like the full solver's.
   * @throws when the plan is not of the model's family.
   */
  run(plan: HeatPlan): HeatCurves {
    const { model } = this;
    if (!coversPlan(model, plan)) throw new Error('ReducedRunner.run: the plan is not of this family');
    const m = model.modes;
    const samples = 1 + plan.steps.reduce((s, step) => s + step.durationS, 0);
    const stride = Math.ceil(samples / AT_ONCE) * AT_ONCE;
    /** modes × stride: how much of every mode there is at every second. */
    const amounts = new Float64Array(m * stride);
    let state: Float64Array = new Float64Array(m + 2);
    state[m + 1] = plan.plateReady ? model.plateGoalC - model.ambientC : 0;
    let before = state;
    let at = 0;
    for (const step of plan.steps) {
      const { after, settled, perSource, radiated } = this.second(step);
      for (let s = 0; s < step.durationS; s++) {
        // Where the modes are half way through the second, by the last one.
        const middle = state.map((v, k) => v + (v - before[k]) / 2);
        const goal = withRadiation(settled, perSource, radiated, middle, m);
        before = state;
        state = stepTowards(after, goal, state);
        at += 1;
        for (let a = 0; a < m; a++) amounts[a * stride + at] = state[a];
      }
    }
    return {
      timesS: Float32Array.from({ length: samples }, (_, i) => i),
      parts: this.curves(readRows(this.rows, amounts, m, stride, model.ambientC), samples, stride),
    };
  }

  /** The curves of all parts from their rows over time. */
  private curves(values: Float64Array, samples: number, stride: number): PartCurve[] {
    let row = 0;
    const next = (): Float64Array => values.subarray(row++ * stride, row * stride);
    return this.model.parts.map(({ ref, joints, bodies }) => {
      const jointMeanC = Float32Array.from(next().subarray(0, samples));
      const jointMinC = new Float32Array(samples).fill(Infinity);
      const jointMaxC = new Float32Array(samples).fill(-Infinity);
      for (let k = 0; k < joints.length; k++) {
        const joint = next();
        for (let i = 0; i < samples; i++) {
          if (joint[i] < jointMinC[i]) jointMinC[i] = joint[i];
          if (joint[i] > jointMaxC[i]) jointMaxC[i] = joint[i];
        }
      }
      const bodyMaxC = jointMaxC.slice();
      for (let k = 0; k < bodies.length; k++) {
        const body = next();
        for (let i = 0; i < samples; i++) if (body[i] > bodyMaxC[i]) bodyMaxC[i] = body[i];
      }
      return { ref, jointMinC, jointMeanC, jointMaxC, bodyMaxC };
    });
  }

  /** What one second of a step does: where the modes, the outlet and the plate settle, and how fast they go there. */
  private second(step: HeatStep): Second {
    const key = `${kindOf(step)} ${step.airSetC}`;
    const kept = this.seconds.get(key);
    if (kept) return kept;
    const { station, ambientC, plateGoalC } = this.model;
    const kind = this.model.kinds.find((k) => k.key === kindOf(step))!;
    const setpointC = step.airSetC ?? 0;
    const lowC = step.airSetC === null ? 0 : NODE_C * Math.floor(setpointC / NODE_C);
    const share = (setpointC - lowC) / NODE_C;
    const low = this.node(kind, lowC);
    const high = share > 0 ? this.node(kind, lowC + NODE_C) : low;
    const between = (of: (node: Node) => Float64Array): Float64Array => {
      const [a, b] = [of(low), of(high)];
      return a.map((v, i) => v + share * (b[i] - v));
    };
    const goals = [
      step.airSetC === null ? 0 : outletSteadyC(station, step.airSetC, step.flowLpm, ambientC) - ambientC,
      plateGoalC - ambientC,
    ];
    const [outlet, plate] = [between((n) => n.perOutlet), between((n) => n.perPlate)];
    const second = {
      after: between((n) => n.after),
      perSource: between((n) => n.perSource),
      radiated: kind.radiated,
      settled: Float64Array.from([...outlet.map((o, k) => o * goals[0] + plate[k] * goals[1]), ...goals]),
    };
    this.seconds.set(key, second);
    return second;
  }

  /** The exact second at one dial, and where the modes settle per kelvin of the outlet and of the plate. */
  private node(kind: StepKind, setpointC: number): Node {
    const key = `${kind.key} ${setpointC}`;
    const kept = this.nodes.get(key);
    if (kept) return kept;
    const { modes: m, station } = this.model;
    const weights = kind.atDials.map((one) =>
      kind.atDials.reduce(
        (w, o) => (o === one ? w : (w * (setpointC - o.setpointC)) / (one.setpointC - o.setpointC)),
        1,
      ),
    );
    const mixed = (of: (at: StepKind['atDials'][number]) => Float64Array): Float64Array => {
      const out = new Float64Array(of(kind.atDials[0]).length);
      kind.atDials.forEach((at, k) => of(at).forEach((v, i) => (out[i] += weights[k] * v)));
      return out;
    };
    const size = m + 2;
    const rates = Matrix.zeros(size, size);
    const [matrix, outlet, plate] = [mixed((a) => a.matrix), mixed((a) => a.outlet), mixed((a) => a.plate)];
    for (let a = 0; a < m; a++) {
      for (let b = 0; b < m; b++) rates.set(a, b, matrix[a * m + b]);
      rates.set(a, m, outlet[a]);
      rates.set(a, m + 1, plate[a]);
    }
    rates.set(m, m, -1 / Math.max(station.outletLagS, LEAST_LAG_S));
    rates.set(m + 1, m + 1, -1 / (station.plate?.lagS ?? 1));
    const perSource = steadyPerSource(matrix, m);
    const node = {
      after: Float64Array.from(exponential(rates).to1DArray()),
      perSource,
      perOutlet: times(perSource, outlet),
      perPlate: times(perSource, plate),
    };
    this.nodes.set(key, node);
    return node;
  }
}

/** The second is computed at these steps of the dial, °C; between them by straight lines: the film changes slowly with it. */
const NODE_C = 40;

interface Node {
  readonly after: Float64Array;
  readonly perOutlet: Float64Array;
  readonly perPlate: Float64Array;
  /** modes × modes: where the modes settle per unit of what feeds each of them. */
  readonly perSource: Float64Array;
}

interface Second {
  readonly after: Float64Array;
  readonly settled: Float64Array;
  readonly perSource: Float64Array;
  readonly radiated: Float64Array;
}

/** So many seconds are read at once: each weight is then loaded once for all of them, which makes it three times as fast (measured). */
const AT_ONCE = 8;

/** rows × stride: ambient + rows · amounts. A plain loop over plain arrays, since it is nearly all of a run's time. */
function readRows(
  rows: Float64Array,
  amounts: Float64Array,
  modes: number,
  stride: number,
  ambientC: number,
): Float64Array {
  const count = rows.length / modes;
  const values = new Float64Array(count * stride);
  for (let r = 0; r < count; r++) {
    for (let t = 0; t < stride; t += AT_ONCE) {
      let [a, b, c, d] = [ambientC, ambientC, ambientC, ambientC];
      let [e, f, g, h] = [ambientC, ambientC, ambientC, ambientC];
      for (let m = 0, i = r * modes, k = t; m < modes; m++, i++, k += stride) {
        const w = rows[i];
        a += w * amounts[k];
        b += w * amounts[k + 1];
        c += w * amounts[k + 2];
        d += w * amounts[k + 3];
        e += w * amounts[k + 4];
        f += w * amounts[k + 5];
        g += w * amounts[k + 6];
        h += w * amounts[k + 7];
      }
      const at = r * stride + t;
      values[at] = a;
      values[at + 1] = b;
      values[at + 2] = c;
      values[at + 3] = d;
      values[at + 4] = e;
      values[at + 5] = f;
      values[at + 6] = g;
      values[at + 7] = h;
    }
  }
  return values;
}

/** An outlet that follows at once would make the rates infinite. */
const LEAST_LAG_S = 1e-2;

function stepTowards(after: Float64Array, settled: Float64Array, state: Float64Array): Float64Array {
  const n = state.length;
  const out = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let sum = settled[i];
    for (let j = 0, k = i * n; j < n; j++, k++) sum += after[k] * (state[j] - settled[j]);
    out[i] = sum;
  }
  return out;
}

/** Where the modes would settle with the radiation of a moment held on. */
function withRadiation(
  settled: Float64Array,
  perSource: Float64Array,
  radiated: Float64Array,
  state: Float64Array,
  m: number,
): Float64Array {
  const products = productsOf(state, m);
  const source = new Float64Array(m);
  for (let a = 0, i = 0; a < m; a++) {
    let sum = 0;
    for (let k = 0; k < products.length; k++, i++) sum += radiated[i] * products[k];
    source[a] = sum;
  }
  const out = settled.slice();
  for (let a = 0, i = 0; a < m; a++) for (let b = 0; b < m; b++, i++) out[a] += perSource[i] * source[b];
  return out;
}

/** −A⁻¹. */
function steadyPerSource(matrix: Float64Array, m: number): Float64Array {
  return Float64Array.from(
    inverse(Matrix.from1DArray(m, m, matrix))
      .mul(-1)
      .to1DArray(),
  );
}

function times(matrix: Float64Array, v: Float64Array): Float64Array {
  const m = v.length;
  return v.map((_, a) => v.reduce((sum, x, b) => sum + matrix[a * m + b] * x, 0));
}

/** Terms of the series for the exponential after scaling below one half: 2⁻¹² / 12! is below rounding. */
const TERMS = 12;

/** eᴹ by scaling and squaring. Source: Moler & Van Loan (2003), method 3. */
function exponential(matrix: Matrix): Matrix {
  const largest = Math.max(...matrix.to2DArray().map((row) => row.reduce((s, v) => s + Math.abs(v), 0)));
  const halvings = Math.max(0, Math.ceil(Math.log2(largest)) + 1);
  const scaled = Matrix.mul(matrix, 2 ** -halvings);
  const n = matrix.rows;
  let sum = Matrix.eye(n, n);
  let term = Matrix.eye(n, n);
  for (let k = 1; k <= TERMS; k++) {
    term = term.mmul(scaled).mul(1 / k);
    sum = sum.add(term);
  }
  for (let k = 0; k < halvings; k++) sum = sum.mmul(sum);
  return sum;
}
