import { inverse } from 'ml-matrix';
import type { Station } from '../heat';
import { Blows, reaches, type CouponRun, type Unknowns } from './coupon';
import { BEFORE, NAMES, centreOf, jacobian, normalOf, residualsOf, stepOf } from './least-squares';
import {
  COUPON_ALLOYS_C,
  LONGEST_MELT_S,
  THRESHOLD_S,
  THRESHOLD_STEP_C,
  blowOf,
  type MeltTrial,
  type Trial,
} from './observation';

/** What the guided protocol may ask for next: thresholds of two alloys, and three alloys timed hot and hotter. */
const ASKED: readonly { readonly kind: 'melt' | 'threshold'; readonly alloyC: number; readonly setC?: number }[] = [
  { kind: 'threshold', alloyC: 138 },
  { kind: 'threshold', alloyC: 183 },
  ...[350, 400].flatMap((setC) => COUPON_ALLOYS_C.map((alloyC) => ({ kind: 'melt' as const, alloyC, setC }))),
];

export interface AskedTrial {
  readonly kind: 'melt' | 'threshold';
  readonly alloyC: number;
  /** For a threshold: where to look for it. */
  readonly setC: number;
}

/** The trial that narrows the doubt of efficiency and multiplier most, from what is known so far (D-optimal design). */
export const nextTrial = (station: Station, trials: readonly Trial[]): AskedTrial =>
  mostTelling(new Blows(station), trials, centreOf(BEFORE));

/** The same where a fit stands. */
export function mostTelling(blows: Blows, trials: readonly Trial[], now: Unknowns): AskedTrial {
  const base = trials.find((t) => t.kind !== 'fixedPoint') ?? DEFAULT_BLOW;
  const known = normalOf(jacobian(blows, trials, now, residualsOf(blows, trials, now)));
  const candidates = ASKED.flatMap((asked): { asked: AskedTrial; trial: Trial }[] => {
    const setC = asked.setC ?? lowestSetting(blows, now, base, asked.alloyC);
    const done = trials.some(
      (t) => t.kind === asked.kind && t.alloyC === asked.alloyC && (t.kind === 'threshold' || t.setC === setC),
    );
    if (done || setC > blows.station.setC[1]) return [];
    const trial = { ...base, kind: asked.kind, alloyC: asked.alloyC, setC } as Trial;
    if (trial.kind === 'threshold') return [{ asked: { ...asked, setC }, trial }];
    const { slug } = blows.curves(now, { ...blowOf(base), setC, durationS: LONGEST_MELT_S });
    const seconds = reaches(slug, asked.alloyC);
    return seconds === null ? [] : [{ asked: { ...asked, setC }, trial: { ...trial, seconds } as MeltTrial }];
  });
  const sdRelative = ({ trial }: { trial: Trial }): number => {
    const here = residualsOf(blows, [trial], now).slice(0, 1);
    const rows = NAMES.map((name) => {
      const step = stepOf(now[name]);
      return (residualsOf(blows, [trial], { ...now, [name]: now[name] + step })[0] - here[0]) / step;
    });
    const more = known.clone();
    rows.forEach((a, i) => rows.forEach((b, j) => more.set(i, j, more.get(i, j) + a * b)));
    const c = inverse(more);
    return c.get(0, 0) * c.get(1, 1) - c.get(0, 1) ** 2;
  };
  const told = candidates.map((c) => ({ ...c, doubt: sdRelative(c) }));
  // All asked and done: the hottest melt once more.
  if (told.length === 0) return { kind: 'melt', alloyC: 217, setC: 400 };
  return told.reduce((a, b) => (b.doubt < a.doubt ? b : a)).asked;
}

/** The blow that the protocol proposes on a station that has it. Common practice for the figures. */
export const DEFAULT_BLOW = { flowLpm: 30, nozzleMm: 6, heightMm: 12, ambientC: 22, setC: 350 } as const;

/** The lowest set point, in fives, at which an alloy melts within two minutes. */
export function thresholdOf(
  station: Station,
  at: Unknowns,
  blow: Omit<CouponRun, 'durationS' | 'setC'>,
  alloyC: number,
): number {
  return lowestSetting(new Blows(station), at, blow, alloyC);
}

function lowestSetting(
  blows: Blows,
  at: Unknowns,
  blow: Omit<CouponRun, 'durationS' | 'setC'>,
  alloyC: number,
): number {
  const reachedC = (setC: number): number =>
    blows.curves(at, { ...blowOf({ ...blow, setC }), durationS: THRESHOLD_S }).slug[THRESHOLD_S];
  // All but linear in the set point: a secant finds it, the last steps walk the fives.
  let setC = 300;
  for (let k = 0; k < 3; k++) {
    const reached = reachedC(setC);
    setC = Math.round(blow.ambientC + ((setC - blow.ambientC) * (alloyC - blow.ambientC)) / (reached - blow.ambientC));
  }
  setC = Math.ceil(setC / THRESHOLD_STEP_C) * THRESHOLD_STEP_C;
  while (reachedC(setC - THRESHOLD_STEP_C) >= alloyC) setC -= THRESHOLD_STEP_C;
  while (reachedC(setC) < alloyC) setC += THRESHOLD_STEP_C;
  return setC;
}

export const trialWords = ({ kind, alloyC, setC }: AskedTrial): string =>
  kind === 'threshold'
    ? `find the lowest set point, in fives, that melts the ${alloyC} °C alloy within ${THRESHOLD_S} s; look near ${setC}`
    : `time the ${alloyC} °C alloy at ${setC}`;
