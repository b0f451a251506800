import type { Result } from '../../result';
import * as log from '../../stored';
import { EVENT_TYPES, eventDefinition, type EventBody } from './events/registry';

/** The forms of a job's log. */
const FORMS: log.StoredForms<EventBody> = { types: EVENT_TYPES.map((t) => t.type), formOf: eventDefinition };

/** The event as it is written now. */
export const toStored = (body: EventBody): log.StoredEvent => log.toStored(FORMS, body);

/** Reads a stored event of any version; what cannot be read is a problem that says so. */
export const fromStored = (input: unknown): Result<EventBody> => log.fromStored(FORMS, input);

/** The same from text. */
export const fromStoredText = (text: string): Result<EventBody> => log.fromStoredText(FORMS, text);
