import 'server-only';
import { hasAccounts } from '@/application/access/auth';
import { listPeople, type PersonOfShop } from '@/application/access/people';
import { currentPerson, type Person } from '@/application/access/person';
import { loadInstruments, type InstrumentSetting } from '@/application/instruments/setting';
import { journal, type JournalEntry } from '@/application/journal';
import { databaseBytes, loadCopyState, type CopyState } from '@/application/shop/copies';
import { countDue, loadRetention } from '@/application/shop/retention';
import type { ChainFound } from '@/core/stored';
import { database } from '@/db/client';
import { writeArchive } from '@/db/archive';
import { checkSeals } from '@/db/seals';

/** Who is signed in; undefined in a shop without accounts. */
export const loadPerson = (): Promise<Person | undefined> => currentPerson();

export const loadAccounts = async (): Promise<boolean> => hasAccounts(await database());

export interface ShopState {
  readonly people: readonly PersonOfShop[];
  readonly copies: CopyState;
  readonly instruments: InstrumentSetting;
  readonly retention: { readonly months: number | null; readonly due: number };
  readonly seals: { readonly jobs: ChainFound; readonly stock: ChainFound };
  readonly fileBytes?: number;
  readonly memoryBytes: number;
  readonly upS: number;
  /** What went wrong since the start, the newest first. */
  readonly problems: readonly JournalEntry[];
}

export async function loadShop(): Promise<ShopState> {
  const db = await database();
  const [people, copies, instruments, { months }, due, seals] = await Promise.all([
    listPeople(),
    loadCopyState(db, new Date()),
    loadInstruments(db),
    loadRetention(db),
    countDue(db, new Date()),
    checkSeals(db),
  ]);
  return {
    ...{ people, copies, instruments, retention: { months, due }, seals, fileBytes: databaseBytes() },
    memoryBytes: process.memoryUsage().rss,
    upS: process.uptime(),
    problems: journal().last(),
  };
}

/** Everything that the shop knows, as one file. */
export async function archiveOfShop(): Promise<{ readonly bytes: Uint8Array<ArrayBuffer>; readonly name: string }> {
  const at = new Date();
  const { bytes } = await writeArchive(await database(), at);
  return { bytes: new Uint8Array(bytes), name: `unisolda-${at.toISOString().slice(0, 10)}.zip` };
}
