import type { Random } from '../math';
import type { Inspection } from './inspect';
import { fullPattern, patternWithout, type SitePattern } from '../site';
import type { Scene } from './render';
import { drawScene, type BallSizes } from './scenes';

/** What an inspection got right and wrong of a drawn scene, added up over scenes. */
export interface DetectionScore {
  readonly sites: number;
  readonly missing: { readonly there: number; readonly found: number; readonly false: number };
  readonly bridged: { readonly there: number; readonly found: number; readonly false: number; readonly gaps: number };
  /** Sum of squared diameter errors in pitches, over the balls that are there. */
  readonly squared: number;
  readonly measured: number;
}

export const NO_TALLY: DetectionScore = {
  sites: 0,
  missing: { there: 0, found: 0, false: 0 },
  bridged: { there: 0, found: 0, false: 0, gaps: 0 },
  squared: 0,
  measured: 0,
};

/** Holds an inspection against the truth. A picture in which nothing was found counts every defect as missed. */
export function scored(
  tally: DetectionScore,
  scene: Scene,
  seen: Inspection | undefined,
  pitchMm: number,
): DetectionScore {
  const key = (a: number, b: number): string => `${Math.min(a, b)} ${Math.max(a, b)}`;
  const truth = new Set(scene.bridges.map(({ a, b }) => key(a, b)));
  const told = new Set((seen?.bridges ?? []).map(([a, b]) => key(a, b)));
  const missing = { ...tally.missing };
  let [squared, measured] = [tally.squared, tally.measured];
  scene.balls.forEach((ball, i) => {
    const saysMissing = seen?.balls[i].verdict === 'missing';
    if (!ball) {
      missing.there += 1;
      if (saysMissing) missing.found += 1;
      return;
    }
    if (saysMissing) missing.false += 1;
    else if (seen) {
      squared += (seen.balls[i].diameterMm / pitchMm - ball.diameter) ** 2;
      measured += 1;
    }
  });
  return {
    sites: tally.sites + scene.balls.length,
    missing,
    bridged: {
      there: tally.bridged.there + truth.size,
      found: tally.bridged.found + [...truth].filter((k) => told.has(k)).length,
      false: tally.bridged.false + [...told].filter((k) => !truth.has(k)).length,
      gaps: tally.bridged.gaps + 2 * scene.balls.length,
    },
    squared,
    measured,
  };
}

/** A drawn case: an array of 4 to 400 sites, some of them without a middle or corners, 28 to 52 px to a pitch. */
export function drawCase(random: Random): { scene: Scene; sizes: BallSizes } {
  const between = (low: number, high: number): number => low + (high - low) * random();
  const [columns, rows] = [2 + Math.floor(random() * 19), 2 + Math.floor(random() * 19)];
  const ball = between(0.52, 0.64);
  const sizes = { ball, pad: ball * between(0.75, 0.85) };
  return { scene: drawScene(drawPattern(columns, rows, random()), sizes, between(28, 52), random), sizes };
}

function drawPattern(columns: number, rows: number, kind: number): SitePattern {
  if (kind < 0.6 || columns < 7 || rows < 7) return fullPattern(columns, rows);
  const edge = (c: number, r: number): number => Math.min(c, r, columns - 1 - c, rows - 1 - r);
  if (kind < 0.8) return patternWithout(columns, rows, (c, r) => edge(c, r) > 2);
  const corner = (c: number, r: number): boolean => (c === 0 || c === columns - 1) && (r === 0 || r === rows - 1);
  return patternWithout(columns, rows, (c, r) => corner(c, r) || edge(c, r) > Math.min(columns, rows) / 2 - 2);
}
