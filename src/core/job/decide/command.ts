import type { JobNumber } from '../../identities';
import type { Measurement } from '../../diagnose';
import type { EventBody, Origin } from '../log';

/**
 * What somebody asks of a job: to record something that happened or was decided, or to take the last entry back. Typed
 * lines, buttons, the pedal and instruments all make the same commands; {@link decide} says whether they may happen.
 */
export type JobCommand =
  | {
      readonly do: 'record';
      readonly body: EventBody;
      /** The event that it corrects. */
      readonly replaces?: number;
      /** Where what is recorded comes from. */
      readonly origin?: Origin;
    }
  | { readonly do: 'undoLast' }
  /** A question: what a test would tell and take, against what is proposed. Nothing comes of it in the record. */
  | { readonly do: 'weigh'; readonly measurement: Measurement }
  /** The same of work, by its key. */
  | { readonly do: 'weighWork'; readonly work: string };

/** A question to a job. */
export type JobQuestion = Extract<JobCommand, { do: 'weigh' | 'weighWork' }>;

export const record = (body: EventBody, replaces?: number): JobCommand =>
  replaces === undefined ? { do: 'record', body } : { do: 'record', body, replaces };

/** The same command with the origin of what it records. */
export const withOrigin = (command: JobCommand, origin: Origin): JobCommand =>
  command.do === 'record' ? { ...command, origin } : command;

/** How a screen keeps an event: it answers when the event is on disk, or says why it is not kept. */
export type KeepEvent = (
  number: JobNumber,
  body: EventBody,
  key: string,
  /** Typed or chosen by hand where nothing is said. */
  origin?: Origin,
) => Promise<{ readonly saved: boolean; readonly message: string; readonly seq?: number; readonly code?: string }>;
