import {
  BOARD_EMISSIVITY,
  BOTTOM_NATURAL,
  HeatSolver,
  TOP_NATURAL,
  airOver,
  emptyGrid,
  outletSteadyC,
  stepLengths,
  type Films,
  type HeatGrid,
  type Station,
  type StationUnknowns,
  withUnknowns,
} from '../heat';

/**
 * The coupon: a board of 40 × 40 × 1.6 mm with a copper slug of 8 × 8 × 1.5 mm on its middle, that the air is blown on. Alloys
 * melt on the slug, thermocouples sit on it and on the board beside it. One quarter is computed; the rest mirrors it.
 */
const HALF_BOARD_MM = 20;
const HALF_SLUG_MM = 4;
const BOARD_LAYERS_MM = [0.64, 0.64, 0.32];
const SLUG_MM = 1.5;

/** Glass-epoxy with two layers of 35 µm copper, half of it left: rule of mixtures, W/m·K; through it and heat capacity as for boards. */
const BOARD_K = 0.3 + (385 * 2 * 0.035 * 0.5) / 1.6;
const BOARD_K_THROUGH = 0.4;
const BOARD_HEAT_CAPACITY = 2.1e6;
/** Copper, W/m·K and J/m³K. Handbook values. */
const SLUG_K = 385;
const SLUG_HEAT_CAPACITY = 3.45e6;
/** The slug is soldered down all over: W/m²K. Engineering estimate. */
const SLUG_JOINT = 5e4;
/** Copper that was heated a few times is oxidised: emissivity 0.6 to 0.8. Handbook range, from memory. */
const SLUG_EMISSIVITY = 0.6;

/** Where thermocouples may sit: on the slug, or on the board so far from the middle, mm. */
export const PROBE_PLACES_MM = { slug: 0, near: 8, far: 15 } as const;
export type ProbePlace = keyof typeof PROBE_PLACES_MM;

/** One blow at the coupon: everything constant, from a cold start. */
export interface CouponRun {
  readonly setC: number;
  readonly flowLpm: number;
  readonly nozzleMm: number;
  readonly heightMm: number;
  readonly durationS: number;
  readonly ambientC: number;
}

/** What is not known of a station and its coupon. */
export interface Unknowns extends Readonly<StationUnknowns> {
  /** The coupon's heat capacity against its drawing. */
  readonly heatShare: number;
  /** What a probe shows of the true rise: 1 reads right. */
  readonly probeShare: number;
}

/** True temperatures at whole seconds at the three places, °C. */
export type CouponCurves = Record<ProbePlace, Float64Array>;

const CELLS_MM = cellSizes();

function cellSizes(): number[] {
  const sizes = [1, 1, 1, 1];
  for (let sum = HALF_SLUG_MM, size = 1; HALF_BOARD_MM - sum > 1e-9; sum += sizes[sizes.length - 1])
    sizes.push(Math.min(HALF_BOARD_MM - sum, (size = Math.min(2.5, size * 1.3))));
  return sizes;
}

const centres = CELLS_MM.map((size, i) => CELLS_MM.slice(0, i).reduce((a, b) => a + b, 0) + size / 2);

/** Whether a column lies under the slug. */
function onSlug(column: number): boolean {
  const n = CELLS_MM.length;
  return centres[column % n] <= HALF_SLUG_MM && centres[Math.floor(column / n)] <= HALF_SLUG_MM;
}

function couponGrid(heatShare: number): HeatGrid {
  const cells = Float64Array.from(CELLS_MM, (mm) => mm / 1000);
  const layers = Float64Array.from([...BOARD_LAYERS_MM, SLUG_MM], (mm) => mm / 1000);
  const grid = emptyGrid(cells, cells, layers);
  const n = cells.length;
  const plane = n * n;
  for (let i = 0; i < 4 * plane; i++) {
    const slug = i >= 3 * plane;
    if (slug && !onSlug(i % plane)) continue;
    grid.kxy[i] = slug ? SLUG_K : BOARD_K;
    grid.kz[i] = slug ? SLUG_K : BOARD_K_THROUGH;
    grid.heatCapacity[i] = heatShare * (slug ? SLUG_HEAT_CAPACITY : BOARD_HEAT_CAPACITY);
    if (i >= 2 * plane) grid.jointConductance[i] = SLUG_JOINT;
  }
  return grid;
}

/** Simulates a blow. The side faces are left out: two of four are planes of symmetry, the others see little air. */
export function blowCoupon(station: Station, unknowns: Unknowns, run: CouponRun): CouponCurves {
  const { efficiencyByFlow } = station;
  const at: Station = withUnknowns(
    { ...station, multiplierByFlow: [], efficiencyByFlow: efficiencyByFlow ?? { exponent: 0, atFlowLpm: run.flowLpm } },
    unknowns,
  );
  const { lossShare } = unknowns;
  const grid = couponGrid(unknowns.heatShare);
  const n = grid.nx;
  const plane = n * n;
  const films: Films = {
    topFilm: new Float64Array(plane),
    topC: new Float64Array(plane).fill(run.ambientC),
    bottomFilm: new Float64Array(plane).fill(lossShare * BOTTOM_NATURAL),
    bottomC: new Float64Array(plane).fill(run.ambientC),
    sideFilm: 0,
    sideC: run.ambientC,
    radiation: {
      top: Float64Array.from({ length: plane }, (_, i) => lossShare * (onSlug(i) ? SLUG_EMISSIVITY : BOARD_EMISSIVITY)),
      bottom: new Float64Array(plane).fill(lossShare * BOARD_EMISSIVITY),
      side: 0,
      surroundingsC: run.ambientC,
    },
  };
  const share = new Float64Array(plane);
  const air = airOver(at, run, { airSetC: run.setC, flowLpm: run.flowLpm, heightMm: run.heightMm });
  for (let i = 0; i < plane; i++) {
    const { h, share: entrained } = air(Math.hypot(centres[i % n], centres[Math.floor(i / n)]));
    films.topFilm[i] = Math.cbrt(h ** 3 + (lossShare * TOP_NATURAL) ** 3);
    share[i] = entrained;
  }
  const solver = new HeatSolver(grid, run.ambientC);
  const goalC = outletSteadyC(at, run.setC, run.flowLpm, run.ambientC);
  const lagS = Math.max(at.outletLagS, 1e-3);
  const cellOf = (mm: number): number => centres.findIndex((_, i) => centres[i] + CELLS_MM[i] / 2 > mm);
  const probes = {
    slug: 3 * plane,
    near: 2 * plane + cellOf(PROBE_PLACES_MM.near),
    far: 2 * plane + cellOf(PROBE_PLACES_MM.far),
  };
  const curves = {
    slug: new Float64Array(run.durationS + 1).fill(run.ambientC),
    near: new Float64Array(run.durationS + 1).fill(run.ambientC),
    far: new Float64Array(run.durationS + 1).fill(run.ambientC),
  };
  let timeS = 0;
  const moving = { ambientC: run.ambientC, topShare: share };
  solver.setFilms(films);
  for (const stepS of stepLengths(run.durationS)) {
    const outletC = goalC + (run.ambientC - goalC) * Math.exp(-(timeS + stepS / 2) / lagS);
    solver.setAir(moving, outletC - run.ambientC, run.ambientC);
    solver.step(stepS);
    timeS += stepS;
    const second = Math.round(timeS);
    if (Math.abs(timeS - second) > 1e-6) continue;
    for (const place of Object.keys(probes) as ProbePlace[]) curves[place][second] = solver.temps[probes[place]];
  }
  return curves;
}

/** Blows of one station, each simulated once: trials share them, and an unknown that a blow does not feel begins no new one. */
export class Blows {
  private readonly known = new Map<string, CouponCurves>();

  constructor(readonly station: Station) {}

  curves(unknowns: Unknowns, run: CouponRun): CouponCurves {
    const atFlowLpm = this.station.efficiencyByFlow?.atFlowLpm ?? run.flowLpm;
    const felt = { ...unknowns, probeShare: 1, ...(run.flowLpm === atFlowLpm ? { flowExponent: 0 } : {}) };
    const key = [...Object.values(felt), ...Object.values(run)].join(' ');
    const curves = this.known.get(key) ?? blowCoupon(this.station, felt, run);
    this.known.set(key, curves);
    return curves;
  }
}

/** First time at which a curve at whole seconds reaches a level, interpolated; null when it never does. */
export function reaches(curve: Float64Array, levelC: number): number | null {
  const i = curve.findIndex((t) => t >= levelC);
  if (i < 0) return null;
  return i === 0 ? 0 : i - 1 + (levelC - curve[i - 1]) / (curve[i] - curve[i - 1]);
}
