import type { z } from 'zod';
import type { Board } from '../../../board';
import type { OldData } from '../../../stored';

/**
 * One type of event: its form, its version, how older versions become the present one, and what it is called where it
 * can be taken back. What it does to the job's state stands with the fields of the state (`fields.ts`), whether it may
 * happen with `decide`.
 */
export interface EventDefinition<B extends { readonly kind: string }> {
  readonly type: B['kind'];
  /** Version of the form that is written now, from 1. */
  readonly version: number;
  readonly schema: z.ZodType<B> & z.core.$ZodTypeDiscriminable;
  /** Brings data of version n (the n-th entry) to version n + 1; as many as `version` less one. */
  readonly upcasters: readonly ((data: OldData) => OldData)[];
  /** In a few words, for undo and for the record. */
  readonly label: (board: Board, body: B) => string;
}

/** States a type; a member that is missing is a compile error. */
export const defineEvent = <B extends { readonly kind: string }>(definition: EventDefinition<B>): EventDefinition<B> =>
  definition;
