import type { HeatPlan } from '../heat';
import type { RunCard } from './cards';
import type { RunEvent, RunMark } from './schema';

/** A run as its presses leave it. */
export interface RunState {
  readonly run: string;
  readonly begin: RunEvent;
  /** The card last chosen by hand, when that was, and how long the clock has stood since, ms. */
  readonly card: number;
  readonly sinceMs: number;
  readonly stoodMs: number;
  readonly pausedAtMs: number | null;
  readonly ended: 'end' | 'abort' | null;
  readonly endedAtMs: number | null;
  readonly marks: readonly { readonly mark: RunMark; readonly atMs: number }[];
  /** All standing still of the run so far, with its beginning, ms. */
  readonly stops: readonly { readonly fromMs: number; readonly toMs: number | null }[];
  readonly runEvents: readonly RunEvent[];
  /** What runs: the plan of its beginning, or of the last correction. */
  readonly plan?: HeatPlan;
}

/** The latest run among a job's presses, as they leave it; undefined before the first. */
export function foldRun(events: readonly RunEvent[]): RunState | undefined {
  const last = events.findLast((e) => e.act === 'begin');
  if (!last) return undefined;
  const runEvents = events.filter((e) => e.run === last.run).sort((a, b) => a.atMs - b.atMs);
  return runEvents.slice(1).reduce(pressed, {
    ...{ run: last.run, begin: last, card: 0, sinceMs: last.atMs, stoodMs: 0, pausedAtMs: null },
    ...{ ended: null, endedAtMs: null, marks: [], stops: [], runEvents, plan: last.plan },
  });
}

function pressed(state: RunState, event: RunEvent): RunState {
  if (state.ended) return state;
  const { atMs } = event;
  switch (event.act) {
    case 'begin':
      return state;
    case 'next':
    case 'back':
      return { ...resumed(state, atMs), card: event.card ?? state.card, sinceMs: atMs, stoodMs: 0 };
    case 'correct':
      return {
        ...resumed(state, atMs),
        ...{ card: event.card ?? state.card, sinceMs: atMs, stoodMs: 0, plan: event.plan ?? state.plan },
      };
    case 'mark':
      return event.mark ? { ...state, marks: [...state.marks, { mark: event.mark, atMs }] } : state;
    case 'pause':
      return state.pausedAtMs === null
        ? { ...state, pausedAtMs: atMs, stops: [...state.stops, { fromMs: atMs, toMs: null }] }
        : state;
    case 'resume':
      return resumed(state, atMs);
    case 'abort':
    case 'end':
      return { ...resumed(state, atMs), ended: event.act, endedAtMs: atMs };
  }
}

function resumed(state: RunState, atMs: number): RunState {
  if (state.pausedAtMs === null) return state;
  return {
    ...state,
    stoodMs: state.stoodMs + atMs - state.pausedAtMs,
    pausedAtMs: null,
    stops: state.stops.map((s) => (s.toMs === null ? { ...s, toMs: atMs } : s)),
  };
}

export interface RunClock {
  readonly card: number;
  /** Seconds on this card, and what is left of it; null where the hand decides. */
  readonly cardS: number;
  readonly leftS: number | null;
  /** Seconds under the plan's clock since its first hot card; null before. */
  readonly heatS: number | null;
}

/** Where a run stands at a moment: cards that go on by themselves have gone on. The same before and after a reload. */
export function runClock(state: RunState, cards: readonly RunCard[], nowMs: number): RunClock {
  const end = state.endedAtMs ?? state.pausedAtMs ?? nowMs;
  let card = Math.min(state.card, cards.length - 1);
  let cardS = Math.max(0, (end - state.sinceMs - state.stoodMs) / 1000);
  for (; card < cards.length - 1; card++) {
    const { seconds, goesOn } = cards[card];
    if (!goesOn || seconds === null || cardS < seconds) break;
    cardS -= seconds;
  }
  const { seconds } = cards[card];
  return { card, cardS, leftS: seconds === null ? null : seconds - cardS, heatS: heatSeconds(state, cards, end) };
}

/** Seconds from the press that brought the first hot card, pauses left out; null before it. */
function heatSeconds(state: RunState, cards: readonly RunCard[], atMs: number): number | null {
  const firstHot = cards.findIndex((c) => c.hot);
  const began = state.runEvents.find((e) => e.act === 'next' && (e.card ?? 0) >= firstHot);
  if (firstHot < 0 || !began || atMs < began.atMs) return null;
  const stood = state.stops.reduce((sum, { fromMs, toMs }) => {
    const [from, to] = [Math.max(fromMs, began.atMs), Math.min(toMs ?? atMs, atMs)];
    return sum + Math.max(0, to - from);
  }, 0);
  return (atMs - began.atMs - stood) / 1000;
}

export interface TimedMark {
  readonly mark: RunMark;
  /** Seconds under the plan's clock. */
  readonly heatS: number;
}

/** The marks of a run with their times under heat: what the station's calibration can be held against. */
export function timedMarks(state: RunState, cards: readonly RunCard[]): TimedMark[] {
  return state.marks.flatMap(({ mark, atMs }) => {
    const heatS = heatSeconds(state, cards, atMs);
    return heatS === null ? [] : [{ mark, heatS }];
  });
}
