import { z } from 'zod';
import { DEFAULT_PRACTICE, HOUR_PRICE, type Practice } from '../diagnose';
import type { PriceRule } from './quote';
import { DEFAULT_MESSAGE, MESSAGE_FACTS, unknownFact } from './quote-message';
import { USUAL_HOURS, workHoursSchema } from './shop-hours';

const money = z.number().min(0).max(100_000);

/** How the shop works and prices. Defaults are engineering estimates. */
export const businessSchema = z.object({
  hours: workHoursSchema.default(USUAL_HOURS),
  diagnosisFee: money.default(20).describe('asked whatever comes out'),
  flat: money.nullable().default(null).describe('one price for every cure instead of hours and parts'),
  noCureNoFee: z.boolean().default(true).describe('nothing but the diagnosis fee where it is not cured'),
  taxPercent: z.number().min(0).max(60).default(0),
  message: z
    .string()
    .trim()
    .min(1)
    .max(1000)
    .superRefine((text, ctx) => {
      const unknown = unknownFact(text);
      if (unknown !== undefined)
        ctx.addIssue({
          code: 'custom',
          message: `expected ${Object.keys(MESSAGE_FACTS)
            .map((f) => `{${f}}`)
            .join(', ')}; got "${unknown}"`,
        });
    })
    .default(DEFAULT_MESSAGE),
});
export type Business = z.infer<typeof businessSchema>;

export const DEFAULT_BUSINESS: Business = businessSchema.parse({});

/** The shop's rule for a price; an hour costs what the bench's practice says. */
export const priceRule = (business: Business, practice: Practice = DEFAULT_PRACTICE): PriceRule => ({
  hourPrice: practice.prices?.hour ?? HOUR_PRICE,
  diagnosisFee: business.diagnosisFee,
  ...(business.flat !== null && { flat: business.flat }),
  noCureNoFee: business.noCureNoFee,
  tax: business.taxPercent / 100,
});
