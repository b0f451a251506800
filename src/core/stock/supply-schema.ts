import { z } from 'zod';
import { refText } from '../board';
import { chipId, donorId, lotId } from './events';

const typeId = z.string().min(1).max(80);

/** Where the part for a place comes from; `none` where the place is left empty on purpose. */
export const supplySchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('chip'),
    chip: chipId,
    lot: lotId.optional().describe('the lot that it was taken out of'),
    donor: donorId.optional().describe('the donor that it was pulled from'),
  }),
  z.object({ kind: z.literal('lot'), lot: lotId }),
  z.object({ kind: z.literal('donor'), donor: donorId, ref: refText }),
  z.object({ kind: z.literal('buy'), typeId }),
  z.object({ kind: z.literal('none') }),
]);
export type Supply = z.infer<typeof supplySchema>;
