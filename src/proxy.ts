import { NextResponse, type NextRequest } from 'next/server';
import { hasAccounts, personOf } from './application/access/auth';
import { SIGN_IN_PATH, passage, type Shop } from './application/access/gate';
import { Rates, tooMany } from './application/access/rates';
import type { Person } from './application/access/person';
import { PERSON_HEADER, personHeader } from './application/access/person-header';
import { database } from './db/client';

/** Host names beside the machine's own, as the lead has listed them. */
const HOSTS = (process.env.UNISOLDA_HOSTS ?? '')
  .split(',')
  .map((h) => h.trim().toLowerCase())
  .filter(Boolean);

/** Looks at every request that is not a static file: who asks, from where and how much; then names who it is for what follows. */
export async function proxy(request: NextRequest): Promise<NextResponse> {
  const { headers, nextUrl } = request;
  const asked = {
    method: request.method,
    path: nextUrl.pathname,
    host: headers.get('host'),
    origin: headers.get('origin'),
    fetchSite: headers.get('sec-fetch-site'),
    contentLength: headers.get('content-length'),
    wantsPage: headers.get('accept')?.includes('text/html') ?? false,
  };
  // Strangers' hosts and origins are turned away before the database is asked.
  const before = passage(asked, { hosts: HOSTS, accounts: false }, undefined);
  const { shop, person } = before.kind === 'pass' ? await whoAsks(headers) : { shop: undefined, person: undefined };
  // On the network a bench that runs wild is held back; a machine by itself may be as quick as it is.
  const waitS = shop?.accounts ? await rates.waitS(clientOf(person, headers), request.method) : 0;
  if (waitS > 0) return refusal(429, tooMany(waitS), { 'retry-after': String(waitS) });
  const found = shop ? passage(asked, shop, person) : before;
  switch (found.kind) {
    case 'refuse':
      return refusal(found.status, found.message);
    case 'signIn': {
      const scheme = headers.get('x-forwarded-proto') === 'https' ? 'https' : 'http';
      const to = new URL(SIGN_IN_PATH, `${scheme}://${asked.host}`);
      to.searchParams.set('to', nextUrl.pathname + nextUrl.search);
      return withHeaders(new NextResponse(null, { status: 303, headers: { location: to.href } }));
    }
    case 'pass':
      return passed(request, person);
  }
}

const rates = new Rates();

/** Who is counted: the person, or for strangers the address that the front saw. */
const clientOf = (person: Person | undefined, headers: Headers): string =>
  person ? `person ${person.name}` : `address ${headers.get('x-forwarded-for') ?? 'unknown'}`;

const refusal = (status: number, words: string, more: Readonly<Record<string, string>> = {}): NextResponse =>
  withHeaders(new NextResponse(words, { status, headers: { 'content-type': 'text/plain; charset=utf-8', ...more } }));

async function whoAsks(headers: Headers): Promise<{ shop: Shop; person: Person | undefined }> {
  const accounts = await hasAccounts(await database());
  return { shop: { hosts: HOSTS, accounts }, person: accounts ? await personOf(headers) : undefined };
}

/** Goes on with a fresh nonce per page; development needs eval and inline styles. */
function passed(request: NextRequest, person: Person | undefined): NextResponse {
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const dev = process.env.NODE_ENV === 'development';
  const policy = [
    `default-src 'self'`,
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${dev ? " 'unsafe-eval'" : ''}`,
    `style-src 'self' ${dev ? "'unsafe-inline'" : `'nonce-${nonce}'`}`,
    `style-src-attr 'unsafe-inline'`,
    `worker-src 'self' blob:`,
    `img-src 'self' data: blob:`,
    `object-src 'none'`,
    `base-uri 'self'`,
    `form-action 'self'`,
    `frame-ancestors 'none'`,
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', policy);
  // Never from outside: who it is says the sign-in alone.
  headers.delete(PERSON_HEADER);
  if (person) headers.set(PERSON_HEADER, personHeader(person));
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('content-security-policy', policy);
  return withHeaders(response);
}

function withHeaders(response: NextResponse): NextResponse {
  const { headers } = response;
  headers.set('x-content-type-options', 'nosniff');
  headers.set('referrer-policy', 'same-origin');
  headers.set('cross-origin-opener-policy', 'same-origin');
  headers.set('cross-origin-resource-policy', 'same-origin');
  headers.set('permissions-policy', 'camera=(self), serial=(self), microphone=(), geolocation=()');
  return response;
}

export const config = { matcher: ['/((?!_next/static|_next/image|favicon.ico).*)'] };
