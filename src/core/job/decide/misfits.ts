import type { Board } from '../../board';
import { eventLabel } from '../assessment/event-label';
import { liveEvents, type JobEvent } from '../log';
import { unknownOnBoard } from './unknown-on-board';

/**
 * What of a job's record would not fit another file of its board: the entries that name what that file does not have, and the one
 * that the job is on has. In sentences, by their number; none where everything fits.
 */
export function misfits(from: Board, to: Board, events: readonly JobEvent[]): string[] {
  return liveEvents(events).flatMap((event) => {
    const { seq, body } = event;
    if (body.kind === 'unreadable' || unknownOnBoard(from, body) !== undefined) return [];
    const unknown = unknownOnBoard(to, body);
    return unknown === undefined ? [] : [`Entry ${seq}, ${eventLabel(from, event)}: ${unknown}`];
  });
}
