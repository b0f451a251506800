/** A drill from its beginning to its lesson, and that nothing of it is in any record. */
import AxeBuilder from '@axe-core/playwright';
import { createClient } from '@libsql/client';
import type { Page } from '@playwright/test';
import { enterLine, headline, refusedLine } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3245);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

async function begin(page: Page, drill: string): Promise<void> {
  await page.goto(`${server.url}/drills`, { waitUntil: 'networkidle' });
  await page
    .getByText(drill, { exact: true })
    .locator('..')
    .getByRole('button', { name: /Begin|Again/ })
    .click();
  await expect(page).toHaveURL(/\/drills\/\d+$/, { timeout: 60_000 });
}

/** Everything but drills, entries' keys and sign-ins, as counts. */
async function countsOfRecords(): Promise<unknown> {
  const client = createClient({ url: server.databaseUrl });
  const tables = [
    'jobs',
    'job_events',
    'stock_events',
    'ledger_jobs',
    'ledger_readings',
    '"references"',
    'evidence',
    'calibrations',
    'settings',
  ];
  const counts = [];
  for (const table of tables) counts.push((await client.execute(`select count(*) as n from ${table}`)).rows[0].n);
  client.close();
  return counts;
}

test('a newcomer finds a fault in ten minutes: the story, readings by their names, the work, and the lesson', async ({
  page,
}) => {
  await begin(page, 'Drill 3, Heronlog 4');
  const before = await countsOfRecords();
  await expect(headline(page)).toContainText('J1 charges only one way round.');
  await enterLine(page, 'usb a');
  expect(await refusedLine(page, 'replace u99')).toContain('Expected a part of this board; got “u99”.');
  await enterLine(page, 'look j1');
  await enterLine(page, 'hint');
  await expect(page.getByRole('status').first()).toContainText('plugged B way');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Entry line')).not.toHaveValue('');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('listitem')).toHaveCount(4);
  await enterLine(page, 'replace c17');
  await page.reload({ waitUntil: 'networkidle' });
  await expect(page.getByRole('listitem')).toHaveCount(5);
  await page.getByLabel('Entry line').fill('replace d2');
  await page.keyboard.press('Enter');
  await expect(headline(page)).toContainText(/^Cured in \d+ min: \d+ of 100$/);
  await expect(page.locator('main')).toContainText('It was D2 ESD array, side B, CC2 shorted to ground.');
  await expect(page.locator('main')).toContainText('power before the look into the port');
  await expect(page.locator('main')).toContainText('work on a guess while a test would have told');
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
  expect(await countsOfRecords()).toEqual(before);

  await page.goto(`${server.url}/drills`);
  await expect(page.getByRole('complementary')).toContainText('after 1 drills');
});

test('giving up shows what it was', { tag: LONG }, async ({ page }) => {
  await begin(page, 'Drill 4, Marshdesk 2');
  await page.getByRole('button', { name: 'Show me what it was' }).click();
  await expect(headline(page)).toContainText('Given up');
  await expect(page.locator('main')).toContainText('It was U13 port 3 controller');
});

test('a job that was repaired becomes a drill, without a word of its owner', async ({ page }) => {
  await page.goto(`${server.url}/jobs/26/close`, { waitUntil: 'networkidle' });
  await page.getByRole('button', { name: 'Make a drill of it' }).click();
  await expect(page).toHaveURL(/\/drills\/\d+$/, { timeout: 60_000 });
  await expect(page.getByText('From the bench, job 26').first()).toBeVisible();
  await expect(page.getByText(/petrol|generator/)).toHaveCount(0);
});
