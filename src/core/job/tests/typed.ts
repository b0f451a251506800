import type { Entry } from '../entry/context';
import type { EventBody } from '../log';

/** The event that a typed line records; a line that records none is a mistake of the test. */
export function recordedBy({ command }: Entry): EventBody {
  if (command.do !== 'record') throw new Error('expected a line that records an event');
  return command.body;
}
