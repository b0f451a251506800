import { asc, eq } from 'drizzle-orm';
import { database } from '../../db/client';
import { account, session, user } from '../../db/schema';
import { refused, saved, type ActionResult } from '../action-result';
import { addPerson, hasAccounts, type NewPerson } from './auth';
import { ROLES, currentPerson, type Role } from './person';

export interface PersonOfShop {
  readonly id: string;
  readonly name: string;
  readonly username: string;
  readonly role: Role;
}

export async function listPeople(): Promise<PersonOfShop[]> {
  const db = await database();
  const rows = await db.select().from(user).orderBy(asc(user.name));
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    username: r.username ?? '',
    role: ROLES.find((role) => role === r.role) ?? 'apprentice',
  }));
}

/** In a shop with accounts only a lead lets others in; before, whoever sits here names the first lead. */
export async function refusedToOthers(): Promise<ActionResult | undefined> {
  const person = await currentPerson();
  return (await hasAccounts(await database())) && person?.role !== 'lead'
    ? refused("Expected a lead for the shop's own affairs.", 'needsLead')
    : undefined;
}

export async function letIn(person: NewPerson): Promise<ActionResult> {
  const closed = await refusedToOthers();
  if (closed) return closed;
  const problem = await addPerson(await database(), person);
  return problem ? refused(problem, 'badInput') : saved(`${person.name.trim()} may sign in as ${person.username}.`);
}

/** Somebody leaves: signed out at once, the password gone; what they entered stays under their name. */
export async function sendOff(id: string): Promise<ActionResult> {
  const closed = await refusedToOthers();
  if (closed) return closed;
  const db = await database();
  const people = await listPeople();
  const found = people.find((p) => p.id === id);
  if (!found) return refused('Expected somebody of this shop.', 'notFound');
  if (found.role === 'lead' && people.filter((p) => p.role === 'lead').length === 1)
    return refused(`${found.name} is the only lead; name another one first.`);
  await db.transaction(async (tx) => {
    await tx.delete(session).where(eq(session.userId, id));
    await tx.delete(account).where(eq(account.userId, id));
    await tx.delete(user).where(eq(user.id, id));
  });
  return saved(`${found.name} is signed out and may not sign in any more.`);
}
