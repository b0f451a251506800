import type { Board } from '../../../board';
import { GOALS_BY_ALLOY, judgeHeat, type HeatCurves, type HeatPlan, type HeatVerdict } from '../../../heat';
import { ALLOYS } from '../../../joints';
import { flightEndS, flyAir, liftedAtS, planFlown, type AirDrill, type Flight } from './flight';
import { swims } from './seen';

/** A mistake of the hot air, by its name. */
export type AirMistake =
  'liftBeforeNudge' | 'pulledCold' | 'neighbourTooHot' | 'partCooked' | 'neverLifted' | 'tooFast';

export const AIR_MISTAKE_WORDS: Readonly<Record<AirMistake, string>> = {
  liftBeforeNudge: 'lifted without a nudge that it gave way to',
  pulledCold: 'pulled while a joint was solid: pads go with it',
  neighbourTooHot: 'a neighbour was hotter than it may be',
  partCooked: 'the part itself was hotter than its package may be',
  neverLifted: 'the air went away and the part is still there',
  tooFast: 'it got hot faster than its package may',
};

/** What each costs of a score of one. Engineering estimates: by what they cost at a bench. */
const COSTS: Readonly<Record<AirMistake, number>> = {
  liftBeforeNudge: 0.2,
  pulledCold: 1,
  neighbourTooHot: 0.4,
  partCooked: 0.4,
  neverLifted: 0.6,
  tooFast: 0.1,
};

/** A nudge says nothing of a lift that comes later than so many seconds after it. Engineering estimate. */
const NUDGE_HOLDS_S = 12;

export interface AirReview {
  readonly plan: HeatPlan;
  /** As they truly were, at whole seconds, to the end of the cooling. */
  readonly curves: HeatCurves;
  readonly verdict: HeatVerdict;
  readonly liftS?: number;
  /** Of the worked part's coldest joint at the lift, °C. */
  readonly coldestAtLiftC?: number;
  /** From when on it could have been lifted; nothing where it never could. */
  readonly couldS?: number;
  readonly mistakes: readonly { readonly name: AirMistake; readonly words: string }[];
  /** From 0 to 1. */
  readonly score: number;
  readonly lesson: string;
}

/** Judges a flight when it is over, by the full solver and the limits that every plan has. */
export function reviewFlight(board: Board, drill: AirDrill, flight: Flight): AirReview {
  const endS = flightEndS(flight);
  const curves = flyAir(board, drill, flight, endS);
  const plan = planFlown(board, drill, flight, endS);
  const verdict = judgeHeat(board, plan, curves, GOALS_BY_ALLOY[board.alloy]);
  const liftS = liftedAtS(flight);
  const worked = curves.parts.find((p) => p.ref === drill.ref)!;
  const { liquidusC } = ALLOYS[board.alloy];
  const first = worked.jointMinC.findIndex((c) => c >= liquidusC);
  const couldS = first === -1 ? undefined : first;
  const names = mistakesOf(board, drill, flight, curves, verdict);
  const mistakes = names.map((name) => ({ name, words: AIR_MISTAKE_WORDS[name] }));
  return {
    ...{ plan, curves, verdict, liftS, couldS, mistakes },
    coldestAtLiftC: liftS === undefined ? undefined : worked.jointMinC[Math.min(liftS, worked.jointMinC.length - 1)],
    score: Math.max(0, 1 - names.reduce((sum, name) => sum + COSTS[name], 0)),
    lesson: lessonOf(names, verdict, liftS, couldS),
  };
}

function mistakesOf(
  board: Board,
  drill: AirDrill,
  flight: Flight,
  curves: HeatCurves,
  verdict: HeatVerdict,
): AirMistake[] {
  const liftS = liftedAtS(flight);
  const found: AirMistake[] = [];
  if (liftS === undefined) found.push('neverLifted');
  else {
    if (!swims(board, drill, curves, liftS)) found.push('pulledCold');
    const told = flight.moves.some(
      (m) => m.do === 'nudge' && m.atS <= liftS && liftS - m.atS <= NUDGE_HOLDS_S && swims(board, drill, curves, m.atS),
    );
    if (!told) found.push('liftBeforeNudge');
  }
  if (verdict.breaks.includes('neighbour')) found.push('neighbourTooHot');
  if (verdict.breaks.includes('body')) found.push('partCooked');
  if (verdict.breaks.includes('rise')) found.push('tooFast');
  return found;
}

/** The one thing that would have saved most. */
function lessonOf(
  names: readonly AirMistake[],
  verdict: HeatVerdict,
  liftS: number | undefined,
  couldS: number | undefined,
): string {
  const hot = verdict.neighbours.find((n) => !n.holds);
  if (names.includes('pulledCold'))
    return couldS === undefined
      ? 'It never melted: more air, nearer, or a plate below. A nudge that does not move it says so before the pads do.'
      : `It melted at ${couldS} s. Nudge lightly first: what does not give way is not pulled.`;
  if (names.includes('neverLifted'))
    return couldS === undefined
      ? 'It never melted with this air: raise it in steps of ten or twenty, or come nearer.'
      : `It swam from ${couldS} s on: a nudge every few seconds would have told.`;
  if (hot)
    return `${hot.ref} reached ${hot.peakC.toFixed(0)} °C and may have ${hot.limitC.toFixed(0)}: cover it, or take a narrower nozzle.`;
  if (names.includes('partCooked')) return 'Less air for longer: the package was the hottest thing on the board.';
  if (names.includes('liftBeforeNudge')) return 'It swam, this time. Nudge before the lift: the pads are not yours.';
  if (names.includes('tooFast')) return 'Begin further away: packages crack where they are heated too fast.';
  const late = liftS !== undefined && couldS !== undefined ? liftS - couldS : 0;
  return late > 10 ? `Clean. It swam ${late} s before: nudge more often.` : 'Clean, and in time.';
}
