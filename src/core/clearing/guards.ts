import type { PartRef } from '../identities';
import { bodyBox, partByRef, shieldOver, type Board, type Part } from '../board';
import {
  COARSE_MESH,
  applyPlanEdit,
  judgeHeat,
  marginOf,
  simulateHeat,
  type HeatGoals,
  type HeatPlan,
  type HeatVerdict,
  type Station,
} from '../heat';
import type { EdgeSegment } from './edges';

/** What a neighbour has to fear from the work. */
export interface Threat {
  readonly ref: PartRef;
  readonly what: string;
  readonly from: 'heat' | 'air' | 'tool' | 'shield';
  readonly summary: string;
  /** How much it counts: K missing to a comfortable margin, or as much as that. */
  readonly weight: number;
}

export interface Guard {
  readonly what: string;
  readonly plan: HeatPlan;
  /** What it does to the neighbour it is for, K, and to the moment of the lift, s; null where it is never reached. */
  readonly spares: { readonly ref: PartRef; readonly byK: number };
  readonly laterS: number | null;
  /** Whether the plan holds with it. */
  readonly holds: boolean;
}

/** With more margin than this a neighbour has nothing to fear, K. Engineering estimate. */
const COMFORT_K = 20;
/** Room below which a slip of the tool meets a neighbour, mm; and what that counts. Engineering estimates. */
const TOOL_ROOM_MM = 0.8;
const TOOL_WEIGHT = 15;
const AIR_WEIGHT = 8;
const SHIELD_WEIGHT = 6;
const SHIELD_NEAR_MM = 3;

/** The neighbours of a worked part, those that have most to fear first. */
export function threatsRound(
  board: Board,
  part: Part,
  verdict: HeatVerdict,
  stretches: readonly EdgeSegment[],
): Threat[] {
  const of = (ref: PartRef): string => partByRef(board, ref)?.what ?? '';
  const heat = verdict.neighbours
    .filter((n) => n.limitC - n.peakC < COMFORT_K)
    .map((n): Threat => {
      const own = partByRef(board, n.ref)?.underfilled ? ' and has underfill of its own' : '';
      return {
        ...{ ref: n.ref, what: n.what, from: 'heat' },
        summary: `${n.limited} reach ${Math.round(n.peakC)} of ${Math.round(n.limitC)} °C at second ${Math.round(n.atS)}${own}`,
        weight: COMFORT_K - (n.limitC - n.peakC) + (own ? 5 : 0),
      };
    });
  const air = verdict.swimming.map((ref): Threat => ({
    ...{ ref, what: of(ref), from: 'air', weight: AIR_WEIGHT },
    summary: 'its solder melts too: blown or dragged away',
  }));
  const tool = stretches
    .filter((s) => s.near && s.clearanceMm < TOOL_ROOM_MM)
    .map((s): Threat => ({
      ...{ ref: s.near!, what: of(s.near!), from: 'tool' },
      summary: `${s.clearanceMm.toFixed(1)} mm beside the ${s.name}: a slip meets it`,
      weight: TOOL_WEIGHT * (1 - s.clearanceMm / TOOL_ROOM_MM),
    }));
  const box = bodyBox(board, part);
  const shields = board.parts
    .filter((p) => p.ref !== part.ref && shieldOver(board, p) && !shieldOver(board, part))
    .filter((p) => {
      const b = bodyBox(board, p);
      return (
        Math.hypot(Math.max(0, b.x0 - box.x1, box.x0 - b.x1), Math.max(0, b.y0 - box.y1, box.y0 - b.y1)) <
        SHIELD_NEAR_MM
      );
    })
    .slice(0, 1)
    .map((p): Threat => ({
      ...{ ref: p.ref, what: p.what, from: 'shield', weight: SHIELD_WEIGHT },
      summary: 'under a shield: it keeps the air off and holds the heat; what is inside cannot be seen',
    }));
  const strongest = new Map<string, Threat>();
  for (const t of [...heat, ...air, ...tool, ...shields]) {
    const key = `${t.ref} ${t.from}`;
    if (t.weight > (strongest.get(key)?.weight ?? 0)) strongest.set(key, t);
  }
  return [...strongest.values()].sort((a, b) => b.weight - a.weight);
}

/** The nozzle so far from the neighbour, mm. Engineering estimate: what an eye tells from the middle. */
const BESIDE_MM = 1.5;

/** The nozzle further from a neighbour, to half a millimetre; nothing where it stands as far as it may. */
function beside(
  board: Board,
  station: Station,
  plan: HeatPlan,
  ref: PartRef,
): { what: string; plan: HeatPlan; ref: PartRef }[] {
  const [part, neighbour] = [plan.partRef, ref].map((r) => partByRef(board, r));
  if (!part || !neighbour) return [];
  const apartMm = Math.hypot(part.xMm - neighbour.xMm, part.yMm - neighbour.yMm);
  if (apartMm === 0) return [];
  const away = (from: number, axis: 'xMm' | 'yMm'): number =>
    Math.round(2 * (from + (BESIDE_MM * (part[axis] - neighbour[axis])) / apartMm)) / 2 + 0;
  const [x, y] = plan.offsetMm;
  const moved = applyPlanEdit(board, station, plan, { edit: 'offset', xMm: away(x, 'xMm'), yMm: away(y, 'yMm') });
  return moved.ok ? [{ what: `Nozzle ${BESIDE_MM} mm further from ${ref}`, plan: moved.value, ref }] : [];
}

/** Flow turned down by so much as a guard. Engineering estimate. */
const LESS_FLOW = 0.7;
const MOST_GUARDED = 3;

/**
 * Guards for the neighbours that heat threatens, each tried in the simulation: what it spares and what it costs. Tried on a
 * coarse mesh, of which only differences are taken: whether the plan then holds is said from its margin on the fine one.
 * @param usual the plan's own verdict, on the fine mesh.
 */
export function tryGuards(
  board: Board,
  station: Station,
  plan: HeatPlan,
  usual: HeatVerdict,
  threats: readonly Threat[],
  goals?: HeatGoals,
): Guard[] {
  const judged = (p: HeatPlan): HeatVerdict =>
    judgeHeat(board, p, simulateHeat(board, station, p, { ...COARSE_MESH, frames: false })!, goals);
  const threatened = [...new Set(threats.filter((t) => t.from === 'heat').map((t) => t.ref))].slice(0, MOST_GUARDED);
  if (threatened.length === 0) return [];
  const before = judged(plan);
  const fineK = marginOf(usual).marginK - marginOf(before).marginK;
  const smaller = [...station.nozzlesMm].filter((n) => n < plan.nozzleMm).sort((a, b) => b - a)[0];
  const [worst] = threatened;
  const tries: { what: string; plan: HeatPlan; ref: PartRef }[] = [
    ...threatened
      .filter((ref) => !plan.covers.includes(ref))
      .map((ref) => ({
        what: `Heat tape or a metal cover over ${ref}`,
        plan: { ...plan, covers: [...plan.covers, ref] },
        ref,
      })),
    ...(smaller ? [{ what: `Nozzle of ${smaller} mm`, plan: { ...plan, nozzleMm: smaller }, ref: worst }] : []),
    ...beside(board, station, plan, worst),
    {
      what: 'Less flow',
      plan: { ...plan, steps: plan.steps.map((s) => ({ ...s, flowLpm: Math.round(LESS_FLOW * s.flowLpm) })) },
      ref: worst,
    },
  ];
  const peak = (v: HeatVerdict, ref: PartRef): number => v.neighbours.find((n) => n.ref === ref)?.peakC ?? NaN;
  return tries.map((t) => {
    const after = judged(t.plan);
    return {
      what: t.what,
      plan: t.plan,
      spares: { ref: t.ref, byK: peak(before, t.ref) - peak(after, t.ref) },
      laterS: after.reachedAtS === null || before.reachedAtS === null ? null : after.reachedAtS - before.reachedAtS,
      holds: marginOf(after).marginK + fineK >= 0,
    };
  });
}
