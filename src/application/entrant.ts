import type { EntryMeta } from '../db/jobs';

/** Which bench this machine is; set once per bench, shown with every entry. */
const BENCH = process.env.UNISOLDA_BENCH ?? 'Bench 1';
const ACTOR = process.env.UNISOLDA_ACTOR ?? 'Bench lead';

/** The one clock of what is entered here. */
export const now = (): string => new Date().toISOString();

/** Who enters here, and now. */
export const entrant = (key: string): EntryMeta => ({ key, at: now(), bench: BENCH, actor: ACTOR });
