import { landsOf, type Board, type Part } from '../board';
import type { AlloyName } from './alloys';
import { centrePaste, type CentrePaste } from './centre';
import { DEFAULT_SITE_PRACTICE, type SitePractice } from './cleaning';
import { LEAST_AREA_RATIO, areaRatio } from './deposit';
import { planReball, type ReballPlan } from './reball';

/** A figure that the site's plan rests on, with a verdict. */
export interface SiteFigure {
  readonly label: string;
  readonly value: string;
  readonly good: boolean;
}

/** What a site needs before the part goes down, computed from its own pads. */
export interface SitePlan {
  readonly kind: 'balls' | 'leadless';
  readonly joints: number;
  readonly pitchMm: number;
  readonly figures: readonly SiteFigure[];
  /** An instruction, as a headline. */
  readonly headline: string;
  /** Why, in one sentence. */
  readonly reason: string;
  readonly reball?: ReballPlan;
  readonly centre?: CentrePaste;
}

/** Foil for the pads of a leadless part, mm; common practice, no source. */
const LEADLESS_FOIL_MM = 0.1;
/** Less solder than this on a pad is no joint, mm; a joint less high than the second bridges under the part. Estimates. */
const LEAST_HEIGHT_MM = 0.02;
const LEAST_STANDOFF_MM = 0.05;
/** Joints nearer to each other than this share of the pitch are likely to bridge. Engineering estimate. */
const LEAST_GAP_SHARE = 0.25;

export function planSite(
  board: Board,
  part: Part,
  alloy: AlloyName,
  practice: SitePractice = DEFAULT_SITE_PRACTICE,
): SitePlan {
  const pkg = board.packages[part.package];
  return pkg.lands.kind === 'array'
    ? planBalls(planReball(pkg.lands, landsOf(pkg).length, alloy, practice))
    : planLeadless(pkg, alloy);
}

const um = (mm: number): string => (1000 * mm).toFixed(0);

function planBalls(reball: ReballPlan): SitePlan {
  const { count, pitchMm, ballMm, standoffMm, gapMm, stencil, expectedSpreadMm, limitMm, way, minutes, cost } = reball;
  return {
    kind: 'balls',
    joints: count,
    pitchMm,
    figures: [
      { label: 'Standoff after collapse', value: `${standoffMm.toFixed(3)} mm`, good: standoffMm > LEAST_STANDOFF_MM },
      { label: 'Gap between joints', value: `${gapMm.toFixed(3)} mm`, good: gapMm > LEAST_GAP_SHARE * pitchMm },
      {
        label: 'Ball from paste',
        value: stencil ? `${stencil.ballMm.toFixed(3)} of ${ballMm.toFixed(2)} mm` : 'no foil releases',
        good: stencil !== undefined && Math.abs(stencil.ballMm / ballMm - 1) < 0.1,
      },
      {
        label: 'Their spread in height',
        value: stencil ? `${um(expectedSpreadMm)} of ${um(limitMm)} µm` : '–',
        good: expectedSpreadMm <= limitMm,
      },
      ...(stencil
        ? [
            {
              label: 'Foil, hole, area ratio',
              value: `${stencil.stencilMm.toFixed(2)}, ${stencil.apertureMm.toFixed(2)} mm, ${stencil.areaRatio.toFixed(2)}`,
              good: stencil.areaRatio >= LEAST_AREA_RATIO,
            },
          ]
        : []),
    ],
    headline:
      way === 'paste'
        ? `${count} balls: paste, ${stencil!.passes === 1 ? 'one pass' : `${stencil!.passes} passes`}`
        : `${count} balls: set spheres of ${ballMm.toFixed(2)} mm`,
    reason: `${reball.why} About ${Math.round(minutes)} minutes and ${cost.toFixed(2)} in material.`,
    reball,
  };
}

function planLeadless(pkg: Board['packages'][string], alloy: AlloyName): SitePlan {
  const pads = landsOf(pkg);
  const edge = pads.filter((p) => p.pin !== 'EP');
  const centrePad = pads.find((p) => p.pin === 'EP');
  const smallest = [...edge].sort((a, b) => a.wMm * a.hMm - b.wMm * b.hMm)[0];
  const aperture = {
    lengthMm: Math.max(smallest.wMm, smallest.hMm),
    widthMm: Math.min(smallest.wMm, smallest.hMm),
  };
  const ratio = areaRatio({ round: false, ...aperture }, LEADLESS_FOIL_MM);
  const centre = centrePaste(aperture, [centrePad?.wMm ?? 1, centrePad?.hMm ?? 1], LEADLESS_FOIL_MM, alloy);
  const percent = (share: number): string => `${Math.round(100 * share)} %`;
  return {
    kind: 'leadless',
    joints: edge.length + (centrePad ? 1 : 0),
    pitchMm: pitchOf(edge),
    figures: [
      {
        label: `Area ratio, ${LEADLESS_FOIL_MM.toFixed(2)} mm foil`,
        value: ratio.toFixed(2),
        good: ratio >= LEAST_AREA_RATIO,
      },
      {
        label: 'Solder height on a pad',
        value: `${(centre.edgeHeightMm * 1000).toFixed(0)} µm`,
        good: centre.edgeHeightMm > LEAST_HEIGHT_MM,
      },
      ...(centrePad
        ? [
            {
              label: `Centre pad, ${percent(centre.least)} to ${percent(centre.most)}`,
              value: `${percent(centre.take)} paste`,
              good: centre.least < centre.most,
            },
            {
              label: 'Windows in its foil',
              value: `${centre.windows} of ${centre.windowMm.toFixed(2)} mm`,
              good: true,
            },
          ]
        : []),
    ],
    headline: `${edge.length} pads${centrePad ? ' and a centre pad' : ''}: tin and level, no balls`,
    reason: centrePad
      ? `Paste on ${percent(centre.take)} of the centre pad: over ${percent(centre.most)} floats the part, under ${percent(centre.least)} starves it.`
      : 'A tinned, level surface is all it needs.',
    centre: centrePad && centre,
  };
}

function pitchOf(pads: readonly { xMm: number; yMm: number }[]): number {
  let least = Infinity;
  for (let i = 1; i < pads.length; i++)
    least = Math.min(least, Math.hypot(pads[i].xMm - pads[i - 1].xMm, pads[i].yMm - pads[i - 1].yMm));
  return Number(least.toFixed(2));
}
