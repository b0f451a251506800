import { z } from 'zod';

/** Where a straightened photograph lies under the drawing, as seen from the front; mm. */
export const photoPlaceSchema = z.object({
  widthMm: z.number().positive(),
  heightMm: z.number().positive(),
  pxPerMm: z.number().positive(),
  doubtMm: z.number().min(0).describe('one standard deviation of a place in the middle of the board'),
});
export type PhotoPlace = z.infer<typeof photoPlaceSchema>;
