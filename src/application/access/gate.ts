import type { Person, Role } from './person';

/** What is known of a request before anything of it is read. */
export interface Asked {
  readonly method: string;
  readonly path: string;
  readonly host: string | null;
  readonly origin: string | null;
  readonly fetchSite: string | null;
  readonly contentLength: string | null;
  /** Whether it wants a page, as a browser's address line does. */
  readonly wantsPage: boolean;
}

export interface Shop {
  /** Names that this server answers to, beside those of the machine itself. */
  readonly hosts: readonly string[];
  /** Whether anybody has an account: then everybody signs in. */
  readonly accounts: boolean;
}

export type Passage =
  | { readonly kind: 'pass' }
  | { readonly kind: 'signIn' }
  | { readonly kind: 'refuse'; readonly status: 400 | 401 | 403 | 413; readonly message: string };

/** The machine's own names: nobody else can answer to them (RFC 6761, 6.3; RFC 8252, 7.3). */
const LOOPBACK = new Set(['localhost', '127.0.0.1', '[::1]']);
/** A microscope's picture comes whole; nothing that is entered is larger, bytes. */
const MOST_BYTES = 32 * 1024 * 1024;
const READS = new Set(['GET', 'HEAD', 'OPTIONS']);
export const SIGN_IN_PATH = '/sign-in';
/** The shop's own affairs: people, copies, health. */
const LEADS_ONLY = /^\/shop(\/|$)/;

const refuse = (status: 400 | 401 | 403 | 413, message: string): Passage => ({ kind: 'refuse', status, message });

/** What is said to a request that is too large by its own word; undefined for others. */
export const tooLarge = (contentLength: string | null): string | undefined =>
  Number(contentLength ?? 0) > MOST_BYTES
    ? `Expected at most ${MOST_BYTES / 2 ** 20} MB; got ${(Number(contentLength) / 2 ** 20).toFixed(0)} MB. Nothing was read.`
    : undefined;

/** Name of a Host header without its port; an IPv6 address keeps its brackets. */
const nameOf = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

/**
 * Whether a request may go on. A name that somebody else points at this machine (rebinding) is not answered, nor a page of another
 * origin; nothing too large is read; in a shop with accounts nothing but the sign-in is for strangers.
 */
export function passage(asked: Asked, shop: Shop, person: Person | undefined): Passage {
  const { method, path, host, origin, fetchSite } = asked;
  if (!host) return refuse(400, 'Expected a request that names its host.');
  const name = nameOf(host);
  if (!LOOPBACK.has(name) && !shop.hosts.includes(name))
    return refuse(403, `Expected a host name that this bench answers to; got ${name.slice(0, 100)}.`);
  if (origin !== null && origin !== 'null' && !sameHost(origin, host))
    return refuse(403, `Expected a request from this bench's own pages; it came from ${origin.slice(0, 100)}.`);
  if (
    !READS.has(method) &&
    (origin === 'null' || (origin === null && fetchSite !== null && fetchSite !== 'same-origin'))
  )
    return refuse(403, "Expected a request from this bench's own pages; it came from elsewhere.");
  const large = tooLarge(asked.contentLength);
  if (large) return refuse(413, large);
  if (!shop.accounts || path === SIGN_IN_PATH) return { kind: 'pass' };
  if (!person)
    return asked.wantsPage && READS.has(method)
      ? { kind: 'signIn' }
      : refuse(401, 'Expected somebody who is signed in. Nothing was done.');
  if (LEADS_ONLY.test(path) && person.role !== 'lead')
    return refuse(403, `Expected a lead for the shop's own affairs; ${person.name} is ${withArticle(person.role)}.`);
  return { kind: 'pass' };
}

function sameHost(origin: string, host: string): boolean {
  try {
    return new URL(origin).host === host.toLowerCase();
  } catch {
    return false;
  }
}

const withArticle = (role: Role): string => (role === 'apprentice' ? 'an apprentice' : `a ${role}`);
