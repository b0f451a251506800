import { padsOf, partByRef, type Board } from '../board';
import { ALLOYS } from '../joints';
import { offsetLabel } from './offset-label';
import type { HeatPlan } from './plan';
import { outsideValidity } from './validity';
import type { HeatCurves } from './simulate';
import { plateSteadyC, type Station } from './station';
import { crossing, type HeatVerdict } from './verdict';

/** One piece of advice, tied to the number it comes from. */
export interface Advice {
  readonly message: string;
  /** Where it would be seen. */
  readonly atS?: number;
}

/** Faster than this over five seconds, parts and boards warp and pop. Source: J-STD-020 ramp to peak (from memory). */
const FAST_C_PER_S = 3;
/** A nozzle wider than the part and its clearance blows on the neighbours as much as on the part. Engineering estimate. */
const NOZZLE_OVER_CLEARANCE = 1.0;
/** A part that is held below liquidus so long before it melts asks for a plate. Engineering estimate. */
const LONG_S = 75;
/** Between the first and the last joint that melts: a hand would lift too early. Engineering estimate. */
const LATE_JOINT_S = 2;

/** What a practitioner would say beside the curves; nothing where there is nothing to say. */
export function adviceOn(
  board: Board,
  station: Station,
  plan: HeatPlan,
  run: HeatCurves,
  verdict: HeatVerdict,
): Advice[] {
  const { solidusC } = ALLOYS[plan.alloy];
  const { reachC } = verdict;
  const melting = verdict.ownLimitC === null;
  const worked = run.parts.find((p) => p.ref === plan.partRef)!;
  const part = partByRef(board, plan.partRef)!;
  const beside = offsetLabel(board, plan);
  const advice: (Advice | false)[] = [
    verdict.fastestRiseCPerS > FAST_C_PER_S && {
      message: `Too fast: ${verdict.fastestRiseCPerS.toFixed(1)} °C/s at the joints, ${FAST_C_PER_S} is the usual limit. Warm longer or cooler first.`,
    },
    plan.plateSetC === null &&
      station.plate !== null &&
      (verdict.reachedAtS === null || verdict.reachedAtS > LONG_S) && {
        message: `A plate is wanted: ${verdict.reachedAtS === null ? 'air alone never gets there' : `air alone takes ${Math.ceil(verdict.reachedAtS)} s`}.`,
      },
    plateCools(station, plan),
    melting && plan.purpose !== 'reball' && centreLast(board, plan, run, reachC),
    ...outsideValidity(station, plan).map(({ words }) => ({ message: words })),
    tooWide(board, plan),
    ...verdict.swimming.slice(0, 3).map((ref) => {
      const atS = crossing(run.timesS, run.parts.find((p) => p.ref === ref)!.jointMaxC, solidusC);
      return atS !== null && { message: `${ref} will swim at second ${Math.round(atS)}: no side wind, no touch.`, atS };
    }),
    beside !== undefined && { message: `Nozzle ${beside}: hold it there, over the middle it is another plan.` },
    plan.covers.length > 0 &&
      verdict.reachedAtS !== null && {
        message: `${plan.covers.join(' and ')} covered: lay the guards before the air, lift them after it is cold.`,
      },
    part.underfilled &&
      plan.purpose === 'lift' && {
        message: `${part.ref} is underfilled: clear its edges between softening and ${solidusC} °C before the lift.`,
      },
    melting &&
      crossing(run.timesS, worked.jointMaxC, reachC) !== null &&
      verdict.reachedAtS === null && { message: 'Some joints melt, others do not: a pull now lifts pads.' },
    ...purposeAdvice(board, station, plan, verdict),
  ];
  return advice.filter((a) => a !== false);
}

/** An iron on pads, and near plastic, °C. Common practice, no source. */
const IRON_C = 380;
const IRON_NEAR_PLASTIC_C = 300;
/** Plastic so near is touched by a hand that levels pads, mm. Engineering estimate. */
const NEAR_MM = 5;

/** Which iron of the station levels the pads, and how hot. */
function ironForPads(board: Board, station: Station, plan: HeatPlan): Advice | false {
  const [iron] = station.irons;
  if (!iron) return false;
  const part = partByRef(board, plan.partRef)!;
  const near = board.parts.find(
    (p) =>
      p.side === part.side &&
      board.packages[p.package].plastic &&
      Math.hypot(p.xMm - part.xMm, p.yMm - part.yMm) <
        NEAR_MM + Math.max(...board.packages[p.package].bodyMm, ...board.packages[part.package].bodyMm) / 2,
  );
  const [low, high] = iron.setC;
  const setC = Math.min(high, Math.max(low, near ? IRON_NEAR_PLASTIC_C : IRON_C));
  return {
    message: `${iron.name} at ${setC} °C for the pads${near ? `, no hotter beside the plastic of ${near.ref}` : ''}; tips ${iron.tipsMm.join(', ')} mm.`,
  };
}

/** Above this flow loose balls and fresh paste are blown away, l/min. Engineering estimate. */
const BALLS_FLOW_LPM = 25;

/** What belongs to a purpose beside the curves. */
function purposeAdvice(board: Board, station: Station, plan: HeatPlan, verdict: HeatVerdict): (Advice | false)[] {
  switch (plan.purpose) {
    case 'soften':
      return [
        verdict.untilS !== null && {
          message: `Clear with a fine tool pointed away from the precious neighbour, the tight side last; hands off at ${Math.round(verdict.untilS)} s.`,
          atS: verdict.untilS,
        },
      ];
    case 'partBoards':
      return [
        {
          message: `Move the nozzle all the time, in a circle of ${plan.sweepMm ?? 0} mm radius: what stands still burns.`,
        },
        { message: 'What lies between the two boards is not computed: lift straight up, so that nothing is dragged.' },
      ];
    case 'reball': {
      const flow = Math.max(...plan.steps.map((s) => s.flowLpm));
      return [
        flow > BALLS_FLOW_LPM && {
          message: `${flow} l/min blows loose balls away: less flow, or let the flux hold them first.`,
        },
      ];
    }
    case 'site':
      return [ironForPads(board, station, plan)];
    case 'place':
      return [{ message: 'Pull the air away evenly and let it freeze untouched: no solvent before it is cold.' }];
    default:
      return [];
  }
}

/** A plate that is put below cold draws heat off first. */
function plateCools(station: Station, plan: HeatPlan): Advice | false {
  if (plan.plateSetC === null || plan.plateReady || !station.plate) return false;
  const goalC = plateSteadyC(plan.plateSetC, plan.ambientC, station.plate.capC);
  return {
    message: `The plate cools the part now: it starts at ${Math.round(plan.ambientC)} °C and takes about ${Math.round(3 * station.plate.lagS)} s to ${Math.round(goalC)}. Set the board on it when it is ready.`,
  };
}

/** The large pad in the middle melts after the rim. */
function centreLast(board: Board, plan: HeatPlan, run: HeatCurves, liquidusC: number): Advice | false {
  const part = partByRef(board, plan.partRef)!;
  if (!padsOf(board, part).some((p) => p.pin === 'EP')) return false;
  const worked = run.parts.find((p) => p.ref === plan.partRef)!;
  const first = crossing(run.timesS, worked.jointMaxC, liquidusC);
  const last = crossing(run.timesS, worked.jointMinC, liquidusC);
  if (first === null || last === null || last - first < LATE_JOINT_S) return false;
  return {
    message: `Not all joints at once: the first melts at ${first.toFixed(0)} s, the last at ${last.toFixed(0)} s. Nudge; lift only when it slides back.`,
    atS: last,
  };
}

/** A nozzle too large for the room round the part. */
function tooWide(board: Board, plan: HeatPlan): Advice | false {
  const part = partByRef(board, plan.partRef)!;
  const [w, h] = board.packages[part.package].bodyMm;
  const near = board.parts
    .filter((p) => p.ref !== part.ref && p.side === part.side)
    .map((p) => {
      const [pw, ph] = board.packages[p.package].bodyMm;
      const gap = Math.max(Math.abs(p.xMm - part.xMm) - (w + pw) / 2, Math.abs(p.yMm - part.yMm) - (h + ph) / 2);
      return { ref: p.ref, gap };
    })
    .filter((n) => n.gap > 0)
    .sort((a, b) => a.gap - b.gap)[0];
  if (!near) return false;
  const room = Math.max(w, h) + 2 * near.gap;
  if (plan.nozzleMm <= room * NOZZLE_OVER_CLEARANCE) return false;
  return {
    message: `This nozzle is too large for that clearance: ${plan.nozzleMm} mm over ${room.toFixed(1)} mm of part and room beside ${near.ref}.`,
  };
}
