/** Which chip, straps, stock and the plan, in the real interface. */
import { enterLine, headline, refusedLine } from './bench';
import { BenchServer } from './server';
import { expect, test } from './test';

const server = new BenchServer(3218);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

test('the chip that goes is on top with what it takes; taken by keyboard, it becomes the plan of the stages', async ({
  page,
}) => {
  await page.goto(`${server.url}/jobs/35/decide`, { waitUntil: 'networkidle' });
  await expect(headline(page)).toHaveText('U12: marsh-pd-r2 fits after work');
  await expect(page.getByText('Change strap R22 from 33 kΩ to 22 kΩ').first()).toBeVisible();
  await expect(page.getByRole('region', { name: 'Does not fit' })).toContainText('rill-pd-r1');
  await expect(page.getByRole('region', { name: 'Would go, but' })).toContainText('prove donor D-5 first');
  await page.getByRole('button', { name: 'Take this chip' }).first().focus();
  await page.keyboard.press('Enter');
  await expect(headline(page)).toHaveText('Chosen for U12: marsh-pd-r2, C-108 of lot L-14');
  await page.goto(`${server.url}/jobs/35/heat`);
  await expect(page.getByText('Comes off for marsh-pd-r2: U12, R22')).toBeVisible();
  await page.goto(`${server.url}/jobs/35/prove`);
  await expect(page.getByText('Shows whether U12 works: charges its pack, data over port 2')).toBeVisible();
});

test('a row opens into its reasons, each with its rule', async ({ page }) => {
  await page.goto(`${server.url}/jobs/36/decide?view=chip`, { waitUntil: 'networkidle' });
  const look = page.getByRole('region', { name: 'Does not fit' }).locator('details', { hasText: 'rill-pd-r1' });
  await look.locator('summary').focus();
  await page.keyboard.press('Enter');
  await expect(look).toContainText('8 is FCLK, not FCS');
  await expect(look.getByRole('button')).toHaveCount(0);
});

test('straps: the series, the drawer and a tolerance change what is to be done; nonsense gets a sentence', async ({
  page,
}) => {
  await page.goto(`${server.url}/jobs/36/decide?view=straps`, { waitUntil: 'networkidle' });
  await page.getByRole('combobox', { name: /^Place/ }).selectOption('U12');
  await page.getByRole('combobox', { name: /^Chip/ }).selectOption('marsh-pd-r2');
  await expect(headline(page)).toHaveText('Change strap R22 from 33 kΩ to 22 kΩ');
  await page.getByLabel('Or only what is in the drawer').fill('10k 18k');
  await expect(headline(page)).toHaveText('Change strap R22 from 33 kΩ to 18 kΩ');
  await page.getByLabel('Tolerance, %').fill('90');
  await expect(page.getByText('Expected a tolerance from 0.1 to 20 %; got 90.0 %.')).toBeVisible();
  await page.getByRole('combobox', { name: /^Place/ }).selectOption('U11');
  await page.getByRole('combobox', { name: /^Chip/ }).selectOption('marsh-pd-r2');
  await expect(headline(page)).toHaveText('The straps are right as they are');
});

test('the plan opens the donor that serves most, and changes when a job has its chip', async ({ page }) => {
  await page.goto(`${server.url}/stock?view=plan`, { waitUntil: 'networkidle' });
  await expect(headline(page)).toContainText('Open D-3: all');
  await expect(page.getByText(/Saves \d+ against one donor a job/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Open D-3' })).toContainText('Job 36, U13');
  await enterLine(page, 'take l-12 for 32');
  await expect(page.getByText(/Set aside already:.*Job 32, U4/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'From the shelf' })).toHaveCount(0);
});

test('a plan under way can be cancelled, and made again', async ({ page, context }) => {
  let release = (): void => {};
  const held = new Promise<void>((resolve) => (release = resolve));
  await context.route('**/*.wasm', async (route) => {
    await held;
    await route.continue();
  });
  await page.goto(`${server.url}/stock?view=plan`);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText('Cancelled: no plan was made.')).toBeVisible();
  release();
  await page.getByRole('button', { name: 'Plan again' }).click();
  await expect(headline(page)).toContainText('served');
});

test('the stock by its entry line: a pair stays a pair, and what cannot be is said', async ({ page }) => {
  await page.goto(`${server.url}/stock?view=donors`, { waitUntil: 'networkidle' });
  expect(await refusedLine(page, 'd-5 opened')).toContain('proven before it is opened');
  await enterLine(page, 'd-5 works charge');
  await enterLine(page, 'd-5 opened');
  await enterLine(page, 'pull d-5 u11');
  await page.getByLabel('Entry line').press('Shift+S');
  await expect(page.getByRole('region', { name: 'Tray of donor D-5' })).toContainText('pair with');
  const ids = await page
    .getByRole('region', { name: 'Tray of donor D-5' })
    .getByText(/^C-\d+$/)
    .allInnerTexts();
  expect(ids).toHaveLength(2);
  expect(await refusedLine(page, `${ids[0]} scrap`)).toContain(`move with its partner ${ids[1]}`);
  await enterLine(page, `${ids[0]} for 37`);
  await expect(page.getByRole('region', { name: 'Set aside for job 37' })).toContainText(ids[1]);
  expect(await refusedLine(page, 'c-107 for 31')).toContain('C-107 is dead');
});

test('fifty requests at once for one chip: one job gets it', async ({ request }) => {
  const post = (line: string, key: string) => request.post(`${server.url}/stock/events`, { data: { line, key } });
  const taken = await (await post('take l-13', 'fifty')).json();
  const chip = /C-\d+/.exec(taken.message)![0];
  const answers = await Promise.all(Array.from({ length: 50 }, (_, i) => post(`${chip} for ${200 + i}`, `want ${i}`)));
  const statuses = answers.map((a) => a.status());
  expect(statuses.filter((s) => s === 200)).toHaveLength(1);
  expect(statuses.filter((s) => s === 409)).toHaveLength(49);
  expect((await request.post(`${server.url}/stock/events`, { data: { line: 3 } })).status()).toBe(400);
  const foreign = { headers: { 'content-type': 'text/plain' }, data: '{}' };
  expect((await request.post(`${server.url}/stock/events`, foreign)).status()).toBe(415);
});

test('a report and a school count on the next look at the job', async ({ page }) => {
  await page.goto(`${server.url}/library/parts?type=heron-pd-r2`, { waitUntil: 'networkidle' });
  await page.getByLabel('charges its pack').selectOption('worked');
  await page.getByLabel('Note').fill('reflowed twice');
  await page.getByRole('button', { name: 'Keep the report' }).click();
  await expect(page.getByText('Kept: it counts from now on.')).toBeVisible();
  await page.getByLabel(/The memory moves or is rewritten/).selectOption('always');
  await expect(page.getByText('Kept: every open job counts with it from now on.')).toBeVisible();
  await page.goto(`${server.url}/jobs/32/decide?view=chip`, { waitUntil: 'networkidle' });
  await expect(page.getByText('5 of 6 reports say it worked.').first()).toBeVisible();
  await expect(page.getByText('Write a sound image to U9').first()).toBeVisible();
});

test('labels carry a code for each loose chip, and a part file with a fault is explained', async ({ page }) => {
  await page.goto(`${server.url}/stock/labels`);
  await expect(page.getByRole('img', { name: 'Code of c-90' })).toBeVisible();
  await page.goto(`${server.url}/library/parts`, { waitUntil: 'networkidle' });
  await page
    .getByLabel('Add part types')
    .setInputFiles({ name: 'bad.json', mimeType: 'application/json', buffer: Buffer.from('[{"id":"x"}]') });
  await expect(page.getByRole('alert').filter({ hasText: 'Nothing was kept' })).toBeVisible();
});
