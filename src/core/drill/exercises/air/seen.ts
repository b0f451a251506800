import { partByRef, type Board } from '../../../board';
import { SMALL_KINDS, type HeatCurves } from '../../../heat';
import { ALLOYS } from '../../../joints';
import type { AirDrill } from './flight';

/** What a hand sees and feels at the bench, and nothing more. */
export interface AirSight {
  readonly flux: 'quiet' | 'runs' | 'smokes' | 'smokesThick';
  /** Solder of something small beside the part turned bright. */
  readonly isBrightBeside: boolean;
  readonly isBrowning: boolean;
}

export const FLUX_WORDS: Readonly<Record<AirSight['flux'], string>> = {
  quiet: 'nothing yet',
  runs: 'flux runs',
  smokes: 'smoke rises',
  smokesThick: 'smoke, thick',
};

/** Where flux becomes thin, where it smokes, and where hardly any is left, °C at the joints. Engineering estimates: fluxes differ. */
const FLUX_RUNS_C = 110;
const FLUX_SMOKES_C = 165;
const FLUX_GOES_C = 225;
/** A body's marking browns so far under the limit of its package, K. Engineering estimate. */
const BROWNS_UNDER_K = 5;
/** Packages without a limit of their own, °C. Source: J-STD-020, the lowest classification temperature for lead-free (from memory). */
const USUAL_BODY_LIMIT_C = 245;

const at = (series: ArrayLike<number>, s: number): number =>
  series[Math.max(0, Math.min(series.length - 1, Math.floor(s)))];

/** What is to be seen at a moment of a flight. @param curves at whole seconds, as they truly are. */
export function airSight(board: Board, { ref }: Pick<AirDrill, 'ref'>, curves: HeatCurves, s: number): AirSight {
  const worked = curves.parts.find((p) => p.ref === ref)!;
  const { liquidusC } = ALLOYS[board.alloy];
  const jointC = at(worked.jointMeanC, s);
  const bodyLimitC = partByRef(board, ref)?.bodyLimitC ?? USUAL_BODY_LIMIT_C;
  return {
    flux:
      jointC < FLUX_RUNS_C
        ? 'quiet'
        : jointC < FLUX_SMOKES_C
          ? 'runs'
          : jointC < FLUX_GOES_C
            ? 'smokes'
            : 'smokesThick',
    isBrightBeside: curves.parts.some(
      (p) => p.ref !== ref && SMALL_KINDS.has(partByRef(board, p.ref)!.kind) && at(p.jointMinC, s) >= liquidusC,
    ),
    isBrowning: at(worked.bodyMaxC, s) >= bodyLimitC - BROWNS_UNDER_K,
  };
}

/** Whether the part gives way to a nudge: every joint of it is molten. */
export function swims(board: Board, { ref }: Pick<AirDrill, 'ref'>, curves: HeatCurves, s: number): boolean {
  return at(curves.parts.find((p) => p.ref === ref)!.jointMinC, s) >= ALLOYS[board.alloy].liquidusC;
}
