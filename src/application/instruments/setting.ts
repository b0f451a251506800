import { z } from 'zod';
import { findInstrumentSetting, saveInstrumentSetting } from '../../db/knowledge';
import type { Database } from '../../db/client';
import type { Session } from '../../db/session';
import { instrumentSchema } from '../../devices/instruments';
import { firstIssue, refused, type ActionResult } from '../action-result';
import { keep } from '../once';
import { readAddress } from './lines';

const settingSchema = z.strictObject({
  /** Addresses on the network that lines may be opened to, `host:port`. */
  addresses: z
    .array(z.string().refine((a) => readAddress(a) !== undefined, 'expected addresses such as 192.0.2.7:5025'))
    .max(50)
    .default([]),
  /** Instruments that the shop has described itself. */
  definitions: z
    .array(instrumentSchema)
    .max(50)
    .refine((all) => new Set(all.map((d) => d.name)).size === all.length, 'expected each name once')
    .default([]),
});
export type InstrumentSetting = z.infer<typeof settingSchema>;

export const loadInstruments = async (db: Session): Promise<InstrumentSetting> =>
  (await findInstrumentSetting(db, (json) => settingSchema.parse(json))) ?? { addresses: [], definitions: [] };

/** Keeps which addresses may be reached and the shop's own instruments, beside what was kept of the other. */
export async function keepInstruments(db: Database, change: unknown): Promise<ActionResult> {
  const before = await loadInstruments(db);
  const parsed = settingSchema.safeParse({ ...before, ...(change as object) });
  if (!parsed.success) {
    const { at, message } = firstIssue(parsed.error);
    return refused(`Expected addresses and instruments; ${at}: ${message}.`, 'badInput');
  }
  return keep(db, 'instruments', async (tx) => {
    await saveInstrumentSetting(tx, parsed.data);
    return `Kept: ${parsed.data.addresses.length} addresses, ${parsed.data.definitions.length} instruments of your own.`;
  });
}
