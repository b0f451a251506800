import { z } from 'zod';
import { fail, ok, type Result } from '../../result';
import type { OldData } from './events/definition';
import { EVENT_TYPES, eventDefinition, type EventBody } from './events/registry';

/** An event as it lies in the database and in files: its type, the version of its form, and what it says. */
export interface StoredEvent {
  readonly type: string;
  readonly version: number;
  readonly data: OldData;
}

const envelopeSchema = z.object({
  type: z.string().min(1).max(40),
  version: z.number().int().min(1),
  data: z.record(z.string(), z.unknown()),
});

/** Before events had versions they lay as `{ kind, … }`: that is version 1 of every type. */
const firstFormSchema = z.looseObject({ kind: z.string().min(1).max(40) });

/** The event as it is written now. */
export function toStored({ kind, ...data }: EventBody): StoredEvent {
  return { type: kind, version: eventDefinition(kind)!.version, data };
}

/**
 * Reads a stored event of any version that ever was: older ones are brought up, what this program does not know or
 * cannot read is a problem that says so.
 */
export function fromStored(input: unknown): Result<EventBody> {
  const envelope = envelopeOf(input);
  if (!envelope.ok) return envelope;
  const { type, version, data } = envelope.value;
  const definition = eventDefinition(type);
  if (!definition)
    return fail(`Expected one of the events ${EVENT_TYPES.map((t) => t.type).join(', ')}; got "${type}".`);
  if (version > definition.version)
    return fail(
      `Expected version ${definition.version} or older of ${type}; got ${version}: it was written by a newer program.`,
    );
  const current = definition.upcasters.slice(version - 1).reduce((old, upcast) => upcast(old), data);
  const parsed = definition.schema.safeParse({ ...current, kind: type });
  if (parsed.success) return ok(parsed.data);
  const [issue] = parsed.error.issues;
  return fail(`${type}, ${issue.path.join('.') || 'as a whole'}: ${issue.message}.`);
}

function envelopeOf(input: unknown): Result<StoredEvent> {
  const envelope = envelopeSchema.safeParse(input);
  if (envelope.success) return ok(envelope.data);
  const first = firstFormSchema.safeParse(input);
  if (!first.success) return fail('Expected an event with its type, version and data; got something else.');
  const { kind, ...data } = first.data;
  return ok({ type: kind, version: 1, data });
}

/** The same from text; text that is no JSON is a problem. */
export function fromStoredText(text: string): Result<EventBody> {
  try {
    return fromStored(JSON.parse(text));
  } catch {
    return fail('Expected an event as JSON; got text that is none.');
  }
}
