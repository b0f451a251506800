/** The lead's morning: the day is planned, a device promised, a price told and taken; the plan follows. */
import { enterLine, headline, refusedLine, stageKey, tabTo } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3244);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

test(
  'the day says who does what next and what may be promised; a promise that cannot be kept is told, one taken back is gone',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/`, { waitUntil: 'networkidle' });
    await page.getByRole('link', { name: 'The day' }).click();
    // A swollen pack comes before everything else.
    await expect(headline(page)).toHaveText('Bench lead: Swollen pack out first, into the fire-safe box', {
      timeout: 30_000,
    });
    await expect(page.getByText(/A device that comes in now may be promised for/)).toBeVisible();
    await expect(page.getByRole('img', { name: 'The day, person by person' })).toBeVisible();

    await page.goto(`${server.url}/jobs/32/probe`, { waitUntil: 'networkidle' });
    expect(await refusedLine(page, 'promise soon')).toBe(
      'Expected a day such as 2026-12-01 after "promise"; got "soon".',
    );
    await enterLine(page, 'promise 2020-01-01');
    await page.goto(`${server.url}/?view=day`);
    await expect(page.getByText(/0032 will not be done as promised in eight of ten days/)).toBeVisible({
      timeout: 30_000,
    });
    await page.goto(`${server.url}/jobs/32/probe`, { waitUntil: 'networkidle' });
    await enterLine(page, 'promise off');
    await page.goto(`${server.url}/?view=day`);
    await expect(page.getByText('Every promise is kept in eight of ten days.')).toBeVisible({ timeout: 30_000 });
    const [hour] = /\d\d:\d\d$/.exec(await page.getByText(/^job 00\d\d, /).innerText()) ?? [];
    await page.getByRole('link', { name: 'The day’s sheet, to be printed' }).click();
    await expect(headline(page)).toHaveText(/^[A-Z][a-z]{2},? \d+ [A-Z][a-z]{2}$/);
    const lead = page.getByRole('region', { name: 'Bench lead' });
    await expect(lead).toContainText('Swollen pack out first, into the fire-safe box');
    if (hour) await expect(lead).toContainText(hour);
    await expect(page.getByRole('region', { name: 'Runs by itself' })).toBeVisible();
  },
);

test(
  'a job that waits for a delivery is planned after it; one that is overdue is asked for, one that is here goes on',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/34/probe`);
    expect(await refusedLine(page, 'awaits here')).toContain('Nothing is waited for.');
    const inFiveDays = new Date(Date.now() + 5 * 24 * 3_600_000).toISOString().slice(0, 10);
    await enterLine(page, `awaits ${inFiveDays} donor board`);
    await page.goto(`${server.url}/?view=day`);
    await expect(page.getByText(/^waits for donor board, expected /)).toBeVisible({ timeout: 30_000 });
    await page.goto(`${server.url}/jobs/34/probe`);
    await enterLine(page, 'awaits 2020-01-06 donor board');
    await page.goto(`${server.url}/?view=day`);
    await expect(page.getByText(/donor board for 0034 was expected Mon 6 Jan: ask where it is/)).toBeVisible();
    await page.goto(`${server.url}/jobs/34/probe`);
    await enterLine(page, 'awaits here');
    await page.goto(`${server.url}/?view=day`);
    await expect(page.getByText(/A device that comes in now/)).toBeVisible({ timeout: 30_000 });
    await expect(page.getByText(/donor board/)).toBeHidden();
  },
);

test('a quote is a range with a chance; what was told stays with the job, and what the owner said', async ({
  page,
}) => {
  await page.goto(`${server.url}/jobs/32/decide?view=quote`, { waitUntil: 'networkidle' });
  await expect(headline(page)).toHaveText(/^\d+\.\d\d to \d+\.\d\d, cured in \d+ of 100$/);
  await page.getByLabel('Price told to the owner').fill('95');
  await page.getByRole('button', { name: 'It was sent' }).click();
  await expect(page.getByText('Told: 95.00, sent.')).toBeVisible();
  await page.getByRole('button', { name: 'Accepted' }).click();
  await expect(page.getByText('Told: 95.00, accepted.')).toBeVisible();
  await page.goto(`${server.url}/jobs/34/probe`, { waitUntil: 'networkidle' });
  expect(await refusedLine(page, 'quote accepted')).toBe('Expected a quote that was sent before it is accepted.');
  await enterLine(page, 'quote 120');
  await enterLine(page, 'quote refused');
});

test('a lead’s morning by keyboard: the day, a device taken in with a promise, its quote, a late delivery, the day anew', async ({
  page,
}) => {
  const press = async (name: string): Promise<void> => {
    await tabTo(page, name);
    await page.keyboard.press('Enter');
  };
  await page.goto(`${server.url}/`, { waitUntil: 'networkidle' });
  await press('The day');
  await expect(headline(page)).toHaveText(/^Bench lead: /, { timeout: 30_000 });
  await press('Bench');
  await press('Take a device in');
  await expect(headline(page)).toHaveText('What came in, and what does its owner say?');
  await page.waitForLoadState('networkidle');
  await tabTo(page, 'Board');
  await page.keyboard.type('Heronlog');
  await tabTo(page, 'Symptom, in the owner’s words');
  await page.keyboard.type('does not charge any more');
  await press('Open the job');
  await expect(page).toHaveURL(/\/jobs\/\d+\/outside$/, { timeout: 60_000 });
  const number = /jobs\/(\d+)/.exec(page.url())![1];
  const inAWeek = new Date(Date.now() + 7 * 24 * 3_600_000).toISOString().slice(0, 10);
  await enterLine(page, `promise ${inAWeek}`);

  await stageKey(page, 4, 'Decide');
  await press('Quote');
  await expect(headline(page)).toHaveText(/cured in \d+ of 100$/, { timeout: 60_000 });
  await tabTo(page, 'Price told to the owner');
  await page.keyboard.press('ControlOrMeta+A');
  await page.keyboard.type('95');
  await press('It was sent');
  await expect(page.getByText('Told: 95.00, sent.')).toBeVisible();
  await press('Accepted');
  await expect(page.getByText('Told: 95.00, accepted.')).toBeVisible();

  await stageKey(page, 3, 'Probe');
  await enterLine(page, 'awaits 2020-01-06 port controller');
  await press('Bench');
  await expect(page.getByRole('link', { name: new RegExp(`${number}.*Ask for port controller`) })).toBeVisible();
  await press('The day');
  await expect(page.getByText(`port controller for ${number.padStart(4, '0')} was expected`)).toBeVisible({
    timeout: 30_000,
  });
  await expect(page.getByText('Every promise is kept in eight of ten days.')).toBeVisible();
});

test('the shop says when it works, what it asks and what an owner is told', { tag: LONG }, async ({ page }) => {
  await page.goto(`${server.url}/library/practice?view=business`, { waitUntil: 'networkidle' });
  await page.getByLabel('Hours').fill('18 to 9');
  await page.getByRole('button', { name: 'Keep this' }).click();
  await expect(page.getByText(/^Expected spans that end after they begin/)).toBeVisible();
  await page.getByLabel('Hours').fill('8 to 12, 12:45 to 16:30');
  await page.getByLabel('Saturday').check();
  await page.getByLabel('One price for every cure').fill('90');
  await page.getByLabel('Fee for looking', { exact: true }).fill('15,50');
  await page.getByLabel('What an owner is told').fill('{device}: {price}, or {fee} where we fail.');
  await expect(page.getByText('Heronlog 4: 95, or 20 where we fail.')).toBeVisible();
  await page.getByRole('button', { name: 'Keep this' }).click();
  await expect(page.getByText('Kept: the day is planned and jobs are priced by it from now on.')).toBeVisible();

  await page.goto(`${server.url}/?view=day`);
  await expect(page.getByText('Monday to Saturday, 8:00 to 12:00, 12:45 to 16:30.')).toBeVisible({ timeout: 30_000 });
  await page.goto(`${server.url}/jobs/32/decide?view=quote`, { waitUntil: 'networkidle' });
  await expect(headline(page)).toHaveText(/^106.00 to 106.00, cured in/);
  await page.getByLabel('Price told to the owner').fill('110');
  await expect(page.getByText('Heronlog 4: 110.00, or 15.50 where we fail.')).toBeVisible();
});
