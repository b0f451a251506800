import type { EntryMeta } from '../db/jobs';
import { currentPerson, type Person } from './access/person';

/** Which bench this machine is; set once per bench, shown with every entry where nobody is signed in. */
const BENCH = process.env.UNISOLDA_BENCH ?? 'Bench 1';
const ACTOR = process.env.UNISOLDA_ACTOR ?? 'Bench lead';

/** The one clock of what is entered here. */
export const now = (): string => new Date().toISOString();

/** Who enters, with the sign-in that says so; without accounts whoever sits here. */
export interface Entrant extends EntryMeta {
  readonly person?: Person;
}

/** Who enters here, and now: by the sign-in of the request, never by what it says. */
export async function entrant(key: string): Promise<Entrant> {
  const person = await currentPerson();
  return { key, at: now(), bench: person?.bench || BENCH, actor: person?.name ?? ACTOR, person };
}
