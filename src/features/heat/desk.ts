'use client';

import { createContext, useContext } from 'react';
import type { Board } from '@/core/board';
import type { LoggedCurve } from '@/core/calibration';
import type { HeatGoals, HeatPlan, PlanEdit, Station } from '@/core/heat';
import type { JobView, KeepEvent } from '@/core/job';
import type { DoubtBand } from './use-doubt-band';
import type { HeatAnswerOf, HeatStatus } from './use-heat-run';
import type { Opening } from './use-opening';
import type { Preview } from './use-preview';

/** The plan that is being worked on, what it gave, and what hands can do to both. */
export interface Desk {
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

export const DeskContext = createContext<Desk | undefined>(undefined);

export function useHeatDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error('useHeatDesk needs a HeatDesk around it');
  return desk;
}
