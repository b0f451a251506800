import type { EventBody } from '../log';

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
    }
  | { readonly do: 'undoLast' };

export const record = (body: EventBody, replaces?: number): JobCommand =>
  replaces === undefined ? { do: 'record', body } : { do: 'record', body, replaces };

/** How a screen keeps an event: it answers when the event is on disk, or says why it is not kept. */
export type KeepEvent = (
  number: number,
  body: EventBody,
  key: string,
) => Promise<{ readonly saved: boolean; readonly message: string; readonly seq?: number; readonly code?: string }>;
