'use server';

import { revalidatePath } from 'next/cache';
import { cookies } from 'next/headers';
import { redirect } from 'next/navigation';
import { parseSetCookieHeader } from 'better-auth/cookies';
import type { ActionResult } from '@/application/action-result';
import * as people from '@/application/access/people';
import { currentPerson, ROLES } from '@/application/access/person';
import * as signing from '@/application/access/sign-in';
import * as erase from '@/application/jobs/erase';
import * as instruments from '@/application/instruments/setting';
import * as copies from '@/application/shop/copies';
import * as retention from '@/application/shop/retention';
import { arg, taking } from '@/application/taking';
import { database } from '@/db/client';

const SAME_SITE = { strict: 'strict', lax: 'lax', none: 'none' } as const;

/** Signs in and goes on to where one wanted to be; only paths of this bench are followed. */
export const signIn = taking(
  [arg.text, arg.text, arg.text, arg.text],
  async (username: string, password: string, bench: string, to: string): Promise<string> => {
    const signed = await signing.signIn(username, password, bench);
    if (!signed.ok) return signed.message;
    const jar = await cookies();
    for (const line of signed.headers.getSetCookie())
      for (const [name, { value, path, httponly, secure, samesite, 'max-age': maxAge }] of parseSetCookieHeader(line))
        jar.set(name, decodeURIComponent(value), {
          ...{ path, httpOnly: httponly, secure, maxAge: maxAge === undefined ? undefined : Number(maxAge) },
          sameSite: samesite ? SAME_SITE[samesite.toLowerCase() as keyof typeof SAME_SITE] : 'lax',
        });
    redirect(/^\/(?![/\\])/.test(to) ? to : '/');
  },
  ({ message }) => message,
);

export async function signOut(everywhere: boolean): Promise<void> {
  await signing.signOut(await currentPerson(), everywhere);
  const jar = await cookies();
  for (const { name } of jar.getAll()) if (name.includes('unisolda')) jar.delete(name);
  redirect('/sign-in');
}

/** A lead's word for the next entry that an apprentice may not make alone. */
export const giveWord = async (username: string, password: string): Promise<ActionResult> =>
  signing.giveWord(username, password, await currentPerson());

const shown = (answer: ActionResult): ActionResult => {
  if (answer.saved) revalidatePath('/shop');
  return answer;
};

export const letIn = taking(
  [arg.text, arg.text, arg.text, arg.text],
  async (name: string, username: string, password: string, role: string): Promise<ActionResult> => {
    const known = ROLES.find((r) => r === role) ?? 'apprentice';
    return shown(await people.letIn({ name, username: username.trim().toLowerCase(), password, role: known }));
  },
);

export const sendOff = async (id: string): Promise<ActionResult> => shown(await people.sendOff(id));

/** The shop's own affairs are a lead's: actions are posted to any page. */
async function asLead(work: () => Promise<ActionResult>): Promise<ActionResult> {
  const closed = await people.refusedToOthers();
  return closed ?? shown(await work());
}

export const keepCopySetting = async (folder: string, everyHours: number): Promise<ActionResult> =>
  asLead(async () => copies.keepCopySetting(await database(), { folder, everyHours }));

/** Which addresses instruments may be reached at, and how the shop's own speak. */
export const keepInstruments = async (change: unknown): Promise<ActionResult> =>
  asLead(async () => instruments.keepInstruments(await database(), change));

export const copyNow = async (): Promise<ActionResult> => asLead(async () => copies.copyNow(await database()));

/** Erases an owner's words and pictures from a closed job. */
export const eraseOwner = taking([arg.number, arg.key], async (job: number, key: string): Promise<ActionResult> =>
  asLead(async () => erase.eraseOwner(await database(), job, key)),
);

/** How many months an owner's data stay; null for as long as the file. */
export const keepRetention = async (months: number | null): Promise<ActionResult> =>
  asLead(async () => retention.keepRetention(await database(), { months }));

export const restoreCopy = async (name: string): Promise<ActionResult> =>
  asLead(async () => copies.restoreCopy(await database(), name, new Date()));
