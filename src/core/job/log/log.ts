import { z } from 'zod';
import { problemText, type Result } from '../../result';
import { EVENT_TYPES, type EventBody } from './events/registry';
import { originSchema, type Origin } from './origin';
import { fromStored, fromStoredText } from './stored';

/** A row of the log that cannot be read: it marks its own job, and the rest of the job goes on without it. */
export interface UnreadableBody {
  readonly kind: 'unreadable';
  /** What was expected, and what is there. */
  readonly problem: string;
}

/** One entry of a job's log. */
export interface JobEvent {
  readonly seq: number;
  /** ISO 8601 time. */
  readonly at: string;
  readonly bench: string;
  readonly actor: string;
  /** The event that this one corrects; the corrected one is kept. */
  readonly replaces?: number;
  /** Where what it says comes from; undefined for entries from before that was kept. */
  readonly origin?: Origin;
  readonly body: EventBody | UnreadableBody;
}

type Row = Omit<JobEvent, 'body'>;

const withBody = (row: Row, body: Result<EventBody>): JobEvent => ({
  ...row,
  body: body.ok ? body.value : { kind: 'unreadable', problem: `Entry ${row.seq}: ${problemText(body.problems)}` },
});

/** An entry from its row in the database. */
export const eventFromText = (row: Row, text: string): JobEvent => withBody(row, fromStoredText(text));

const rowSchema = z.object({
  seq: z.number().int().positive(),
  at: z.string().max(40).describe('ISO 8601 time'),
  bench: z.string().max(80),
  actor: z.string().max(80),
  replaces: z.number().int().positive().optional(),
  origin: originSchema.optional(),
});

/** An entry as files hold it, of any version. */
export const loggedEventSchema = z
  .looseObject({ ...rowSchema.shape, body: z.unknown() })
  .transform(({ seq, at, bench, actor, replaces, origin, body }): JobEvent =>
    withBody(
      { seq, at, bench, actor, ...(replaces !== undefined && { replaces }), ...(origin && { origin }) },
      fromStored(body),
    ),
  );

/** The published form of an entry, as it is written now. */
export const jobEventSchema = z.object({
  ...rowSchema.shape,
  replaces: rowSchema.shape.replaces.describe('the event that this one corrects; the corrected one is kept'),
  body: z.union(
    EVENT_TYPES.map(({ type, version, schema }) =>
      z.object({
        type: z.literal(type),
        version: z.literal(version),
        data: (schema as unknown as z.ZodObject<{ kind: z.ZodLiteral }>).omit({ kind: true }),
      }),
    ),
  ),
});
