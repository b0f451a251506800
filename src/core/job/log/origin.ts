import { z } from 'zod';

const wordsSchema = z.string().min(1).max(200);

/** Where what an entry says comes from. Part of the entry: a value without it is of unknown origin. */
export const originSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('typed') }),
  z.object({ kind: z.literal('instrument'), identification: wordsSchema.describe('as the instrument calls itself') }),
  z.object({
    kind: z.literal('file'),
    name: wordsSchema,
    sha256: z
      .string()
      .regex(/^[0-9a-f]{64}$/)
      .describe('of the file as it was read'),
    reader: wordsSchema.optional().describe('the kind of file it was read as'),
    answers: z.record(wordsSchema, wordsSchema).optional().describe('what a person said of the file'),
  }),
  z.object({ kind: z.literal('simulated'), by: wordsSchema.describe('what simulated it') }),
]);

export type Origin = z.infer<typeof originSchema>;

export const TYPED: Origin = { kind: 'typed' };

/** An origin in a few words. */
export function originName(origin: Origin | undefined): string {
  switch (origin?.kind) {
    case undefined:
      return 'origin not recorded';
    case 'typed':
      return 'typed';
    case 'instrument':
      return `by ${origin.identification}`;
    case 'file':
      return `from ${origin.name}`;
    case 'simulated':
      return `simulated, ${origin.by}`;
  }
}

/** Readings by their origin, in one sentence for the report; nothing where there is none. */
export function originsSummary(origins: readonly (Origin | undefined)[]): string | undefined {
  const names = origins.map(originName);
  const counted = [...new Set(names)].map((name) => `${names.filter((n) => n === name).length} ${name}`);
  return names.length === 0 ? undefined : `Readings: ${counted.join(', ')}.`;
}
