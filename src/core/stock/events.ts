import { z } from 'zod';
import { refText } from '../board';
import type { ChipId, DonorId, LotId } from '../identities';

/** Names as they are written on bags and boards: L-12, C-105, D-3. */
const stockId = z.string().regex(/^[A-Z]{1,3}-[0-9]{1,6}$/, 'expected a name such as C-105');
export const chipId: z.ZodType<ChipId, string> = stockId;
export const lotId: z.ZodType<LotId, string> = stockId;
export const donorId: z.ZodType<DonorId, string> = stockId;
const ref = refText;
const job = z.number().int().positive();
const words = z.string().trim().min(1).max(200);
const typeId = z.string().min(1);

export const CONDITIONS = ['sound', 'suspect', 'dead'] as const;
export type Condition = (typeof CONDITIONS)[number];

/** Where a single chip can be. Donor and patient chips have trays of their own. */
export const placeSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('drawer') }),
  z.object({ kind: z.literal('donorTray'), donor: donorId }),
  z.object({ kind: z.literal('patientTray'), job }),
  z.object({ kind: z.literal('bag'), job }).describe('set aside for a job'),
  z.object({ kind: z.literal('fitted'), job, ref }),
  z.object({ kind: z.literal('scrap') }),
]);
export type Place = z.infer<typeof placeSchema>;

/** What can happen to the stock. Whoever overrides a rule says why, and the record keeps it. */
export const stockBodySchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('lotIn'),
    lot: lotId,
    typeId,
    count: z.number().int().positive().max(100_000),
    unitPrice: z.number().min(0),
    sealed: z.boolean().describe('in its moisture bag; an open one of unknown age is baked'),
  }),
  z.object({ kind: z.literal('lotCounted'), lot: lotId, count: z.number().int().min(0), why: words }),
  z.object({ kind: z.literal('take'), lot: lotId, chip: chipId }),
  z.object({
    kind: z.literal('donorIn'),
    donor: donorId,
    boardId: z.string(),
    price: z.number().min(0),
    parts: z
      .array(z.object({ ref, typeId, sound: z.boolean().default(true) }))
      .min(1)
      .describe('the chips it still carries'),
    note: z.string().trim().max(200).default(''),
  }),
  z.object({ kind: z.literal('donorProven'), donor: donorId, fn: z.string(), worked: z.boolean() }),
  z.object({ kind: z.literal('donorOpened'), donor: donorId, override: words.optional() }),
  z.object({
    kind: z.literal('pull'),
    donor: donorId,
    chips: z
      .array(z.object({ ref, chip: chipId }))
      .min(1)
      .max(8),
    paired: z.boolean().describe('these belong together from now on'),
  }),
  z.object({ kind: z.literal('removed'), job, ref, chip: chipId, typeId, condition: z.enum(CONDITIONS) }),
  z.object({
    kind: z.literal('move'),
    chips: z.array(stockId).min(1).max(8),
    to: placeSchema,
    override: words.optional(),
  }),
  z.object({ kind: z.literal('judged'), chip: chipId, condition: z.enum(CONDITIONS), why: words }),
  z.object({ kind: z.literal('reballed'), chip: chipId }),
  z.object({
    kind: z.literal('moisture'),
    of: stockId.describe('a lot or a chip'),
    what: z.enum(['open', 'dry', 'out', 'baked']),
  }),
]);
export type StockBody = z.infer<typeof stockBodySchema>;

export interface StockEvent {
  readonly seq: number;
  /** ISO 8601 time. */
  readonly at: string;
  readonly bench: string;
  readonly actor: string;
  readonly body: StockBody;
}

/** A place in words. */
export function placeWords(place: Place): string {
  switch (place.kind) {
    case 'drawer':
      return 'drawer';
    case 'donorTray':
      return `tray of donor ${place.donor}`;
    case 'patientTray':
      return `tray of job ${place.job}`;
    case 'bag':
      return `set aside for job ${place.job}`;
    case 'fitted':
      return `on job ${place.job}, ${place.ref}`;
    case 'scrap':
      return 'scrap';
  }
}
