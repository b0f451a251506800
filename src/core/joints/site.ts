import { padsOf, type Board, type Part } from '../board';
import type { AlloyName } from './alloys';
import { collapseBall } from './collapse';
import {
  LEAST_AREA_RATIO,
  areaRatio,
  ballFromPasteMm,
  depositMm3,
  metalVolumeFraction,
  transferEfficiency,
} from './deposit';

/** What a site needs before the part goes down, computed from its own pads. */
export interface SitePlan {
  readonly kind: 'balls' | 'leadless';
  readonly joints: number;
  readonly pitchMm: number;
  /** Lines of figures with a verdict each. */
  readonly figures: readonly { readonly label: string; readonly value: string; readonly good: boolean }[];
  /** An instruction, as a headline. */
  readonly headline: string;
  /** Why, in one sentence. */
  readonly words: string;
}

/** Usual metal weight share of paste (type 4 pastes 88–89 %; common practice). */
const METAL_WEIGHT = 0.885;
/** Stencils for hand reballing, mm; common practice. */
const STENCILS_MM = [0.08, 0.1, 0.12];
/** A centre pad gets paste on this share of its area: more floats the part, less starves it (common practice). */
const CENTRE_COVERAGE = 0.5;

export function planSite(board: Board, part: Part, alloy: AlloyName): SitePlan {
  const lands = board.packages[part.package].lands;
  return lands.kind === 'array' ? planBalls(lands, alloy) : planLeadless(board, part, alloy);
}

type ArrayLands = Extract<Board['packages'][string]['lands'], { kind: 'array' }>;

function planBalls(lands: ArrayLands, alloy: AlloyName): SitePlan {
  const padRadius = lands.padMm / 2;
  const { standoffMm, widestRadiusMm } = collapseBall(lands.ballMm, padRadius, padRadius);
  const gapMm = lands.pitchMm - 2 * widestRadiusMm;
  const aperture = { round: true, lengthMm: lands.padMm, widthMm: lands.padMm };
  const stencil = [...STENCILS_MM].reverse().find((t) => areaRatio(aperture, t) >= LEAST_AREA_RATIO);
  const pasteBall = stencil
    ? ballFromPasteMm(
        depositMm3(aperture, stencil, transferEfficiency(areaRatio(aperture, stencil))),
        metalVolumeFraction(METAL_WEIGHT, alloy),
      )
    : 0;
  const enough = pasteBall > 0.9 * lands.ballMm;
  const joints = lands.columns * lands.rows;
  return {
    kind: 'balls',
    joints,
    pitchMm: lands.pitchMm,
    figures: [
      { label: 'Standoff after collapse', value: `${standoffMm.toFixed(3)} mm`, good: standoffMm > 0.05 },
      { label: 'Gap between joints', value: `${gapMm.toFixed(3)} mm`, good: gapMm > 0.25 * lands.pitchMm },
      {
        label: 'Ball from one paste pass',
        value: stencil ? `${pasteBall.toFixed(3)} of ${lands.ballMm.toFixed(2)} mm` : 'no stencil releases',
        good: enough,
      },
    ],
    headline: enough ? `${joints} balls: one paste pass` : `${joints} balls: set spheres`,
    words: `Balls of ${lands.ballMm.toFixed(2)} mm at ${lands.pitchMm} mm pitch. One paste pass gives ${enough ? 'enough' : 'too little for this ball'}.`,
  };
}

function planLeadless(board: Board, part: Part, alloy: AlloyName): SitePlan {
  const pads = padsOf(board, part);
  const edge = pads.filter((p) => p.pin !== 'EP');
  const centre = pads.find((p) => p.pin === 'EP');
  const smallest = [...edge].sort((a, b) => a.wMm * a.hMm - b.wMm * b.hMm)[0];
  const aperture = {
    round: false,
    lengthMm: Math.max(smallest.wMm, smallest.hMm),
    widthMm: Math.min(smallest.wMm, smallest.hMm),
  };
  const stencilMm = 0.1;
  const ratio = areaRatio(aperture, stencilMm);
  const perPad = depositMm3(aperture, stencilMm, transferEfficiency(ratio)) * metalVolumeFraction(METAL_WEIGHT, alloy);
  const padStandoff = perPad / (aperture.lengthMm * aperture.widthMm);
  const figures = [
    { label: 'Area ratio, 0.10 mm stencil', value: ratio.toFixed(2), good: ratio >= LEAST_AREA_RATIO },
    { label: 'Solder height on a pad', value: `${(padStandoff * 1000).toFixed(0)} µm`, good: padStandoff > 0.02 },
  ];
  if (centre) {
    const centreHeight = CENTRE_COVERAGE * stencilMm * 0.85 * metalVolumeFraction(METAL_WEIGHT, alloy);
    figures.push({
      label: `Centre pad at ${CENTRE_COVERAGE * 100} % paste`,
      value: `${(centreHeight * 1000).toFixed(0)} µm`,
      good: centreHeight <= padStandoff * 1.1,
    });
  }
  return {
    kind: 'leadless',
    joints: edge.length + (centre ? 1 : 0),
    pitchMm: pitchOf(edge),
    figures,
    headline: `${edge.length} pads${centre ? ' and a centre pad' : ''}: tin and level, no balls`,
    words: centre
      ? 'Half of the centre pad in paste: more floats the part, less starves it.'
      : 'A tinned, level surface is all it needs.',
  };
}

function pitchOf(pads: readonly { xMm: number; yMm: number }[]): number {
  let least = Infinity;
  for (let i = 1; i < pads.length; i++)
    least = Math.min(least, Math.hypot(pads[i].xMm - pads[i - 1].xMm, pads[i].yMm - pads[i - 1].yMm));
  return Number(least.toFixed(2));
}
