'use client';

import { createContext, useContext, useEffect, useMemo, useReducer, useRef, useState, type ReactNode } from 'react';
import {
  NOMINAL_STATION,
  applyPlanEdit,
  asPlacing,
  nozzleFor,
  shownOf,
  startingPlan,
  withCopper,
  workplaceOf,
  type GoalSets,
  type HeatGoals,
  type HeatPlan,
  type PlanEdit,
  type Station,
} from '@/core/heat';
import { partByRef, type Board } from '@/core/board';
import type { LoggedCurve } from '@/core/calibration';
import type { JobView, KeepEvent } from '@/core/job';
import { afterStep, beginning } from './plan-wish';
import { useOpening, type Opening } from './use-opening';
import { usePreview, type Preview } from './use-preview';
import { useDoubtBand, type DoubtBand } from './use-doubt-band';
import { useHeatRun, type HeatAnswerOf, type HeatStatus, type HeatRequest } from './use-heat-run';

interface Desk {
  readonly job: JobView;
  /** What the plan heats: the job's board, with the upper one on it, or a carrier with the chip alone. */
  readonly board: Board;
  /** What if the board held so many times the copper of its file. */
  readonly copper: number;
  readonly setCopper: (factor: number) => void;
  readonly stations: readonly Station[];
  readonly station: Station;
  readonly plan: HeatPlan;
  readonly goals: HeatGoals;
  /** What is being dragged, as the reduced model sees it. */
  readonly preview?: Preview;
  /** How far the full run came out from what was last dragged, K at the worked part's joints. */
  readonly previewOffK?: number;
  /** The look for a plan that holds, begun with the part; what it finds is shown until the plan is changed by hand. */
  readonly opening?: Opening;
  readonly drag: (plan: HeatPlan) => void;
  readonly drop: () => void;
  readonly status: HeatStatus;
  readonly last?: HeatAnswerOf;
  /** A run that was set aside, to hold others against. */
  readonly held?: HeldRun;
  readonly hold: () => void;
  readonly release: () => void;
  /** Coldest joint over the stations that this one may be. */
  readonly band?: DoubtBand;
  /** A logged run over the prediction. */
  readonly logged?: LoggedRun;
  readonly setLogged: (logged: LoggedRun | undefined) => void;
  /** The shown moment, seconds. */
  readonly atS: number;
  readonly kept: boolean;
  readonly setStation: (id: string) => void;
  /** Takes a whole plan: found, translated, held, or opened. */
  readonly setPlan: (plan: HeatPlan) => void;
  /** The hand is at a figure: the look for a plan ends, so that none is put under the fingers. */
  readonly takeOver: () => void;
  /** Changes the plan by one edit; false where the edit cannot be made here. */
  readonly change: (edit: PlanEdit) => boolean;
  /** Begins with a plan, sets its dial in the same way, and looks for one that holds. */
  readonly begin: (plan: HeatPlan) => void;
  /** Sets the dial of the hottest steps so that the coldest joint just gets hot enough. */
  readonly aim: () => void;
  readonly setAtS: (atS: number) => void;
  readonly cancel: () => void;
  readonly retry: () => void;
  /**
   * @param key of the entry; one is made where nobody retries.
   * @param reason why a plan that breaks a limit is kept all the same.
   */
  readonly keep: (key?: string, reason?: string) => ReturnType<KeepEvent>;
}

/** A run with the copper it was made for. */
export type HeldRun = HeatAnswerOf & { readonly copper: number };

/** What a thermocouple at a part showed. */
export interface LoggedRun {
  readonly name: string;
  readonly curve: LoggedCurve;
}

const DeskContext = createContext<Desk | undefined>(undefined);

export function useHeatDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error('useHeatDesk needs a HeatDesk around it');
  return desk;
}

/** The part that the job's decision is about, else the likeliest suspect that is on the board. */
export function partOf(job: JobView): string {
  const suspect = job.suspects.find((s) => job.board.parts.some((p) => p.ref === s.ref));
  return partByRef(job.board, job.state.decision?.ref ?? '')?.ref ?? suspect?.ref ?? job.board.ports[0].controller;
}

function firstPlan(job: JobView, station: Station, opened: HeatPlan | undefined): HeatPlan {
  if (opened && partByRef(workplaceOf(job.board, opened), opened.partRef)) return opened;
  const off = (ref: string): boolean => job.state.absent.includes(ref);
  const kept = job.state.heatPlan?.plan;
  // The plan that took a part off is where the plan that puts it back begins.
  if (kept) return kept.purpose === 'lift' && off(kept.partRef) ? asPlacing(kept) : kept;
  const ref = partOf(job);
  const { bodyMm } = job.board.packages[partByRef(job.board, ref)!.package];
  const purpose = off(ref) ? 'place' : 'lift';
  return startingPlan(ref, job.board.alloy, nozzleFor(station.nozzlesMm, bodyMm), purpose);
}

export interface HeatDeskProps {
  readonly job: JobView;
  readonly stations: readonly Station[];
  readonly goals: GoalSets;
  /** The plan and station of an address that was opened. */
  readonly opened?: { readonly plan?: HeatPlan; readonly stationId?: string };
  readonly onKeep: KeepEvent;
  readonly children: ReactNode;
}

/** Holds the plan that is being worked on, runs it, and shares both with the work, the margin and the entry line. */
export function HeatDesk({ job, stations, goals: goalSets, opened, onKeep, children }: HeatDeskProps) {
  const known = useMemo(() => (stations.length > 0 ? stations : [NOMINAL_STATION]), [stations]);
  const [stationId, setStation] = useState(opened?.stationId ?? job.state.heatPlan?.stationId ?? known[0].id);
  const station = known.find((s) => s.id === stationId) ?? known[0];
  const [{ plan, aim, lookFrom }, step] = useReducer(afterStep, undefined, () => {
    const first = firstPlan(job, station, opened?.plan);
    return job.state.heatPlan || opened?.plan ? { plan: first, aim: false } : beginning(first);
  });
  const wish = useMemo<HeatRequest>(() => ({ plan, aim }), [plan, aim]);
  const [copper, setCopper] = useState(1);
  const { purpose, partRef, stack } = plan;
  const board = useMemo(
    () => withCopper(workplaceOf(job.board, { purpose, partRef, stack }), copper),
    [job.board, purpose, partRef, stack, copper],
  );
  const [held, setHeld] = useState<HeldRun>();
  const [logged, setLogged] = useState<LoggedRun>();
  const [chosenS, setAtS] = useState<number>();
  const { status, last, cancel, retry } = useHeatRun(board, station, goalSets, wish, step);
  const goals = goalSets[plan.alloy];
  const opening = useOpening(board, station, goals, lookFrom, step);
  const look = usePreview(board, station, plan, goals, status.kind === 'done');
  const [preview, setPreview] = useState<Preview>();
  const [dropped, setDropped] = useState<Preview>();
  const fresh =
    last?.plan === plan && last.station === station && last.goals === goals && last.board === board ? last : undefined;
  const band = useDoubtBand(fresh);
  /** Who asked to keep the plan before its simulation was done. */
  const waiting = useRef<((answer: HeatAnswerOf) => void)[]>([]);
  useEffect(() => {
    if (fresh) waiting.current.splice(0).forEach((resolve) => resolve(fresh));
  }, [fresh]);
  const lift = last?.verdict.actAtS ?? undefined;
  const endS = last ? last.run.timesS[last.run.timesS.length - 1] : 0;
  const atS = Math.min(chosenS ?? lift ?? endS, endS);
  const keptPlan = job.state.heatPlan;
  const kept =
    keptPlan !== undefined &&
    keptPlan.stationId === station.id &&
    JSON.stringify(keptPlan.plan) === JSON.stringify(plan);

  const value = useMemo<Desk>(
    () => ({
      job,
      board,
      copper,
      setCopper,
      held,
      hold: () => last && setHeld({ ...last, copper }),
      release: () => setHeld(undefined),
      band,
      logged,
      setLogged,
      stations: known,
      station,
      plan,
      goals,
      preview,
      previewOffK: fresh && dropped?.plan === plan ? apartK(dropped, fresh) : undefined,
      opening,
      drag: (next) => {
        step({ by: 'takeOver' });
        setPreview(look(next) ?? preview);
      },
      drop: () => {
        if (!preview) return;
        step({ by: 'hand', plan: preview.plan });
        setDropped(preview);
        setPreview(undefined);
      },
      status,
      last,
      atS,
      kept,
      setStation,
      setPlan: (next) => step({ by: 'hand', plan: next }),
      takeOver: () => step({ by: 'takeOver' }),
      change: (edit) => {
        const next = applyPlanEdit(job.board, station, plan, edit);
        if (next.ok) step({ by: 'hand', plan: next.value });
        return next.ok;
      },
      begin: (next) => step({ by: 'begin', plan: next }),
      aim: () => step({ by: 'aim' }),
      setAtS,
      cancel,
      retry,
      keep: async (key = crypto.randomUUID(), reason) => {
        step({ by: 'takeOver' });
        const answer = fresh ?? (await new Promise<HeatAnswerOf>((resolve) => waiting.current.push(resolve)));
        return onKeep(
          job.number,
          {
            kind: 'heatPlan',
            plan: answer.plan,
            stationId: answer.station.id,
            shown: shownOf(answer.verdict),
            reason,
          },
          key,
        );
      },
    }),
    [
      job,
      board,
      copper,
      held,
      band,
      logged,
      known,
      station,
      plan,
      goals,
      preview,
      dropped,
      opening,
      look,
      status,
      last,
      atS,
      kept,
      cancel,
      retry,
      fresh,
      onKeep,
    ],
  );
  return <DeskContext value={value}>{children}</DeskContext>;
}

/** Largest difference at the worked part's joints, K. */
function apartK({ plan, run }: Preview, full: HeatAnswerOf): number {
  const [a, b] = [run, full.run].map((r) => r.parts.find((p) => p.ref === plan.partRef)!.jointMinC);
  return a.reduce((worst, t, i) => Math.max(worst, Math.abs(t - b[i])), 0);
}
