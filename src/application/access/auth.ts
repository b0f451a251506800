import { randomBytes } from 'node:crypto';
import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { username } from 'better-auth/plugins';
import { eq } from 'drizzle-orm';
import { database, type Database } from '../../db/client';
import * as schema from '../../db/schema';
import { ROLES, type Person, type Role } from './person';

/** A sign-in lasts a working day and is renewed by use, s. Common practice, no source. */
const DAY_S = 12 * 3600;
const RENEWED_S = 3600;
/** Shortest password. Source: NIST SP 800-63B, 5.1.1.2 (from memory). */
export const SHORTEST_PASSWORD = 8;
/** So many tries a minute from one address: then it waits. Engineering estimate. */
const TRIES = { window: 60, max: 5 };

/** The name of the setting that holds what cookies are signed with: made once, never shown. */
const SECRET = 'cookieSecret';

async function secretOf(db: Database): Promise<string> {
  const [known] = await db.select().from(schema.settings).where(eq(schema.settings.name, SECRET));
  if (known) return JSON.parse(known.json) as string;
  const made = randomBytes(32).toString('hex');
  await db
    .insert(schema.settings)
    .values({ name: SECRET, json: JSON.stringify(made) })
    .onConflictDoNothing();
  const [kept] = await db.select().from(schema.settings).where(eq(schema.settings.name, SECRET));
  return JSON.parse(kept.json) as string;
}

const made = async (db: Database) =>
  betterAuth({
    appName: 'Unisolda',
    secret: await secretOf(db),
    baseURL: process.env.UNISOLDA_URL ?? 'http://127.0.0.1',
    // The proxy has looked at host and origin before anything gets here.
    trustedOrigins: (request) =>
      [request ? new URL(request.url).origin : '', originOf(request?.headers)].filter(Boolean),
    database: drizzleAdapter(db, {
      provider: 'sqlite',
      schema: {
        user: schema.user,
        session: schema.session,
        account: schema.account,
        verification: schema.verification,
      },
    }),
    emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: SHORTEST_PASSWORD },
    session: { expiresIn: DAY_S, updateAge: RENEWED_S },
    rateLimit: { enabled: true, customRules: { '/sign-in/*': TRIES } },
    user: { additionalFields: { role: { type: 'string', required: true, defaultValue: 'apprentice', input: false } } },
    advanced: { cookiePrefix: 'unisolda', useSecureCookies: process.env.UNISOLDA_URL?.startsWith('https') ?? false },
    telemetry: { enabled: false },
    plugins: [username()],
  });

type Auth = Awaited<ReturnType<typeof made>>;

const originOf = (headers: Headers | undefined): string => headers?.get('origin') ?? '';

const shared = globalThis as { unisoldaAuth?: Promise<Auth> };

/** Sign-in on the shop's own database, by a package that keeps passwords hashed. */
export const auth = (): Promise<Auth> => (shared.unisoldaAuth ??= database().then(made));

/** Whether anybody has an account: until then the bench is open to whoever sits at it. */
export async function hasAccounts(db: Database): Promise<boolean> {
  return (await db.select({ id: schema.user.id }).from(schema.user).limit(1)).length > 0;
}

/** Who a request's cookie says it is; undefined without a sign-in that holds. */
export async function personOf(headers: Headers): Promise<Person | undefined> {
  const found = await (await auth()).api.getSession({ headers });
  if (!found) return undefined;
  const db = await database();
  const [row] = await db
    .select({ role: schema.user.role, bench: schema.session.bench })
    .from(schema.session)
    .innerJoin(schema.user, eq(schema.user.id, schema.session.userId))
    .where(eq(schema.session.id, found.session.id));
  const role = ROLES.find((r) => r === row?.role);
  return row && role && { name: found.user.name, role, bench: row.bench, sessionId: found.session.id };
}

export interface NewPerson {
  readonly name: string;
  readonly username: string;
  readonly password: string;
  readonly role: Role;
}

const USERNAME = /^[a-z0-9._-]{2,30}$/;

/** Adds somebody; why not, in a sentence. */
export async function addPerson(
  db: Database,
  { name, username, password, role }: NewPerson,
): Promise<string | undefined> {
  if (!name.trim() || name.length > 60) return 'Expected a name of 1 to 60 characters.';
  if (!USERNAME.test(username))
    return `Expected a sign-in name of 2 to 30 small letters, digits, dots or dashes; got "${username}".`;
  if (password.length < SHORTEST_PASSWORD || password.length > 128)
    return `Expected a password of ${SHORTEST_PASSWORD} to 128 characters; got ${password.length}.`;
  const [known] = await db.select({ id: schema.user.id }).from(schema.user).where(eq(schema.user.username, username));
  if (known) return `Expected a sign-in name that is free; ${username} is somebody's.`;
  if (role !== 'lead' && !(await hasAccounts(db))) return 'Expected a lead first: somebody has to let the others in.';
  const { password: hasher } = await (await auth()).$context;
  const now = new Date();
  const id = randomBytes(16).toString('hex');
  const hashed = await hasher.hash(password);
  await db.transaction(async (tx) => {
    await tx.insert(schema.user).values({
      ...{ id, name: name.trim(), username, displayUsername: username, role, createdAt: now, updatedAt: now },
      email: `${username}@shop.invalid`,
    });
    await tx.insert(schema.account).values({
      ...{ id: randomBytes(16).toString('hex'), accountId: id, providerId: 'credential', userId: id },
      ...{ password: hashed, createdAt: now, updatedAt: now },
    });
  });
  return undefined;
}
