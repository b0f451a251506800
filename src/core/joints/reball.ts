import type { Board } from '../board';
import type { AlloyName } from './alloys';
import type { SitePractice } from './cleaning';
import { collapseBall } from './collapse';
import { bestStencil, type StencilChoice } from './stencil';
import { ballHeightMm, coplanarityLimitMm, judgeUniformity, type Uniformity } from './uniformity';

export type ArrayLands = Extract<Board['packages'][string]['lands'], { kind: 'array' }>;

export interface ReballPlan {
  readonly count: number;
  readonly pitchMm: number;
  readonly ballMm: number;
  readonly standoffMm: number;
  readonly gapMm: number;
  readonly stencil?: StencilChoice;
  /** Coplanarity that printed balls are likely to show, mm, against what is allowed. */
  readonly expectedSpreadMm: number;
  readonly limitMm: number;
  readonly way: 'paste' | 'spheres';
  readonly why: string;
  readonly minutes: number;
  readonly cost: number;
}

/** Minutes: setting up, per pass, per sphere, melting and looking over. Engineering estimates. */
const MINUTES = { setUp: 6, pass: 2, sphereSetUp: 8, sphere: 0.06, melt: 5 };
/** Prices in the shop's money: a sphere, paste for a mm³. Engineering estimates. */
const PRICES = { sphere: 0.002, pasteMm3: 0.004 };
/** Of so many balls the highest and the lowest lie about so many standard deviations apart: 4 for 30, 6 for 400. */
const spanInSds = (count: number): number => 2 * Math.sqrt(2 * Math.log(Math.max(2, count / 2)));
/** A paste ball may be so much off the ball wanted. Engineering estimate. */
const NEAR_ENOUGH = 0.1;
/** "Coarse" for the house's default school, mm: paste there, where its spread holds. Engineering estimate. */
const COARSE_MM = 0.5;

/** Paste or spheres for an array, with what each rests on. */
export function planReball(lands: ArrayLands, count: number, alloy: AlloyName, practice: SitePractice): ReballPlan {
  const { pitchMm, padMm, ballMm } = lands;
  const { standoffMm, widestRadiusMm } = collapseBall(ballMm, padMm / 2, padMm / 2);
  const stencil = bestStencil({ ballMm, padMm, pitchMm, alloy });
  const limitMm = practice.coplanarityMm ?? coplanarityLimitMm(pitchMm);
  const expectedSpreadMm = stencil ? spanInSds(count) * heightSd(stencil, padMm / 2) : Infinity;
  const nearEnough = stencil !== undefined && Math.abs(stencil.ballMm / ballMm - 1) <= NEAR_ENOUGH;
  const spreadHolds = expectedSpreadMm <= limitMm;
  const coarse = pitchMm >= COARSE_MM;
  const paste =
    practice.balls === 'paste'
      ? stencil !== undefined
      : practice.balls === 'auto' && coarse && nearEnough && spreadHolds;
  return {
    ...{ count, pitchMm, ballMm, standoffMm, gapMm: pitchMm - 2 * widestRadiusMm, stencil, expectedSpreadMm, limitMm },
    way: paste ? 'paste' : 'spheres',
    why: whyWords({ practice, coarse, nearEnough, spreadHolds, stencil, pitchMm, ballMm }),
    minutes: paste
      ? MINUTES.setUp + MINUTES.pass * stencil!.passes + MINUTES.melt
      : MINUTES.sphereSetUp + MINUTES.sphere * count + MINUTES.melt,
    cost: paste ? PRICES.pasteMm3 * count * 2 * (Math.PI / 6) * stencil!.ballMm ** 3 : PRICES.sphere * count,
  };
}

/** Standard deviation of the height that printed balls stand at on the part. */
function heightSd({ ballMm, ballSdMm }: StencilChoice, padRadiusMm: number): number {
  const by = 0.01 * ballMm;
  return ((ballHeightMm(ballMm + by, padRadiusMm) - ballHeightMm(ballMm - by, padRadiusMm)) / (2 * by)) * ballSdMm;
}

function whyWords(on: {
  practice: SitePractice;
  coarse: boolean;
  nearEnough: boolean;
  spreadHolds: boolean;
  stencil?: StencilChoice;
  pitchMm: number;
  ballMm: number;
}): string {
  if (on.practice.balls === 'spheres') return 'House rule: spheres.';
  if (!on.stencil) return 'No foil releases paste for these pads.';
  if (on.practice.balls === 'paste')
    return on.spreadHolds ? 'House rule: paste.' : 'House rule: paste, though the spread check fails.';
  if (!on.coarse) return `At ${on.pitchMm} mm pitch deposits vary too much to be trusted.`;
  if (!on.nearEnough)
    return `Paste gives ${on.stencil.ballMm.toFixed(2)} mm at best, ${on.ballMm.toFixed(2)} is wanted.`;
  return on.spreadHolds
    ? 'Coarse enough, and the spread of printed balls stays within coplanarity.'
    : 'The spread of printed balls breaks coplanarity.';
}

export interface ReuseVerdict {
  readonly asItIs: boolean;
  readonly uniformity?: Uniformity;
  /** The headline, and the reasons against where there are some. */
  readonly headline: string;
  readonly reasons: readonly string[];
}

/** A ball as it was measured. */
export interface MeasuredBall {
  readonly xMm: number;
  readonly yMm: number;
  readonly diameterMm: number;
  readonly state: 'good' | 'missing' | 'small' | 'large' | 'beside';
}

/** Whether a part can go down with the balls that it has. */
export function judgeReuse(
  balls: readonly MeasuredBall[],
  bridges: number,
  lands: ArrayLands,
  practice: SitePractice,
): ReuseVerdict {
  const there = balls.filter((b) => b.state !== 'missing');
  const count = (state: MeasuredBall['state']): number => balls.filter((b) => b.state === state).length;
  const limitMm = practice.coplanarityMm ?? coplanarityLimitMm(lands.pitchMm);
  const uniformity =
    there.length > 0
      ? judgeUniformity(
          there.map((b) => ({ xMm: b.xMm, yMm: b.yMm, heightMm: ballHeightMm(b.diameterMm, lands.padMm / 2) })),
          limitMm,
        )
      : undefined;
  const told = (n: number, one: string, many: string): string[] => (n === 0 ? [] : [`${n} ${n === 1 ? one : many}`]);
  const reasons = [
    ...told(count('missing'), 'ball is missing', 'balls are missing'),
    ...told(bridges, 'bridge', 'bridges'),
    ...told(count('small'), 'ball is too small', 'balls are too small'),
    ...told(count('large'), 'ball is too large', 'balls are too large'),
    ...told(count('beside'), 'ball stands beside its pad', 'balls stand beside their pads'),
    ...(uniformity && uniformity.opens.length > 0
      ? [`coplanarity ${uniformity.coplanarityMm.toFixed(3)} mm of ${limitMm.toFixed(2)} allowed`]
      : []),
  ];
  return {
    asItIs: reasons.length === 0,
    uniformity,
    headline: reasons.length === 0 ? 'Can go down as it is' : `Rework: ${reasons.slice(0, 2).join(', ')}`,
    reasons,
  };
}
