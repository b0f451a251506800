'use client';

import { useMemo, useState } from 'react';
import { clearingSteps } from '@/core/clearing';
import { partByRef } from '@/core/board';
import type { HeatPlan } from '@/core/heat';
import type { JobView, KeepEvent } from '@/core/job';
import {
  foldRun,
  runCards,
  runClock,
  timedMarks,
  type RunCard,
  type RunClock,
  type RunEvent,
  type RunMark,
  type RunState,
  type TimedMark,
} from '@/core/run';
import { useBenchClock } from './use-bench-clock';
import { useOutbox } from './use-outbox';

export interface Run {
  readonly plan: HeatPlan;
  readonly cards: readonly RunCard[];
  readonly state?: RunState;
  readonly clock?: RunClock;
  readonly marks: readonly TimedMark[];
  readonly problem?: string;
  /** Whether presses wait for the disk. */
  readonly waiting: boolean;
  readonly begin: () => void;
  readonly next: () => void;
  readonly back: () => void;
  readonly mark: (mark: RunMark) => void;
  readonly pauseOrGoOn: () => void;
  readonly abort: () => void;
}

/** The cards of a job's plan and where its run stands. Every press is kept at once; a reload reads the same. */
export function useRun(job: JobView, kept: HeatPlan, stationId: string, onKeep: KeepEvent): Run {
  const [presses, setPresses] = useState<readonly RunEvent[]>(job.state.runEvents);
  const { send, waiting, problem } = useOutbox(job.number, onKeep);
  const state = useMemo(() => foldRun(presses), [presses]);
  const running = state !== undefined && !state.ended;
  const plan = running ? (state.begin.plan ?? kept) : kept;
  const cards = useMemo(() => cardsOf(job, plan), [job, plan]);
  const nowMs = useBenchClock(running);
  const clock = state && runClock(state, cards, Math.max(nowMs, presses[presses.length - 1]?.atMs ?? 0));

  const press = (event: Omit<RunEvent, 'kind' | 'atMs'>): void => {
    const body: RunEvent = { kind: 'run', atMs: Date.now(), ...event };
    setPresses((before) => [...before, body]);
    send(body);
  };
  const run = state?.run ?? '';
  const at = clock?.card ?? 0;
  return {
    ...{ plan, cards, state, clock, problem, waiting },
    marks: state ? timedMarks(state, cards) : [],
    begin: () => press({ run: crypto.randomUUID(), act: 'begin', plan: kept, stationId }),
    next: () => press(at < cards.length - 1 ? { run, act: 'next', card: at + 1 } : { run, act: 'end' }),
    back: () => at > 0 && press({ run, act: 'back', card: at - 1 }),
    mark: (mark) => press({ run, act: 'mark', mark }),
    pauseOrGoOn: () => press({ run, act: state?.pausedAtMs === null ? 'pause' : 'resume' }),
    abort: () => press({ run, act: 'abort' }),
  };
}

/** What is asked when the part is off: the shorts that brought it there. */
const measureWords = (nets: readonly string[]): string | undefined =>
  nets.length > 0 ? `${nets.slice(0, 3).join(', ')} to ground: is the short gone with it?` : undefined;

function cardsOf({ board, proof }: JobView, plan: HeatPlan): RunCard[] {
  const part = partByRef(board, plan.partRef);
  const soften = plan.purpose === 'soften' && part;
  return runCards(plan, {
    ref: plan.partRef,
    what: part?.what ?? '',
    centrePad: part !== undefined && 'centreMm' in board.packages[part.package].lands,
    edges: soften ? clearingSteps(board, part, 'unknown').map((s) => s.name) : undefined,
    measure: measureWords(proof.shorts.map((s) => s.net)),
  });
}
