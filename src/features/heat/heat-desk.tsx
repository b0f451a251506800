'use client';

import { useMemo, useReducer, useState, type ReactNode } from 'react';
import {
  NOMINAL_STATION,
  applyPlanEdit,
  withCopper,
  workplaceOf,
  type GoalSets,
  type HeatPlan,
  type Station,
} from '@/core/heat';
import type { JobView, KeepEvent } from '@/core/job';
import { DeskContext, type Desk, type HeldRun, type LoggedRun } from './desk';
import { firstPlan } from './first-plan';
import { afterStep, beginning } from './plan-wish';
import { Playback } from './playback';
import { useDoubtBand } from './use-doubt-band';
import { useHeatRun, type HeatAnswerOf, type HeatRequest } from './use-heat-run';
import { useKeptPlan } from './use-kept-plan';
import { useOpening } from './use-opening';
import { usePreview, type Preview } from './use-preview';

export interface HeatDeskProps {
  readonly job: JobView;
  readonly stations: readonly Station[];
  readonly goals: GoalSets;
  /** The plan and station of an address that was opened. */
  readonly opened?: { readonly plan?: HeatPlan; readonly stationId?: string };
  readonly onKeep: KeepEvent;
  readonly children: ReactNode;
}

/** Holds the plan that is being worked on, runs it, and shares both with the work, the sidebar and the entry line. */
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
  const { status, last, cancel, retry } = useHeatRun(board, station, goalSets, wish, step);
  const goals = goalSets[plan.alloy];
  const opening = useOpening(board, station, goals, lookFrom, step);
  const look = usePreview(board, station, plan, goals, status.kind === 'done');
  const [preview, setPreview] = useState<Preview>();
  const [dropped, setDropped] = useState<Preview>();
  const fresh =
    last?.plan === plan && last.station === station && last.goals === goals && last.board === board ? last : undefined;
  const band = useDoubtBand(fresh);
  const { kept, keep } = useKeptPlan({ job, station, plan, fresh, onKeep });

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
      cancel,
      retry,
      keep: (key, reason) => {
        step({ by: 'takeOver' });
        return keep(key, reason);
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
      kept,
      keep,
      cancel,
      retry,
      fresh,
    ],
  );
  return (
    <DeskContext value={value}>
      <Playback last={last}>{children}</Playback>
    </DeskContext>
  );
}

/** Largest difference at the worked part's joints, K. */
function apartK({ plan, run }: Preview, full: HeatAnswerOf): number {
  const [a, b] = [run, full.run].map((r) => r.parts.find((p) => p.ref === plan.partRef)!.jointMinC);
  return a.reduce((worst, t, i) => Math.max(worst, Math.abs(t - b[i])), 0);
}
