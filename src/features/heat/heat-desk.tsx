'use client';

import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { NOMINAL_STATION, nozzleFor, startingPlan, type HeatPlan, type Station } from '@/core/heat';
import { partByRef } from '@/core/board';
import type { JobView, KeepEvent } from '@/core/job';
import { useHeatRun, type HeatAnswerOf, type HeatStatus, type Wish } from './use-heat-run';

interface Desk {
  readonly job: JobView;
  readonly stations: readonly Station[];
  readonly station: Station;
  readonly plan: HeatPlan;
  readonly status: HeatStatus;
  readonly last?: HeatAnswerOf;
  /** The shown moment, seconds. */
  readonly atS: number;
  readonly kept: boolean;
  readonly setStation: (id: string) => void;
  readonly setPlan: (plan: HeatPlan) => void;
  /** Sets the dial of the hottest steps so that the coldest joint just gets hot enough. */
  readonly aim: () => void;
  readonly setAtS: (atS: number) => void;
  readonly cancel: () => void;
  readonly retry: () => void;
  readonly keep: () => ReturnType<KeepEvent>;
}

const DeskContext = createContext<Desk | undefined>(undefined);

export function useHeatDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error('useHeatDesk needs a HeatDesk around it');
  return desk;
}

/** The part that the job's decision is about, else the likeliest suspect that is on the board. */
function partOf(job: JobView): string {
  const suspect = job.suspects.find((s) => job.board.parts.some((p) => p.ref === s.ref));
  return partByRef(job.board, job.state.decision?.ref ?? '')?.ref ?? suspect?.ref ?? job.board.ports[0].controller;
}

function firstPlan(job: JobView, station: Station): HeatPlan {
  if (job.state.heatPlan) return job.state.heatPlan.plan;
  const ref = partOf(job);
  const part = partByRef(job.board, ref)!;
  return startingPlan(ref, job.board.alloy, nozzleFor(station.nozzlesMm, job.board.packages[part.package].bodyMm));
}

export interface HeatDeskProps {
  readonly job: JobView;
  readonly stations: readonly Station[];
  readonly onKeep: KeepEvent;
  readonly children: ReactNode;
}

/** Holds the plan that is being worked on, runs it, and shares both with the work, the margin and the entry line. */
export function HeatDesk({ job, stations, onKeep, children }: HeatDeskProps) {
  const known = useMemo(() => (stations.length > 0 ? stations : [NOMINAL_STATION]), [stations]);
  const [stationId, setStation] = useState(job.state.heatPlan?.stationId ?? known[0].id);
  const station = known.find((s) => s.id === stationId) ?? known[0];
  const [wish, setWish] = useState<Wish>(() => ({
    plan: firstPlan(job, station),
    aim: job.state.heatPlan === undefined,
  }));
  const { plan } = wish;
  const setPlan = useCallback((next: HeatPlan) => setWish({ plan: next, aim: false }), []);
  const [chosenS, setAtS] = useState<number>();
  const { status, last, cancel, retry } = useHeatRun(job.board, station, wish, setPlan);
  const fresh = last?.plan === plan && last.station === station ? last : undefined;
  /** Who asked to keep the plan before its simulation was done. */
  const waiting = useRef<((answer: HeatAnswerOf) => void)[]>([]);
  useEffect(() => {
    if (fresh) waiting.current.splice(0).forEach((resolve) => resolve(fresh));
  }, [fresh]);
  const lift = last?.verdict.liftAtS ?? undefined;
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
      stations: known,
      station,
      plan,
      status,
      last,
      atS,
      kept,
      setStation,
      setPlan,
      aim: () => setWish({ plan, aim: true }),
      setAtS,
      cancel,
      retry,
      keep: async () => {
        const answer = fresh ?? (await new Promise<HeatAnswerOf>((resolve) => waiting.current.push(resolve)));
        const { finding, liftAtS, holds } = answer.verdict;
        return onKeep(
          job.number,
          { kind: 'heatPlan', plan: answer.plan, stationId: answer.station.id, finding, liftAtS, holds },
          crypto.randomUUID(),
        );
      },
    }),
    [job, known, station, plan, status, last, atS, kept, setPlan, cancel, retry, fresh, onKeep],
  );
  return <DeskContext value={value}>{children}</DeskContext>;
}
