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

type Schemas<A extends readonly unknown[]> = { readonly [K in keyof A]: z.ZodType<A[K]> };

/**
 * A server action that takes only what it says: whatever else comes over the network is refused with a sentence.
 * @param schemas of the arguments, in their order.
 * @param refusedAs what a refusal looks like where the action answers something of its own.
 */
export function taking<A extends readonly unknown[], R>(
  schemas: Schemas<A>,
  act: (...args: A) => Promise<R>,
): (...args: A) => Promise<ActionResult extends R ? R : R | ActionResult>;
export function taking<A extends readonly unknown[], R>(
  schemas: Schemas<A>,
  act: (...args: A) => Promise<R>,
  refusedAs: (answer: ActionResult) => R,
): (...args: A) => Promise<R>;
export function taking<A extends readonly unknown[], R>(
  schemas: Schemas<A>,
  act: (...args: A) => Promise<R>,
  refusedAs: (answer: ActionResult) => R | ActionResult = (answer) => answer,
): (...args: A) => Promise<R | ActionResult> {
  return async (...args) => {
    const parsed = z.tuple(schemas as unknown as [z.ZodType]).safeParse(args);
    if (parsed.success) return act(...args);
    const [{ path, message }] = parsed.error.issues;
    return refusedAs(
      refused(`Expected what the page sends; argument ${Number(path[0] ?? 0) + 1}: ${message}.`, 'badInput'),
    );
  };
}
