import { z } from 'zod';
import { refused, type ActionResult } from './action-result';

/** Arguments as they come over the network: by schema, before anything is done with them. */
export const arg = {
  number: z.number().int('expected a whole number'),
  text: z.string(),
  /** Made once per entry by whoever enters. */
  key: z.string().min(1).max(200),
  flag: z.boolean(),
  form: z.instanceof(FormData, { error: 'expected a form with a file' }),
  /** What is checked whole where it is kept. */
  any: z.unknown(),
  /** An object of that make-up: checked whole where it is kept. */
  object: <T>() => z.custom<T>((v) => typeof v === 'object' && v !== null, 'expected an object'),
};

/**
 * A server action that takes only what it says: whatever else comes over the network is refused with a sentence.
 * @param schemas of the arguments, in their order.
 */
export const taking =
  <A extends readonly unknown[], R>(
    schemas: { readonly [K in keyof A]: z.ZodType<A[K]> },
    act: (...args: A) => Promise<R>,
  ) =>
  async (...args: A): Promise<R | ActionResult> => {
    const parsed = z.tuple(schemas as unknown as [z.ZodType]).safeParse(args);
    if (parsed.success) return act(...args);
    const [{ path, message }] = parsed.error.issues;
    return refused(`Expected what the page sends; argument ${Number(path[0] ?? 0) + 1}: ${message}.`, 'badInput');
  };
