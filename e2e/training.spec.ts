import type { Page } from '@playwright/test';
import { enterLine, headline } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

/** A real shop: a board that somebody loaded, and no demo world. */
const server = new BenchServer(3219);
test.beforeAll(() => server.startEmpty());
test.afterAll(() => server.stop());

async function takeIn(page: Page, training: boolean): Promise<string> {
  await page.goto(`${server.url}/jobs/new`);
  await page.getByLabel(/^Symptom/).fill('no light');
  if (training) await page.getByLabel(/^A training job/).check();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page).toHaveURL(/\/jobs\/\d+\/outside/);
  return new URL(page.url()).pathname.split('/')[2];
}

const STAGES = ['outside?view=trace', 'outside?view=talk', 'balls?view=picture&part=U8', 'image', 'prove?view=rails'];

test(
  'a real job offers nothing simulated; a training job does, and says what it is on every page and in print',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/library`);
    await expect(headline(page)).toHaveText('0 boards');
    await page.getByLabel('Add a board file').setInputFiles('demo/boards/heronlog-4-c.json');
    await expect(page.getByRole('status')).toContainText('added, 80 parts');

    const real = await takeIn(page, false);
    for (const stage of STAGES) {
      await page.goto(`${server.url}/jobs/${real}/${stage}`);
      await expect(headline(page)).toBeVisible();
      await expect(page.getByText(/simulate/i)).toHaveCount(0);
      await expect(page.getByText('Training', { exact: true })).toHaveCount(0);
    }
    await page.goto(`${server.url}/jobs/${real}/probe`);
    await enterLine(page, 'tp7 1.62 ohm');

    const training = await takeIn(page, true);
    for (const stage of STAGES) {
      await page.goto(`${server.url}/jobs/${training}/${stage}`);
      await expect(page.getByText('Training', { exact: true })).toBeVisible();
    }
    await expect(page.getByText(/^Simulated supply and meter/)).toBeVisible();
    await page.goto(`${server.url}/jobs/${training}/report`);
    await expect(page.getByText(/^TRAINING: a job to learn on/)).toBeVisible();
    await page.goto(`${server.url}/jobs/${real}/report`);
    await expect(page.getByText(/^Readings: 1 typed/)).toBeVisible();
    await expect(page.getByText(/TRAINING/)).toHaveCount(0);
  },
);
