import { z } from 'zod';
import { fail, ok, type Result } from '../result';

/** What a stored event held before a change of its form; taken apart and put together by upcasters only. */
export type OldData = Readonly<Record<string, unknown>>;

/** An event as it lies in the database and in files: its type, the version of its form, and what it says. */
export interface StoredEvent {
  readonly type: string;
  readonly version: number;
  readonly data: OldData;
}

/** What reading an event of one type takes. */
export interface StoredForm<B> {
  /** Version of the form that is written now, from 1. */
  readonly version: number;
  readonly schema: z.ZodType<B>;
  /** Brings data of version n (the n-th entry) to version n + 1; as many as `version` less one. */
  readonly upcasters: readonly ((data: OldData) => OldData)[];
}

/** The forms of one log, by type. */
export interface StoredForms<B> {
  readonly types: readonly string[];
  readonly formOf: (type: string) => StoredForm<B> | undefined;
}

const envelopeSchema = z.object({
  type: z.string().min(1).max(40),
  version: z.number().int().min(1),
  data: z.record(z.string(), z.unknown()),
});

/** Before events had versions they lay as `{ kind, … }`: that is version 1 of every type. */
const firstFormSchema = z.looseObject({ kind: z.string().min(1).max(40) });

/** The event as it is written now. */
export function toStored<B extends { readonly kind: string }>(forms: StoredForms<B>, body: B): StoredEvent {
  const { kind, ...data } = body;
  return { type: kind, version: forms.formOf(kind)!.version, data };
}

/**
 * Reads a stored event of any version that ever was: older ones are brought up, what this program does not know or
 * cannot read is a problem that says so.
 */
export function fromStored<B>({ types, formOf }: StoredForms<B>, input: unknown): Result<B> {
  const envelope = envelopeOf(input);
  if (!envelope.ok) return envelope;
  const { type, version, data } = envelope.value;
  const form = formOf(type);
  if (!form) return fail(`Expected one of the events ${types.join(', ')}; got "${type}".`);
  if (version > form.version)
    return fail(
      `Expected version ${form.version} or older of ${type}; got ${version}: it was written by a newer program.`,
    );
  const current = form.upcasters.slice(version - 1).reduce((old, upcast) => upcast(old), data);
  const parsed = form.schema.safeParse({ ...current, kind: type });
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
export function fromStoredText<B>(forms: StoredForms<B>, text: string): Result<B> {
  try {
    return fromStored(forms, JSON.parse(text));
  } catch {
    return fail('Expected an event as JSON; got text that is none.');
  }
}
