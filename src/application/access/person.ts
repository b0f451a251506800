/** What somebody may do: a lead everything, a technician all but the shop's own affairs, an apprentice less still. */
export const ROLES = ['lead', 'technician', 'apprentice'] as const;
export type Role = (typeof ROLES)[number];

/** Who sits at a bench, by their sign-in. */
export interface Person {
  readonly name: string;
  readonly role: Role;
  readonly bench: string;
  readonly sessionId: string;
}

/** Asks who is behind the request that is being answered; undefined outside of one, and in a shop without accounts. */
type WhoIsIt = () => Promise<Person | undefined>;

const shared = globalThis as { unisoldaWhoIsIt?: WhoIsIt };

/** Said once at the start by whoever knows requests. */
export const tellPersonsBy = (whoIsIt: WhoIsIt): void => {
  shared.unisoldaWhoIsIt = whoIsIt;
};

export const currentPerson = async (): Promise<Person | undefined> => shared.unisoldaWhoIsIt?.();
