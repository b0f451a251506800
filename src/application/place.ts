import { z } from 'zod';
import { isLocale, isTimeZone, type BenchPlace } from '../core/units';
import type { Database } from '../db/client';
import { findPlace, savePlace } from '../db/knowledge';
import type { Session } from '../db/session';
import { firstIssue, refused, type ActionResult } from './action-result';
import { keep } from './once';

const placeSchema = z.object({
  timeZone: z.string().trim().max(60).refine(isTimeZone, 'expected a time zone such as Europe/Berlin'),
  locale: z.string().trim().max(35).refine(isLocale, 'expected a language such as de-DE, or nothing'),
  currency: z
    .string()
    .trim()
    .regex(/^([A-Z]{3})?$/, 'expected a currency of three capitals such as EUR, or nothing'),
});

/** Where this bench stands: as it was set, else in the time zone of this machine. */
export const loadPlace = async (db: Session): Promise<BenchPlace> =>
  (await findPlace(db, (json) => placeSchema.parse(json))) ?? {
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    locale: '',
    currency: '',
  };

/** Keeps where the bench stands; what is no zone, language or currency changes nothing. */
export async function keepPlace(db: Database, place: unknown): Promise<ActionResult> {
  const parsed = placeSchema.safeParse(place);
  if (!parsed.success) {
    const { message, first } = firstIssue(parsed.error);
    const got = (place as Record<string, unknown> | null)?.[first];
    return refused(`${message[0].toUpperCase()}${message.slice(1)}; got "${String(got)}".`, 'badInput');
  }
  return keep(db, 'place', async (tx) => {
    await savePlace(tx, parsed.data);
    return 'Kept: every day and price is shown like this from now on.';
  });
}
