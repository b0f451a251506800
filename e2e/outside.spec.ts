import AxeBuilder from '@axe-core/playwright';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { enterLine } from './bench';
import { BenchServer } from './server';

const server = new BenchServer(3216);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-outside-'));
const file = (name: string, content: string | Buffer): string => {
  const at = path.join(folder, name);
  writeFileSync(at, content);
  return at;
};

async function newJob(page: Page): Promise<void> {
  await page.goto(`${server.url}/jobs/new`);
  await page.getByLabel('Board').selectOption('heronlog-4-c');
  await page.getByLabel('Symptom, in the owner’s words').fill('charges one way round only');
  await page.getByRole('button', { name: 'Open the job' }).click();
  await enterLine(page, 'look j1 good');
}

test('a trace for each way, on one axis, with named segments; the conclusion and the suspects follow', async ({
  page,
}) => {
  await newJob(page);
  await page.getByRole('button', { name: 'Traces' }).click();
  await page.getByLabel('Load a trace, A way').setInputFiles('demo/outside/silent-a-way.csv');
  await expect(page.getByRole('img', { name: 'Current over time, both plug ways' })).toBeVisible();
  await page.getByLabel('Load a trace, B way').setInputFiles('demo/outside/charging-b-way.csv');
  await expect(page.getByRole('navigation', { name: 'The path' })).toContainText('B way: charging');
  const drawing = page.getByRole('img', { name: 'Current over time, both plug ways' });
  await expect(drawing).toContainText('five volts, no conversation');
  await expect(drawing).toContainText('charging steadily');
  await expect(page.getByRole('complementary')).toContainText('U4 port controller, its CC side A dead');
  await page.reload();
  await page.getByRole('button', { name: 'Traces' }).click();
  await expect(drawing).toContainText('current climbs');
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
});

test('a capture that stops after the offers says so, and what that implicates on this board', async ({ page }) => {
  await newJob(page);
  await page.getByRole('button', { name: 'Conversation', exact: true }).click();
  await page.getByLabel('Load a capture').setInputFiles('demo/outside/offers-unanswered.csv');
  const talk = page.getByRole('region', { name: 'The conversation' });
  await expect(talk).toContainText('Offers go unanswered');
  await expect(talk).toContainText('CC1 talks.');
  await expect(talk).toContainText('U4: hears offers and does not acknowledge');
  await expect(talk).toContainText('Source_Capabilities: 5 V 3 A, 9 V 3 A, 15 V 3 A, 20 V 3.25 A');
  await page.getByLabel('Load a capture').setInputFiles('demo/outside/contract.csv');
  await expect(talk).toContainText('A contract is reached and holds: 15 V, 2 A');
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
});

test('the healthy window follows the charger', async ({ page }) => {
  await newJob(page);
  await expect(page.locator('main')).toContainText('healthy: 15 V, 0.40 to 0.80 A');
  await page.getByLabel('Charger').selectOption({ label: 'small, 5 V 1 A charger' });
  await expect(page.locator('main')).toContainText('healthy: 5 V');
});

test('files that are no traces or captures get a sentence and leave the job as it was', async ({ page }) => {
  await newJob(page);
  const problem = page.getByRole('alert').filter({ hasText: 'xpected' });
  await page.getByRole('button', { name: 'Traces' }).click();
  await page.getByLabel('Load a trace, A way').setInputFiles(file('empty.csv', ''));
  await expect(problem).toContainText('empty.csv: Expected a meter’s CSV file; got an empty file.');
  await page
    .getByLabel('Load a trace, A way')
    .setInputFiles(
      file(
        'scaled.csv',
        `Time (s),Voltage (V),Current (A)\n${Array.from({ length: 30 }, (_, i) => `${i},5020,0.1`).join('\n')}`,
      ),
    );
  await expect(problem).toContainText('Expected a port voltage up to 60 V; got 5020.0');
  await page.getByRole('button', { name: 'Conversation', exact: true }).click();
  await page.getByLabel('Load a capture').setInputFiles(file('noise.bin', Buffer.alloc(50_000)));
  await expect(problem).toContainText('noise.bin: Expected rows of text; got 10,000 bytes without a line end.');
  await page.reload();
  await expect(page.getByText('not read yet')).toHaveCount(2);
});
