import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { enterLine, headline, readyLine, stageKey } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3213);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

const PAGES = [
  '/',
  '/day',
  '/jobs',
  '/jobs/new',
  '/library',
  '/library/heronlog-4-c',
  '/library/heronlog-4-c/good',
  '/guide/probe',
  '/jobs/31/arrive',
  '/jobs/31/outside',
  '/jobs/31/probe',
  '/jobs/32/decide',
  '/jobs/28/decide?view=route',
  '/jobs/35/decide?view=chip',
  '/jobs/35/decide?view=straps',
  '/stock',
  '/stock?view=donors',
  '/stock?view=plan',
  '/stock/labels',
  '/library/parts?type=marsh-pd-r2',
  '/jobs/32/heat',
  '/jobs/32/heat?view=foreign',
  '/jobs/32/heat?view=bake',
  '/jobs/32/heat?view=goals',
  '/library/stations',
  '/library/stations/bench-1',
  '/jobs/32/balls',
  '/jobs/32/balls?view=clear',
  '/jobs/32/balls?view=picture&part=U8',
  '/jobs/32/balls?view=mix',
  '/jobs/32/balls?view=place',
  '/jobs/27/run',
  '/jobs/29/image',
  '/jobs/29/image?view=map',
  '/library/images?family=heron-pd',
  '/jobs/27/prove',
  '/jobs/27/prove?view=unpowered',
  '/jobs/27/prove?view=plugs',
  '/jobs/27/prove?view=functions',
  '/jobs/27/close',
  '/jobs/26/report',
  '/jobs/32/decide?view=quote',
  '/library/practice?view=business',
  '/drills',
  '/drills/memory',
  '/shop',
];

/** One page of each stage: what is looked over at every run. */
const STAGES = PAGES.filter((path) => /^\/(jobs\/\d+\/\w+)?$/.test(path));

/** No page has frames of another origin: the check needs no page of its own for each look. */
const axeOf = (page: Page): AxeBuilder =>
  new AxeBuilder({ page }).options({ resultTypes: ['violations'], preload: false }).setLegacyMode(true);

/** What assistive technology would stumble over on these pages, and whether they answered at all. */
async function problemsOf(page: Page, paths: readonly string[], alsoDimmed: boolean): Promise<string[]> {
  const problems: string[] = [];
  page.on('pageerror', (error) => problems.push(`page error: ${error.message.slice(0, 120)}`));
  const look = async (path: string, axe: AxeBuilder): Promise<void> => {
    for (const { id, nodes } of (await axe.analyze()).violations) {
      const where = nodes.slice(0, 3).map((n) => n.target.join(' '));
      problems.push(`${path}: ${id}: ${where.join(' | ')}`);
    }
  };
  for (const path of paths) {
    const answer = await page.goto(`${server.url}${path}`);
    if (!answer?.ok()) problems.push(`${path}: status ${answer?.status()}`);
    await expect(headline(page)).toBeVisible();
    await look(path, axeOf(page).withTags(['wcag2a', 'wcag2aa', 'wcag21aa']));
    if (!alsoDimmed) continue;
    // The theme is a class of the root: nothing but colours hangs on it.
    // A page that has not quite come alive yet sets its own class once more.
    await expect(async () => {
      await page.evaluate(() => document.documentElement.classList.replace('light', 'dark'));
      await expect(page.locator('html')).toHaveClass(/dark/, { timeout: 300 });
    }).toPass({ timeout: 15_000 });
    await look(`${path}, dim`, axeOf(page).withRules(['color-contrast']));
  }
  return problems;
}

test('the stages are clean for assistive technology', async ({ page }) => {
  expect(await problemsOf(page, STAGES, false)).toEqual([]);
});

test(
  'every page is clean for assistive technology, on paper; dimmed its colours still stand apart',
  { tag: LONG },
  async ({ page }) => {
    // Some fifty pages, each looked over whole: on a busy machine that takes ten minutes.
    test.setTimeout(1_200_000);
    expect(await problemsOf(page, PAGES, true)).toEqual([]);
  },
);

test('completion, recall, correction and undo by keyboard', async ({ page }) => {
  await page.goto(`${server.url}/jobs/31/probe`);
  const line = await readyLine(page);
  await page.keyboard.type('vpa');
  await page.keyboard.press('Tab');
  await expect(line).toHaveValue('vpack ');
  await page.keyboard.type('3.9');
  await expect(page.getByRole('status').first()).toContainText('voltage of VPACK, 3.90 V: as 5 good boards read');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').first()).toContainText('Kept:');

  await page.keyboard.press('ArrowUp');
  await expect(line).toHaveValue('vpack 3.9');
  await enterLine(page, 'fix vpack 0.5');
  const readings = page.getByRole('list', { name: 'Readings, newest first' });
  await expect(readings).toContainText('0.50 V');
  await expect(readings).not.toContainText('3.90 V');

  await page.keyboard.press('Shift+U');
  await expect(readings).toContainText('3.90 V');
  await page.keyboard.press('Shift+U');
  await expect(readings).not.toContainText('VPACK');
});

test('keys: other test, stages, list of keys, large type, find', async ({ page }) => {
  await page.goto(`${server.url}/jobs/31/probe`);
  const first = await headline(page).innerText();
  await page.keyboard.press('Shift+N');
  await expect(headline(page)).not.toHaveText(first);
  await stageKey(page, 8, 'Prove');
  await page.keyboard.press('?');
  await expect(page.getByRole('region', { name: 'Keys' })).toContainText('the foot pedal');
  await page.keyboard.press('?');
  await page.keyboard.press('Shift+B');
  await expect(page.locator('html')).toHaveAttribute('data-large', '');
  await page.keyboard.press('/');
  await expect(page.getByLabel('Find a job')).toBeFocused();
  await page.keyboard.type('flood');
  await expect(headline(page)).toHaveText('1 of 12 jobs');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/jobs\/27\//);
});

test('find and the list of keys work on pages without an entry line', async ({ page }) => {
  await page.goto(`${server.url}/library`);
  await expect(headline(page)).toBeVisible();
  await expect(async () => {
    await page.keyboard.press('?');
    await expect(page.getByRole('region', { name: 'Keys' })).toContainText('find a job', { timeout: 500 });
  }).toPass();
  await page.getByRole('link', { name: 'The guide to this page' }).click();
  await expect(headline(page)).toHaveText('Library');
  await expect(page.getByRole('img').first()).toBeVisible();
  await page.getByRole('navigation', { name: 'Guide' }).getByRole('link', { name: 'Probe' }).click();
  await expect(headline(page)).toHaveText('Probe');
  await page.keyboard.press('/');
  await expect(page.getByLabel('Find a job')).toBeFocused();
});

test('a digit typed where a value is due is a value, on every walk', async ({ page }) => {
  for (const place of [
    '31/outside?view=walk',
    '31/probe',
    '27/prove?view=rails',
    '27/prove?view=unpowered',
    '31/arrive',
  ]) {
    await page.goto(`${server.url}/jobs/${place}`);
    const line = await readyLine(page);
    await expect(line).toBeFocused();
    for (const value of ['0', '1.21', '3.31', '9', '12,5', '99.99']) {
      await page.keyboard.type(value);
      await expect(line).toHaveValue(value);
      await page.keyboard.press('Escape');
    }
    await expect(page).toHaveURL(new RegExp(place.split('?')[0]));
  }
});

test('a heat run shows its progress and can be cancelled', { tag: LONG }, async ({ page }) => {
  await page.goto(`${server.url}/jobs/32/heat`);
  await expect(headline(page)).toHaveText(/[Ll]ift U4/, { timeout: 30_000 });
  await enterLine(page, 'step 5 600s');
  const cancel = page.getByRole('button', { name: 'Cancel' });
  await expect(cancel).toBeHidden({ timeout: 60_000 });
  await page.keyboard.type('step 3 200s');
  // The run may be over before the line is told to be kept: the button is pressed as soon as it is there.
  await Promise.all([cancel.dispatchEvent('click'), page.keyboard.press('Enter')]);
  await expect(page.getByText('Cancelled.')).toBeVisible();
  await page.getByRole('button', { name: 'Run again' }).click();
  await expect(page.getByText('Cancelled.')).toBeHidden();
});

test(
  'ten thousand jobs: the list counts and finds on the server, and a page of it is small',
  { tag: LONG },
  async ({ page }) => {
    await server.addClosedJobs(10_000);
    await page.goto(`${server.url}/jobs`);
    await expect(headline(page)).toHaveText('10,012 jobs');
    const rows = page.getByRole('region', { name: 'The jobs' }).getByRole('link');
    await expect(rows).toHaveCount(60);
    await page.getByRole('link', { name: 'Older' }).click();
    await expect(page.getByText('Page 2 of 167')).toBeVisible();
    await page.getByLabel('Find a job').fill('10998 stopped');
    await expect(headline(page)).toHaveText('1 of 10,012 jobs');
    await expect(rows).toHaveCount(1);
    await page.goto(server.url);
    await expect(page.getByRole('link', { name: /0031/ })).toBeVisible();
  },
);
