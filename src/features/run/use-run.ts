'use client';

import { useMemo, useRef, useState } from 'react';
import { clearingSteps } from '@/core/clearing';
import { partByRef } from '@/core/board';
import { offsetLabel, workplaceOf, type GoalSets, type HeatPlan, type Station } from '@/core/heat';
import type { JobView, KeepEvent } from '@/core/job';
import {
  foldRun,
  runCards,
  runClock,
  timedMarks,
  type RunCard,
  type RunClock,
  type RunEvent,
  type RunKnowledge,
  type RunMark,
  type RunSight,
  type RunState,
  type TimedMark,
} from '@/core/run';
import { correctTask } from '@/workers/correct/task';
import { useWorkerTask } from '@/workers/use-worker-task';
import { useBenchClock } from './use-bench-clock';
import { useOutbox } from './use-outbox';

/** What a run is computed on: the station of its plan as it is known now, and the bench's limits. */
export interface HeatOfRun {
  readonly stationId: string;
  readonly station?: Station;
  readonly goals: GoalSets;
}

export interface Run {
  readonly plan: HeatPlan;
  readonly cards: readonly RunCard[];
  readonly state?: RunState;
  readonly clock?: RunClock;
  readonly marks: readonly TimedMark[];
  readonly problem?: string;
  /** Whether presses wait for the disk. */
  readonly waiting: boolean;
  /** How the run goes on after what was seen. */
  readonly announced?: Announced;
  /** What the hand sees that was not computed: taken in, and the rest of the run computed anew. */
  readonly see: (seen: RunSight) => void;
  readonly begin: () => void;
  readonly next: () => void;
  readonly back: () => void;
  readonly mark: (mark: RunMark) => void;
  readonly pauseOrGoOn: () => void;
  readonly abort: () => void;
}

/** A correction that is being computed, or in words. */
export interface Announced {
  readonly computing: boolean;
  readonly message: string;
}

/** The cards of a job's plan and where its run stands. Every press is kept at once; a reload reads the same. */
export function useRun(job: JobView, kept: HeatPlan, heat: HeatOfRun, onKeep: KeepEvent): Run {
  const { stationId, station, goals } = heat;
  const [presses, setPresses] = useState<readonly RunEvent[]>(job.state.runEvents);
  const { send, waiting, problem } = useOutbox(job.number, onKeep);
  const state = useMemo(() => foldRun(presses), [presses]);
  const running = state !== undefined && !state.ended;
  const plan = running ? (state.plan ?? kept) : kept;
  const cards = useMemo(() => cardsOf(job, plan), [job, plan]);
  const nowMs = useBenchClock(running);
  const clock = state && runClock(state, cards, Math.max(nowMs, presses[presses.length - 1]?.atMs ?? 0));

  const press = (event: Omit<RunEvent, 'kind' | 'atMs'>): void => {
    const body: RunEvent = { kind: 'run', atMs: Date.now(), ...event };
    setPresses((before) => [...before, body]);
    send(body);
  };
  const run = state?.run ?? '';
  const [announced, announce] = useState<Announced>();
  const { start } = useWorkerTask(correctTask);
  /** What earlier sights of this run taught; a reload begins again with the station's own doubt. */
  const knowledge = useRef<{ run: string; of: RunKnowledge }>(undefined);
  const see = (seen: RunSight): void => {
    const heatS = clock?.heatS;
    press({ run, act: 'mark', mark: seen });
    if (heatS === null || heatS === undefined || !station) return;
    const board = workplaceOf(job.board, plan);
    const known = knowledge.current?.run === run ? knowledge.current.of : undefined;
    announce({ computing: true, message: 'Taken in. Computing how it goes on; the air stays as it is.' });
    const now = { board, station, goals: goals[plan.alloy], plan, knowledge: known };
    void start({ now, sight: { seen, heatS } }).then((answer) => {
      if (answer.kind === 'cancelled') return;
      if (answer.kind === 'problem') return announce({ computing: false, message: answer.message });
      const correction = answer.value;
      knowledge.current = { run, of: correction.knowledge };
      announce({ computing: false, message: correction.message });
      if (correction.kind === 'stop') press({ run, act: 'abort' });
      if (correction.kind === 'goOn') {
        const next = cardsOf(job, correction.plan);
        const card = next.findIndex((c) => c.hot) + correction.step;
        press({ run, act: 'correct', card, plan: correction.plan });
      }
    });
  };
  const at = clock?.card ?? 0;
  return {
    ...{ plan, cards, state, clock, problem, waiting, announced, see },
    marks: state ? timedMarks(state, cards) : [],
    begin: () => {
      announce(undefined);
      press({ run: crypto.randomUUID(), act: 'begin', plan: kept, stationId });
    },
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
    beside: offsetLabel(board, plan),
    edges: soften ? clearingSteps(board, part, 'unknown').map((s) => s.name) : undefined,
    measure: measureWords(proof.shorts.map((s) => s.net)),
  });
}
