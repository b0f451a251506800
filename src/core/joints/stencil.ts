import {
  areaRatio,
  ballFromPasteMm,
  depositMm3,
  metalVolumeFraction,
  transferEfficiency,
  LEAST_AREA_RATIO,
} from './deposit';
import type { AlloyName } from './alloys';

/** Metal weight share of paste (type 4 pastes 88 to 89 %; common practice). */
export const METAL_WEIGHT = 0.885;
/** Foils for hand reballing, mm; common practice. */
export const STENCILS_MM = [0.08, 0.1, 0.12, 0.15] as const;
/** Apertures come in these steps, mm. Engineering estimate. */
const APERTURE_STEP_MM = 0.01;
/** Foil between two apertures that does not tear, mm. Engineering estimate. */
const LEAST_WEB_MM = 0.08;
/** An aperture may be larger than the pad: paste pulls back when it melts. Common practice, no source. */
const OVERPRINT = 1.6;
/** More passes than a hand makes. Engineering estimate. */
const MOST_PASSES = 3;
/** A pass more has to bring the ball so much nearer, as a share of it. Engineering estimate. */
const PASS_COSTS = 0.02;
/** Scatter of one deposit's volume by hand, at and above the least area ratio, and what it grows to below. Estimates. */
const VOLUME_SCATTER = 0.08;

export interface StencilChoice {
  readonly apertureMm: number;
  readonly stencilMm: number;
  readonly passes: number;
  readonly areaRatio: number;
  /** The ball that comes of it, mm, and its standard deviation from ball to ball. */
  readonly ballMm: number;
  readonly ballSdMm: number;
  /** How far it is from the ball wanted, as a share of it, passes counted as trouble. */
  readonly cost: number;
}

export interface BallWanted {
  readonly ballMm: number;
  readonly padMm: number;
  readonly pitchMm: number;
  readonly alloy: AlloyName;
}

/** What one way of printing gives. @returns undefined where the foil would not release or would tear. */
export function printed(
  wanted: BallWanted,
  apertureMm: number,
  stencilMm: number,
  passes: number,
): StencilChoice | undefined {
  const aperture = { round: true, lengthMm: apertureMm, widthMm: apertureMm };
  const ratio = areaRatio(aperture, stencilMm);
  if (ratio < LEAST_AREA_RATIO - 1e-9 || apertureMm > largestAperture(wanted) + 1e-9) return undefined;
  const deposit = depositMm3(aperture, stencilMm, transferEfficiency(ratio));
  const ballMm = ballFromPasteMm(passes * deposit, metalVolumeFraction(METAL_WEIGHT, wanted.alloy));
  return {
    apertureMm,
    stencilMm,
    passes,
    areaRatio: ratio,
    ballMm,
    // d goes with the cube root of the volume; the scatter of passes averages out.
    ballSdMm: (ballMm * VOLUME_SCATTER) / 3 / Math.sqrt(passes),
    cost: Math.abs(ballMm / wanted.ballMm - 1) + PASS_COSTS * (passes - 1),
  };
}

const largestAperture = ({ pitchMm, padMm }: BallWanted): number => Math.min(pitchMm - LEAST_WEB_MM, OVERPRINT * padMm);

/**
 * The aperture, foil and passes that come nearest to the ball wanted. For a foil and a number of passes the ball grows with
 * the aperture, so only the two apertures round the exact one, and the ends of the range, can be best.
 * @returns undefined where no foil releases at all.
 */
export function bestStencil(wanted: BallWanted): StencilChoice | undefined {
  const phi = metalVolumeFraction(METAL_WEIGHT, wanted.alloy);
  const steps = (mm: number): number => mm / APERTURE_STEP_MM;
  let best: StencilChoice | undefined;
  for (const stencilMm of STENCILS_MM) {
    const least = Math.ceil(steps(4 * LEAST_AREA_RATIO * stencilMm) - 1e-9);
    const most = Math.floor(steps(largestAperture(wanted)) + 1e-9);
    for (let passes = 1; passes <= MOST_PASSES; passes++) {
      // πD²/4 · T · transfer · passes · φ = πd³/6
      const exact = Math.sqrt(
        (2 * wanted.ballMm ** 3) / (3 * stencilMm * transferEfficiency(LEAST_AREA_RATIO) * passes * phi),
      );
      const near = [Math.floor(steps(exact)), Math.ceil(steps(exact)), least, most];
      for (const k of near.filter((n) => n >= least && n <= most)) {
        const choice = printed(wanted, k * APERTURE_STEP_MM, stencilMm, passes);
        if (choice && (!best || isBetter(choice, best))) best = choice;
      }
    }
  }
  return best;
}

/** Nearer to the ball; then fewer passes; then the thinner foil. */
export const isBetter = (a: StencilChoice, b: StencilChoice): boolean =>
  a.cost < b.cost - 1e-12 ||
  (a.cost < b.cost + 1e-12 && (a.passes < b.passes || (a.passes === b.passes && a.stencilMm < b.stencilMm)));
