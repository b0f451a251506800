/** Who gets in: every route of the program against every kind of caller, and the way in for those who belong to the shop. */
import { readFileSync, readdirSync } from 'node:fs';
import http from 'node:http';
import path from 'node:path';
import { createClient } from '@libsql/client';
import type { Page } from '@playwright/test';
import { enterLine, headline } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

// Few enough to be asked for within a minute on a slow machine, and more than the other tests here ask.
const server = new BenchServer(3243, { UNISOLDA_READS_A_MINUTE: '1000' });
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());
test.describe.configure({ mode: 'serial' });

const SHA = '0'.repeat(64);
/** Every route as it lies under src/app, with an address of it. */
const ROUTES: Readonly<Record<string, string>> = {
  '': '/',
  clocks: '/clocks',
  day: '/day',
  'day.ics': '/day.ics',
  drills: '/drills',
  'drills/[id]': '/drills/1',
  'drills/memory': '/drills/memory',
  guide: '/guide',
  'guide/[page]': '/guide/probe',
  'guide/pictures/[name]': '/guide/pictures/probe.png',
  'images/[sha256]': `/images/${SHA}`,
  jobs: '/jobs',
  'jobs/[number]': '/jobs/27',
  'jobs/[number]/arrive': '/jobs/27/arrive',
  'jobs/[number]/balls': '/jobs/27/balls',
  'jobs/[number]/close': '/jobs/27/close',
  'jobs/[number]/decide': '/jobs/27/decide',
  'jobs/[number]/entries': '/jobs/27/entries',
  'jobs/[number]/heat': '/jobs/27/heat',
  'jobs/[number]/heat/card.pdf': '/jobs/27/heat/card.pdf',
  'jobs/[number]/image': '/jobs/27/image',
  'jobs/[number]/label': '/jobs/27/label',
  'jobs/[number]/live': '/jobs/0/live',
  'jobs/[number]/outside': '/jobs/27/outside',
  'jobs/[number]/probe': '/jobs/27/probe',
  'jobs/[number]/prove': '/jobs/27/prove',
  'jobs/[number]/report': '/jobs/27/report',
  'jobs/[number]/report.json': '/jobs/27/report.json',
  'jobs/[number]/report.pdf': '/jobs/27/report.pdf',
  'jobs/[number]/run': '/jobs/27/run',
  'jobs/[number]/unreadable': '/jobs/27/unreadable',
  'jobs/new': '/jobs/new',
  library: '/library',
  'library/[id]': '/library/heronlog-4-c',
  'library/[id]/edit': '/library/heronlog-4-c/edit',
  'library/[id]/files/[file]': '/library/heronlog-4-c/files/board.json',
  'library/[id]/good': '/library/heronlog-4-c/good',
  'library/[id]/package': '/library/heronlog-4-c/package',
  'library/[id]/references': '/library/heronlog-4-c/references',
  'library/draft': '/library/draft',
  'library/images': '/library/images',
  'library/parts': '/library/parts',
  'library/practice': '/library/practice',
  'library/sketch': '/library/sketch',
  'library/stations': '/library/stations',
  'library/stations/[id]': '/library/stations/bench-1',
  lines: '/lines',
  'pictures/[sha256]': `/pictures/${SHA}`,
  records: '/records',
  'records/cures.csv': '/records/cures.csv',
  'records/year.pdf': '/records/year.pdf?year=2026',
  shop: '/shop',
  'shop/archive': '/shop/archive',
  'sign-in': '/sign-in',
  stock: '/stock',
  'stock/events': '/stock/events',
  'stock/labels': '/stock/labels',
};

/** Whom an action is for, beyond being signed in. A new one has to be put here by whoever writes it. */
const ACTIONS = {
  anybody: ['signIn'],
  signedIn:
    'addBoard addDraft addPartTypes addReferences beginDrill beginExercise beginSketch beginTour buildMerged chooseRoute copyBoard dropLesson dropReferenceImport enterLine finishExercise giveWord keepBoard keepBusiness keepCalibration keepDevice keepDump keepEvidenceSettings keepFamily keepFilePreset keepGoals keepGoodReading keepInspection keepLearning keepLesson keepLogged keepMark keepOriginal keepPhoto keepPicture keepPlace keepPractice keepRecall keepReport keepReportWords keepSiteRule keepStation keepStory keepStrapSettings learnFromJobs lookIntoPackage makeDrill moveToRevision openNewJob reopenJob saveMap sayBoard setBoardRetired settleDrillLine settleEntry shopInstruments signOut takeDrillLine takeKept takePackage undoLast'.split(
      ' ',
    ),
  /** An apprentice needs a lead's word for what they may bring about. */
  withWord: ['closeJob', 'enterEvent', 'enterStockLine', 'markWritten'],
  leads: [
    'copyNow',
    'eraseOwner',
    'keepCopySetting',
    'keepInstruments',
    'keepRetention',
    'letIn',
    'restoreCopy',
    'sendOff',
  ],
};

const filesUnder = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((f) => f.isFile())
    .map((f) => path.join(f.parentPath, f.name));

test('the tables name every route and every action that there is', () => {
  const routes = filesUnder('src/app')
    .filter((f) => /\/(page|route)\.tsx?$/.test(f))
    .map((f) => path.dirname(path.relative('src/app', f)).replace(/^\.$/, ''));
  expect(routes.toSorted()).toEqual(Object.keys(ROUTES).toSorted());
  const actions = filesUnder('src/features')
    .filter((f) => f.endsWith('.ts') && readFileSync(f, 'utf8').startsWith("'use server'"))
    .flatMap((f) => [...readFileSync(f, 'utf8').matchAll(/^export (?:const|async function) (\w+)/gm)].map((m) => m[1]));
  expect([...new Set(actions)].toSorted()).toEqual(Object.values(ACTIONS).flat().toSorted());
});

interface Call {
  readonly method?: string;
  readonly headers?: Record<string, string>;
}

/** The status of a call; every header as given, the host too. */
const statusOf = (at: string, { method = 'GET', headers = {} }: Call = {}): Promise<number> =>
  new Promise((resolve, reject) => {
    const asked = http.request(`${server.url}${at}`, { method, headers }, (answer) => {
      answer.resume();
      resolve(answer.statusCode!);
    });
    asked.on('error', reject);
    asked.end(method === 'GET' ? undefined : '[]');
  });

const PAGE = { accept: 'text/html' };
/** Callers that are turned away, whoever they are, and how. */
const STRANGERS: Readonly<Record<string, readonly [Call, number]>> = {
  'by another host name': [{ headers: { ...PAGE, host: 'evil.example' } }, 403],
  'by a name that was pointed at this machine': [{ headers: { ...PAGE, host: '127.0.0.1.evil.example:3243' } }, 403],
  'from another origin': [{ headers: { ...PAGE, origin: 'http://evil.example' } }, 403],
  'from another port of this machine': [{ method: 'POST', headers: { origin: 'http://127.0.0.1:3001' } }, 403],
  'as an action from another origin': [
    { method: 'POST', headers: { origin: 'http://evil.example', 'next-action': 'a'.repeat(42) } },
    403,
  ],
};

async function expectStrangersOut(): Promise<void> {
  for (const [who, [call, status]] of Object.entries(STRANGERS))
    for (const at of Object.values(ROUTES))
      expect(`${at} ${who} ${await statusOf(at, call)}`).toBe(`${at} ${who} ${status}`);
}

test(
  'without accounts: the machine itself is let in, strangers nowhere; what is too large is refused unread',
  { tag: LONG },
  async () => {
    await expectStrangersOut();
    for (const at of Object.values(ROUTES))
      expect([at, (await statusOf(at, { headers: PAGE })) < 500]).toEqual([at, true]);
    const large = { method: 'POST', headers: { 'content-length': String(200 * 2 ** 20) } };
    const told = new Promise<number>((resolve) => {
      const asked = http.request(`${server.url}/jobs`, large, (answer) => resolve(answer.statusCode!));
      asked.on('error', () => undefined);
      asked.flushHeaders();
    });
    expect(await told).toBe(413);
  },
);

async function letIn(page: Page, name: string, role: string): Promise<void> {
  await page.getByLabel('Name, as entries carry it').fill(name);
  await page.getByLabel('Name to sign in with').fill(name.toLowerCase());
  await page.getByLabel('Password, 8 characters or more').fill(`${name.toLowerCase()} has a cup`);
  await page.getByLabel('Role').selectOption(role);
  await page.getByRole('button', { name: 'Let in' }).click();
}

async function signIn(page: Page, name: string, password = `${name} has a cup`): Promise<void> {
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Password').fill(password);
  await page.getByLabel('Bench').fill('Window bench');
  await page.getByRole('button', { name: 'Sign in' }).click();
}

const cookiesOf = async (page: Page): Promise<string> =>
  (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ');

test('the first lead is let in; from then on strangers get the sign-in alone, and entries carry who is signed in', async ({
  browser,
}) => {
  const lead = await (await browser.newContext()).newPage();
  await lead.goto(`${server.url}/shop`, { waitUntil: 'networkidle' });
  await letIn(lead, 'Mira', 'lead');
  await expect(headline(lead))
    .toHaveText('Who is at this bench?', { timeout: 15_000 })
    .catch(() => undefined);
  await lead.goto(`${server.url}/shop`);
  await expect(headline(lead)).toHaveText('Who is at this bench?');

  await expectStrangersOut();
  for (const at of Object.values(ROUTES)) {
    const open = at === '/sign-in';
    expect([at, await statusOf(at, { headers: PAGE })]).toEqual([at, open ? 200 : 303]);
    expect([at, await statusOf(at)]).toEqual([at, open ? 200 : 401]);
    const action = { method: 'POST', headers: { 'next-action': 'a'.repeat(42), origin: server.url } };
    if (!open) expect([at, await statusOf(at, action)]).toEqual([at, 401]);
    const made = {
      ...PAGE,
      'x-unisolda-person': encodeURIComponent('{"name":"Eve","role":"lead","bench":"","sessionId":"1"}'),
    };
    if (!open) expect([at, await statusOf(at, { headers: made })]).toEqual([at, 303]);
  }

  await signIn(lead, 'mira', 'wrong as can be');
  await expect(
    lead.getByText('Expected a name and a password of this shop; these two do not go together.'),
  ).toBeVisible();
  await signIn(lead, 'mira');
  await expect(lead.getByText('Mira, Window bench')).toBeVisible();
  await letIn(lead, 'Ansel', 'apprentice');
  await expect(lead.getByText('Ansel may sign in as ansel.')).toBeVisible();
  await lead.goto(`${server.url}/jobs/32/probe`, { waitUntil: 'networkidle' });
  await enterLine(lead, 'note the lead was here');
  const client = createClient({ url: server.databaseUrl });
  const { rows } = await client.execute('select actor, bench from job_events order by id desc limit 1');
  client.close();
  expect({ ...rows[0] }).toEqual({ actor: 'Mira', bench: 'Window bench' });
});

test('two benches at one job see each other’s entries, and what one is typing stays', async ({ browser }) => {
  const [mira, ansel] = [await (await browser.newContext()).newPage(), await (await browser.newContext()).newPage()];
  for (const [page, name] of [
    [mira, 'mira'],
    [ansel, 'ansel'],
  ] as const) {
    const listening = page.waitForRequest((r) => r.url().endsWith('/jobs/32/live'));
    await page.goto(`${server.url}/jobs/32/probe`);
    await signIn(page, name);
    await listening;
  }
  await ansel.getByLabel('Entry line').fill('tp7 1.6');
  await enterLine(mira, 'note the left shield bends');
  await expect(ansel.getByText('Entered by Mira, Window bench: the page shows it.')).toBeVisible();
  await expect(ansel.getByLabel('Entry line')).toHaveValue('tp7 1.6');
  await ansel.getByLabel('Entry line').press('Escape');
  await enterLine(ansel, 'note seen');
  await expect(mira.getByText('Entered by Ansel, Window bench: the page shows it.')).toBeVisible();
});

test(
  'an apprentice works, but not at the shop’s affairs; a donor is opened with a lead’s word; signed out is out',
  { tag: LONG },
  async ({ browser }) => {
    const page = await (await browser.newContext()).newPage();
    await page.goto(`${server.url}/stock`);
    await signIn(page, 'ansel');
    await expect(page).toHaveURL(/\/stock$/);
    const cookie = await cookiesOf(page);
    for (const at of Object.values(ROUTES)) {
      const status = await statusOf(at, { headers: { ...PAGE, cookie } });
      expect([at, at.startsWith('/shop') ? status === 403 : status < 500 && status !== 303 && status !== 401]).toEqual([
        at,
        true,
      ]);
    }
    await page.getByLabel('Entry line').fill('d-3 opened');
    await page.keyboard.press('Enter');
    await expect(page.getByText(/Opening a donor needs a lead's word/)).toBeVisible();
    await page.goto(`${server.url}/sign-in`, { waitUntil: 'networkidle' });
    await page.getByLabel('Lead’s name').fill('mira');
    await page.getByLabel('Lead’s password').fill('mira has a cup');
    await page.getByRole('button', { name: 'Give it' }).click();
    await expect(page.getByText(/^Mira's word stands for the next entry of Ansel/)).toBeVisible();
    await page.goto(`${server.url}/stock`, { waitUntil: 'networkidle' });
    await enterLine(page, 'd-3 opened');

    await page.goto(`${server.url}/sign-in`, { waitUntil: 'networkidle' });
    await page.getByRole('button', { name: 'Sign out at every bench' }).click();
    await expect(headline(page)).toHaveText('Who is at this bench?');
    expect(await statusOf('/jobs', { headers: { ...PAGE, cookie } })).toBe(303);
  },
);

test('wrong tries make a name wait', async ({ page }) => {
  await page.goto(`${server.url}/sign-in`, { waitUntil: 'networkidle' });
  for (let k = 0; k < 5; k++) {
    await signIn(page, 'ansel', `guess number ${k}`);
    await expect(page.getByText(/Expected a name and a password|Too many wrong tries/)).toBeVisible();
    await page.waitForTimeout(300);
  }
  await signIn(page, 'ansel');
  await expect(page.getByText(/^Too many wrong tries for this name\. Try again in \d+ s\.$/)).toBeVisible();
});

test('a client that asks without end waits; it is told how long', { tag: LONG }, async ({ request }) => {
  // The last of this file: strangers of this address are held back for a minute.
  const statuses = new Map<number, number>();
  let waitS = '';
  for (let k = 0; k < 60 && !statuses.has(429); k++) {
    const answers = await Promise.all(
      Array.from({ length: 50 }, () => request.get(`${server.url}/clocks`, { maxRedirects: 0 })),
    );
    for (const answer of answers) {
      statuses.set(answer.status(), (statuses.get(answer.status()) ?? 0) + 1);
      waitS = answer.headers()['retry-after'] ?? waitS;
    }
  }
  expect(statuses.get(429)).toBeGreaterThan(0);
  expect(Number(waitS)).toBeGreaterThan(0);
  expect(statuses.get(429)).toBeLessThan([...statuses.values()].reduce((a, b) => a + b) / 10);
});
