import type { Access, OutsideThing, Reading } from '../../diagnose';
import type { BodyOf } from './events/registry';
import type { ImageRole } from './events/image';
import type { JobEvent } from './log';
import type { Soak } from './soak';

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
export type KeptTrace = BodyOf<'trace'> & { readonly work: number };

/** A job as it was when it was closed, before it came back. */
export interface PriorClosure {
  readonly state: JobFields;
  readonly reopenedAt: string;
}

/** A row of the log that cannot be read. */
export interface UnreadableRow {
  readonly seq: number;
  readonly problem: string;
}

/** What the events of a job leave, field by field; `fields.ts` says how each changes. */
export interface JobFields {
  readonly story?: BodyOf<'story'>;
  /** Which device it is. */
  readonly device?: BodyOf<'device'>;
  readonly readings: readonly TakenReading[];
  readonly access: Access;
  /** Shields that are off the board. */
  readonly removedShields: readonly string[];
  readonly packOut: boolean;
  /** Parts that are off the board now. */
  readonly absent: readonly string[];
  /** What was replaced, rewritten or mended, by the key of its repair target. */
  readonly replaced: readonly string[];
  /** Parts that were soldered on during the job and are on the board now, new or the same again: by the event that placed them. */
  readonly placed: Readonly<Record<string, number>>;
  /** Number of the last event that changed the board; 0 before any. */
  readonly work: number;
  /** What stands in line as a known-good one. */
  readonly swapped: readonly OutsideThing[];
  readonly decision?: BodyOf<'decision'>;
  /** What was replaced, rewritten or mended since that decision, by key. */
  readonly doneSince: readonly string[];
  /** The chip chosen for the place that the decision is about. */
  readonly route?: BodyOf<'route'>;
  readonly heatPlan?: BodyOf<'heatPlan'>;
  readonly site?: BodyOf<'site'>;
  /** Pads that are off the board, by part. */
  readonly lifted: Readonly<Record<string, readonly string[]>>;
  /** The latest look at the balls of each part, and at how flat it lies. */
  readonly inspections: Readonly<Record<string, BodyOf<'inspection'>>>;
  readonly padLooks: Readonly<Record<string, BodyOf<'padLook'>>>;
  readonly flatness: Readonly<Record<string, BodyOf<'flatness'>>>;
  /** Presses of the pedal, of all runs. */
  readonly runEvents: readonly BodyOf<'run'>[];
  readonly images: Readonly<Partial<Record<ImageRole, BodyOf<'image'>>>>;
  readonly written?: BodyOf<'imageWritten'>;
  /** A write was begun and has not come to its end. */
  readonly writing: boolean;
  /** The latest trace of each plug way, by port and side as `J1 A`. */
  readonly traces: Readonly<Record<string, KeptTrace>>;
  /** The same from before the last work on the board, where a newer one took its place. */
  readonly tracesBefore: Readonly<Record<string, KeptTrace>>;
  /** The latest capture of each port. */
  readonly captures: Readonly<Record<string, BodyOf<'capture'>>>;
  readonly pictures: readonly BodyOf<'picture'>[];
  readonly soaks: readonly Soak[];
  /** What the owner was promised and offered last. */
  readonly promise?: BodyOf<'promise'>;
  readonly quote?: BodyOf<'quote'>;
  /** What it waits for; with no moment where that is here. */
  readonly delivery?: BodyOf<'delivery'>;
  readonly notes: readonly string[];
  readonly closed?: BodyOf<'close'> & { readonly at: string };
  /** What the job was each time it was closed and came back, the first time first. */
  readonly priorClosures: readonly PriorClosure[];
  readonly unreadable: readonly UnreadableRow[];
}

/** A job as its events leave it. Everything else about a job is computed from this. */
export interface JobState extends JobFields {
  /** Events that count: undone and corrected ones left out, corrections in the place of what they correct. */
  readonly live: readonly JobEvent[];
  /** The event that undo takes back; none where only the opening story is left. */
  readonly undoable?: JobEvent;
}

/** True for readings taken since the last work on the board: earlier ones say nothing of it as it is now. */
export const takenOnBoardAsIs = (state: Pick<JobFields, 'work'>, reading: Pick<TakenReading, 'work'>): boolean =>
  reading.work === state.work;
