import { DEFAULT_BUSINESS, businessSchema, type Business } from '../../core/day';
import type { Database } from '../../db/client';
import { findBusiness, saveBusiness } from '../../db/knowledge';
import type { Session } from '../../db/session';
import { firstIssue, refused, type ActionResult } from '../action-result';
import { keep } from '../once';

/** How the shop works and prices: as it was set, else the defaults. */
export const loadBusiness = async (db: Session): Promise<Business> =>
  (await findBusiness(db, (json) => businessSchema.parse(json))) ?? DEFAULT_BUSINESS;

const BOUNDS: Readonly<Record<string, string>> = {
  hours: 'days of the week, and hours such as 9:00 to 13:00, 13:30 to 18:00',
  diagnosisFee: 'a fee from 0 to 100,000',
  flat: 'a price from 0 to 100,000, or nothing',
  noCureNoFee: 'yes or no',
  taxPercent: 'a tax from 0 to 60 %',
};

/** Keeps how the shop works and prices; what makes no sense changes nothing. */
export async function keepBusiness(db: Database, business: unknown): Promise<ActionResult> {
  const parsed = businessSchema.safeParse(business);
  if (!parsed.success) {
    const { first, message } = firstIssue(parsed.error);
    return refused(`Expected ${BOUNDS[first] ?? 'a message to the owner'}: ${message}.`, 'badInput');
  }
  return keep(db, 'business', async (tx) => {
    await saveBusiness(tx, parsed.data);
    return 'Kept: the day is planned and jobs are priced by it from now on.';
  });
}
