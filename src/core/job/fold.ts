import { foldSoak, type Soak } from './soak';
import { accessFor, deeper, type Access, type OutsideThing, type Reading } from '../diagnose';
import type { EventBody, ImageRole, JobEvent, Story } from './events';

type Body<K extends EventBody['kind']> = Extract<EventBody, { kind: K }>;

export interface TakenReading extends Reading {
  readonly seq: number;
  readonly at: string;
  readonly absent: readonly string[];
  readonly replaced: readonly string[];
  readonly swapped: readonly OutsideThing[];
  readonly packOut: boolean;
  /** The last work on the board before it, by its event's number. */
  readonly work: number;
}

/** A trace, with the last work on the board before it. */
export type KeptTrace = Body<'trace'> & { readonly work: number };

/** A job as it was when it was closed, before it came back. */
export interface ClosedBefore {
  readonly state: Omit<JobState, 'live'>;
  readonly reopenedAt: string;
}

/** A job as its events leave it. Everything else about a job is computed from this. */
export interface JobState {
  readonly story?: Story;
  readonly readings: readonly TakenReading[];
  readonly access: Access;
  /** Shields that are off the board. */
  readonly bare: readonly string[];
  readonly packOut: boolean;
  /** Parts that are off the board now. */
  readonly absent: readonly string[];
  /** Parts replaced by new ones, and mended faults by their id. */
  readonly replaced: readonly string[];
  /** Parts that were soldered on during the job and are on the board now, new or the same again: by the event that placed them. */
  readonly placed: Readonly<Record<string, number>>;
  /** Number of the last event that changed the board; 0 before any. */
  readonly work: number;
  /** What stands in line as a known-good one. */
  readonly swapped: readonly OutsideThing[];
  readonly decision?: Body<'decision'>;
  /** The chip chosen for the place that the decision is about. */
  readonly route?: Body<'route'>;
  readonly heatPlan?: Body<'heatPlan'>;
  readonly site?: Body<'site'>;
  /** Pads that are off the board, by part. */
  readonly lifted: Readonly<Record<string, readonly string[]>>;
  /** The latest look at the balls of each part, and at how flat it lies. */
  readonly inspections: Readonly<Record<string, Body<'inspection'>>>;
  readonly padLooks: Readonly<Record<string, Body<'padLook'>>>;
  readonly flatness: Readonly<Record<string, Body<'flatness'>>>;
  /** Presses of the pedal, of all runs. */
  readonly presses: readonly Body<'run'>[];
  readonly images: Readonly<Partial<Record<ImageRole, Body<'image'>>>>;
  readonly written?: Body<'imageWritten'>;
  /** A write was begun and has not come to its end. */
  readonly writing: boolean;
  /** The latest trace of each plug way, by port and side as `J1 A`. */
  readonly traces: Readonly<Record<string, KeptTrace>>;
  /** The same from before the last work on the board, where a newer one took its place. */
  readonly tracesBefore: Readonly<Record<string, KeptTrace>>;
  /** The latest capture of each port. */
  readonly captures: Readonly<Record<string, Body<'capture'>>>;
  readonly pictures: readonly Body<'picture'>[];
  readonly soaks: readonly Soak[];
  readonly notes: readonly string[];
  readonly closed?: Body<'close'> & { readonly at: string };
  /** What the job was each time it was closed and came back, the first time first. */
  readonly past: readonly ClosedBefore[];
  /** Events that count: undone and corrected ones left out, corrections in the place of what they correct. */
  readonly live: readonly JobEvent[];
}

const START: JobState = {
  readings: [],
  access: 'closed',
  bare: [],
  packOut: false,
  absent: [],
  replaced: [],
  placed: {},
  work: 0,
  swapped: [],
  lifted: {},
  inspections: {},
  padLooks: {},
  flatness: {},
  presses: [],
  images: {},
  writing: false,
  traces: {},
  tracesBefore: {},
  captures: {},
  pictures: [],
  soaks: [],
  notes: [],
  past: [],
  live: [],
};

/**
 * The events that count, in the order of what they are about. An undo takes its target out; a correction stands where
 * the corrected event stood, so that the board's state at that moment applies to it.
 */
export function liveEvents(events: readonly JobEvent[]): JobEvent[] {
  const undone = new Set(events.flatMap((e) => (e.body.kind === 'undo' ? [e.body.seq] : [])));
  const counted = events.filter((e) => e.body.kind !== 'undo' && !undone.has(e.seq));
  const bySeq = new Map(events.map((e) => [e.seq, e]));
  const rootOf = (e: JobEvent): number => {
    let root = e;
    for (let next = bySeq.get(e.replaces ?? 0); next; next = bySeq.get(next.replaces ?? 0)) root = next;
    return root.seq;
  };
  const latest = new Map<number, JobEvent>();
  for (const e of counted) latest.set(rootOf(e), e);
  return [...latest].sort(([a], [b]) => a - b).map(([, e]) => e);
}

const without = <T>(kept: Readonly<Record<string, T>>, name: string): Readonly<Record<string, T>> =>
  Object.fromEntries(Object.entries(kept).filter(([key]) => key !== name));

/** The state of a job: a fold over its events, from the first. */
export function foldJob(events: readonly JobEvent[]): JobState {
  const live = liveEvents(events);
  return { ...live.reduce(apply, START), live };
}

function apply(state: JobState, event: JobEvent): JobState {
  const { body } = event;
  switch (body.kind) {
    case 'story':
      return { ...state, story: body };
    case 'reading': {
      const { seq, at } = event;
      const { measurement, value } = body;
      const { absent, replaced, packOut, work } = state;
      const swapped = measurement.kind === 'swap' ? [...new Set([...state.swapped, measurement.what])] : state.swapped;
      // The swap itself is judged as if what was used before were still in line.
      const reading = { seq, at, measurement, value, absent, replaced, swapped: state.swapped, packOut, work };
      const access = deeper(state.access, accessFor(measurement));
      return { ...state, access, swapped, readings: [...state.readings, reading] };
    }
    case 'access':
      return { ...state, access: body.access };
    case 'pack':
      return { ...state, packOut: body.state === 'out' };
    case 'partOff':
      return {
        ...state,
        access: 'out',
        work: event.seq,
        absent: [...state.absent.filter((r) => r !== body.ref), body.ref],
        replaced: state.replaced.filter((r) => r !== body.ref),
        placed: without(state.placed, body.ref),
        flatness: without(state.flatness, body.ref),
      };
    case 'partOn':
      return {
        ...state,
        work: event.seq,
        absent: state.absent.filter((r) => r !== body.ref),
        replaced: body.fresh ? [...state.replaced, body.ref] : state.replaced,
        placed: { ...state.placed, [body.ref]: event.seq },
      };
    case 'shield': {
      const others = state.bare.filter((id) => id !== body.id);
      return { ...state, access: 'out', bare: body.off ? [...others, body.id] : others };
    }
    case 'mended':
      return {
        ...state,
        access: 'out',
        work: event.seq,
        replaced: [...new Set([...state.replaced, body.what])],
      };
    case 'decision':
      return { ...state, decision: body, route: state.route?.ref === body.ref ? state.route : undefined };
    case 'route':
      return { ...state, route: body };
    case 'heatPlan':
      return { ...state, heatPlan: body };
    case 'site':
      return { ...state, site: body };
    case 'lifted':
      return { ...state, lifted: { ...state.lifted, [body.ref]: body.pins } };
    case 'inspection':
      return { ...state, inspections: { ...state.inspections, [body.ref]: body } };
    case 'padLook':
      return { ...state, padLooks: { ...state.padLooks, [body.ref]: body } };
    case 'flatness':
      return { ...state, flatness: { ...state.flatness, [body.ref]: body } };
    case 'run':
      return { ...state, presses: [...state.presses, body] };
    case 'image':
      // A write that was broken off reads a half-written chip when it goes on: the original stays the one before it.
      if (body.role === 'before' && state.writing) return state;
      return {
        ...state,
        images: { ...state.images, [body.role]: body },
        writing: state.writing || body.role === 'before',
      };
    case 'imageWritten':
      return {
        ...state,
        writing: false,
        written: body,
        work: event.seq,
        replaced: [...new Set([...state.replaced, `${body.ref}/image`])],
      };
    case 'trace':
      return keepTrace(state, body);
    case 'capture':
      return { ...state, captures: { ...state.captures, [body.port]: body } };
    case 'picture':
      return { ...state, pictures: [...state.pictures, body] };
    case 'soak':
      return { ...state, soaks: foldSoak(state.soaks, body, event.at) };
    case 'note':
      return { ...state, notes: [...state.notes, body.text] };
    case 'close':
      return { ...state, closed: { ...body, at: event.at } };
    case 'reopen':
      return state.closed ? reopened(state, body, event) : state;
    case 'undo':
      return state;
  }
}

function keepTrace(state: JobState, body: Body<'trace'>): JobState {
  const { traces, tracesBefore, work } = state;
  const way = `${body.port} ${body.side}`;
  const last = traces[way];
  return {
    ...state,
    traces: { ...traces, [way]: { ...body, work } },
    tracesBefore: last && last.work < work ? { ...tracesBefore, [way]: last } : tracesBefore,
  };
}

/**
 * A job that came back begins anew: what was read and replaced says how the board was then, not how it is now. It knows
 * its past, that somebody was in it, and the damage that stays.
 */
function reopened(state: JobState, { symptom }: Body<'reopen'>, { seq, at }: JobEvent): JobState {
  const { story, lifted, past } = state;
  return {
    ...START,
    ...(story && { story: { ...story, symptom, history: [...new Set([...story.history, 'earlierRepair' as const])] } }),
    lifted,
    work: seq,
    past: [...past, { state: { ...state, past: [] }, reopenedAt: at }],
  };
}

/** True for readings taken since the last work on the board: earlier ones say nothing of it as it is now. */
export const takenOnBoardAsIs = (state: JobState, reading: TakenReading): boolean => reading.work === state.work;

/** The last event that counts, which `undo` takes back; the opening story stays. */
export function lastUndoable(events: readonly JobEvent[]): JobEvent | undefined {
  const undone = new Set(events.flatMap((e) => (e.body.kind === 'undo' ? [e.body.seq] : [])));
  const counted = events.filter((e) => e.body.kind !== 'undo' && !undone.has(e.seq));
  return counted.length > 1 ? counted[counted.length - 1] : undefined;
}
