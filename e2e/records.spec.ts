/** What the closed jobs say: tables, points, learning, and the files that go out. */
import AxeBuilder from '@axe-core/playwright';
import { loadYear } from '../demo/year';
import { openDatabase } from '../src/db/client';
import { headline } from './bench';
import { BenchServer } from './server';
import { expect, test } from './test';

const server = new BenchServer(3246);
test.beforeAll(async () => {
  await server.start();
  const db = await openDatabase(server.databaseUrl);
  await db.transaction((tx) => loadYear(tx, 40));
});
test.afterAll(() => server.stop());

test('cures by person, a point near a value, and learning with its way back', async ({ page }) => {
  await page.goto(`${server.url}/records`, { waitUntil: 'networkidle' });
  await expect(headline(page)).toContainText(/^\d+ of \d+ repaired/);
  await page.getByLabel('Put together by').selectOption('person');
  await expect(page).toHaveURL(/by=person/);
  await expect(page.getByText('Jorun')).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);

  await page.getByRole('link', { name: 'What it read' }).click();
  await expect(page.getByRole('list', { name: 'Readings by cause' })).toContainText('good boards');
  await page.getByLabel('It reads here').fill('0.6');
  await page.getByRole('button', { name: 'What was it?' }).click();
  await expect(headline(page)).toContainText('0.60 A');

  await page.getByRole('link', { name: 'What was learned' }).click();
  await expect(headline(page)).toContainText(/^Learning told \d+ of 11 kinds of steps better/);
  await page.getByRole('button', { name: 'Plan with what ships instead' }).click();
  await expect(page.getByText('Plans count with what ships.')).toBeVisible();
});

test('the table goes out as CSV and the year as a sheet; a year that is none is a sentence', async ({ request }) => {
  const csv = await (await request.get(`${server.url}/records/cures.csv?by=month`)).text();
  expect(csv.split('\r\n')[0]).toContain('month,jobs,repaired');
  expect(csv.split('\r\n').length).toBeGreaterThan(8);
  const pdf = await request.get(`${server.url}/records/year.pdf?year=2026`);
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  const wrong = await request.get(`${server.url}/records/year.pdf?year=soon`);
  expect([wrong.status(), (await wrong.json()) as object]).toEqual([
    400,
    { problem: 'Expected a year such as 2026; got "soon".' },
  ]);
});
