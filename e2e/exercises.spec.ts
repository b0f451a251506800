/** Hot air by hand, balls by eye, conversations by reading: each begun from the list, done, and judged. */
import type { Page } from '@playwright/test';
import { BenchServer } from './server';
import { expect, test } from './test';

const server = new BenchServer(3249);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

const headline = (page: Page) => page.getByRole('heading', { level: 1 });

async function begin(page: Page, name: string): Promise<void> {
  await page.goto(`${server.url}/drills`, { waitUntil: 'networkidle' });
  await page.getByRole('button', { name: `Begin: ${name}` }).click();
  await page.waitForURL(/\/drills\/\d+$/);
}

test('a part is lifted by hand: covers, dial, nudges that tell, and the curves afterwards', async ({ page }) => {
  await begin(page, 'Lift U4, Heronlog 4');
  await expect(headline(page)).toHaveText('Lift U4 by hand');
  await page.getByLabel('Plate below').selectOption('150');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByLabel(/^Dial 260 °C/)).toBeVisible();
  await page.getByRole('button', { name: '4×' }).click();
  await page.getByRole('button', { name: /^Air on/ }).click();
  await expect(headline(page)).toHaveText(/^\d+ s$/);
  // Nearer and hotter, as a hand would; then a nudge now and again until it gives way.
  for (let k = 0; k < 5; k++) await page.keyboard.press('ArrowLeft');
  for (let k = 0; k < 12; k++) await page.keyboard.press('ArrowUp');
  const said = page.getByText(/^Nudged at \d+ s: it (swims|does not move)\.$/);
  await expect(async () => {
    await page.keyboard.press('n');
    await expect(said).toHaveText(/it swims/, { timeout: 400 });
  }).toPass({ timeout: 60_000, intervals: [700] });
  await page.keyboard.press('l');
  await expect(headline(page)).toHaveText(/^\d+ of 100$/, { timeout: 30_000 });
  await expect(page.getByText('Coldest joint then')).toBeVisible();
  await expect(page.getByText('pulled while a joint was solid')).toBeHidden();
  await page.goto(`${server.url}/drills`);
  await expect(page.getByRole('button', { name: 'Again: Lift U4, Heronlog 4' })).toBeVisible();
});

test('balls are judged by eye, by pointer and by key, and what went by is told', async ({ page }) => {
  await begin(page, 'Well lit');
  await page.getByRole('button', { name: /^Show the first/ }).click();
  for (let k = 1; k <= 5; k++) {
    await expect(headline(page)).toHaveText(`Picture ${k} of 5`);
    const ball = page.getByRole('checkbox', { name: 'Ball 1', exact: true });
    await ball.click();
    await expect(ball).toBeChecked();
    if (k === 1) {
      await ball.press(' ');
      await expect(ball).not.toBeChecked();
    }
    await page.getByRole('button', { name: /^(Next picture|That was the last)/ }).click();
  }
  await expect(headline(page)).toHaveText(/^\d+ of 100$/);
  await expect(page.getByText('Sound ones called bad')).toBeVisible();
});

test('conversations are read by keys, and each says where to look', async ({ page }) => {
  await begin(page, 'Conversations, Heronlog 4');
  for (let k = 1; k <= 6; k++) {
    await expect(page.getByText(`conversation ${k} of 6`)).toBeVisible();
    // The first by pointer: from then on the page hears keys.
    if (k === 1) await page.getByRole('button', { name: /^1 / }).click();
    else await page.keyboard.press('1');
  }
  await expect(headline(page)).toHaveText(/^\d+ of 100$/);
  await expect(page.getByText('Look first at')).toBeVisible();
});

test('short questions: the answer behind a key, and what was known is not asked again today', async ({ page }) => {
  await page.goto(`${server.url}/drills`, { waitUntil: 'networkidle' });
  await page.getByRole('link', { name: 'Memory: 5 short questions' }).click();
  await page.waitForURL(/\/drills\/memory$/);
  await expect(page.getByRole('button', { name: /^Show the answer/ })).toBeVisible();
  await page.waitForLoadState('networkidle');
  const first = await headline(page).innerText();
  for (let k = 1; k <= 5; k++) {
    await expect(page.getByText(`${k} of 5`)).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByText('How well did you know it?')).toBeVisible();
    await page.keyboard.press('ArrowRight');
  }
  await expect(headline(page)).toHaveText('That was all for now');
  await page.waitForLoadState('networkidle');
  await page.reload({ waitUntil: 'networkidle' });
  await expect(headline(page)).not.toHaveText(first);
  await expect(page.getByText('1 of 5')).toBeVisible();
});
