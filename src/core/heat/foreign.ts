import { fail, ok, type Result } from '../result';
import type { HeatPlan } from './plan';
import type { Station } from './station';

/** Settings as somebody else names them: "350 at 80 %, 8 mm, 60 s". */
export interface ForeignSettings {
  readonly setC: number;
  /** Share of their dial's flow, or litres a minute. */
  readonly flow: { readonly share: number } | { readonly lpm: number };
  readonly heightMm: number;
  readonly durationS: number;
  readonly nozzleMm?: number;
  /** What was not said and had to be assumed, in words. */
  readonly assumed: readonly string[];
}

/** What is taken where somebody does not say. Engineering estimates of what "close" and "a minute" mean at a bench. */
const USUAL = { share: 0.6, heightMm: 10, durationS: 60 } as const;
/** After the air: long enough that the peak is seen. Engineering estimate. */
const COOLING_S = 20;

/** A figure with what stands behind it; the first figure without a unit is the dial. */
const FIGURE =
  /(nozzle\s*)?(\d+(?:[.,]\d+)?)\s*(°\s*c\b|c\b|%|l\/min\b|lpm\b|l\b|mm\b|s\b|sec\b|seconds\b|min\b)?(\s*nozzle)?/gi;

/** Reads settings in the words of a note or a message; the order of the figures does not matter. */
export function parseForeign(text: string): Result<ForeignSettings> {
  const found: {
    setC?: number;
    share?: number;
    lpm?: number;
    heightMm?: number;
    durationS?: number;
    nozzleMm?: number;
  } = {};
  for (const [, before, figure, unit = '', after] of text.matchAll(FIGURE)) {
    const value = Number(figure.replace(',', '.'));
    const kind = unit.toLowerCase().replace(/\s/g, '');
    if (before || after) found.nozzleMm = value;
    else if (kind === '%') found.share = value / 100;
    else if (kind.startsWith('l')) found.lpm = value;
    else if (kind === 'mm') found.heightMm = value;
    else if (kind === 'min') found.durationS = 60 * value;
    else if (kind.startsWith('s')) found.durationS = value;
    else found.setC ??= value;
  }
  const { setC, share, lpm, nozzleMm, heightMm = USUAL.heightMm, durationS = USUAL.durationS } = found;
  if (setC === undefined) return fail(`Expected settings such as "350 at 80 %, 8 mm, 60 s"; got "${text.trim()}".`);
  if (setC < 100 || setC > 500) return fail(`Expected a dial from 100 to 500 °C; got ${setC}.`);
  if (share !== undefined && (share <= 0 || share > 1))
    return fail(`Expected a flow up to 100 %; got ${100 * share} %.`);
  if (heightMm < 2 || heightMm > 80) return fail(`Expected a height from 2 to 80 mm; got ${heightMm}.`);
  if (durationS < 5 || durationS > 600) return fail(`Expected 5 to 600 s; got ${durationS}.`);
  const assumed = [
    share === undefined && lpm === undefined && `${100 * USUAL.share} % flow`,
    found.heightMm === undefined && `${USUAL.heightMm} mm`,
    found.durationS === undefined && `${USUAL.durationS} s`,
    nozzleMm === undefined && 'the same nozzle',
  ].filter((words) => words !== false);
  const flow = lpm === undefined ? { share: share ?? USUAL.share } : { lpm };
  return ok({ setC, flow, heightMm, durationS: Math.round(durationS), nozzleMm, assumed });
}

/** The plan that such settings are on their own station: one step of air, then none. */
export function foreignPlan(settings: ForeignSettings, station: Station, like: HeatPlan): HeatPlan {
  const { setC, flow, heightMm, durationS, nozzleMm } = settings;
  const [low, high] = station.flowLpm;
  const flowLpm = 'lpm' in flow ? flow.lpm : low + flow.share * (high - low);
  return {
    ...like,
    nozzleMm: nozzleMm ?? like.nozzleMm,
    steps: [
      { name: 'air', durationS, airSetC: setC, flowLpm, heightMm },
      { name: 'air off', durationS: COOLING_S, airSetC: null, flowLpm: 0, heightMm },
    ],
  };
}
