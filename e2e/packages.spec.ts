/** A board goes to another shop as one package: added there, corrected, and the corrections come back line by line. */
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const home = new BenchServer(3240);
const away = new BenchServer(3241);
test.beforeAll(async () => {
  await home.start();
  await away.startEmpty();
});
test.afterAll(async () => {
  await home.stop();
  await away.stop();
});

const file = (buffer: Buffer) => ({ name: 'heronlog.zip', mimeType: 'application/zip', buffer });

test('whole to a shop that has none, and the lines that differ back', { tag: LONG }, async ({ page }) => {
  const packed = await (await page.request.get(`${home.url}/library/heronlog-4-c/package`)).body();
  await page.goto(`${away.url}/library`);
  await page.getByLabel('Open a board package').setInputFiles(file(packed));
  await expect(page.getByText('not in this library yet')).toBeVisible();
  await page.getByRole('button', { name: 'Add this board' }).click();
  await expect(page.getByText('Heronlog 4, power board: added.')).toBeVisible();

  // Somebody there finds a capacitor that the file does not have, and lays the flash a little to the right.
  await page.goto(`${away.url}/library/heronlog-4-c/edit`);
  const entry = page.getByLabel('Entry line');
  await entry.fill('add c77 on vin');
  await entry.press('Enter');
  await expect(page.getByText('Kept: C77', { exact: false })).toBeVisible();
  await entry.fill('u9 at 31 12');
  await entry.press('Enter');
  await page.getByRole('button', { name: 'Keep this board' }).click();
  await expect(page.getByText('Kept as file 2.')).toBeVisible();
  const back = await (await page.request.get(`${away.url}/library/heronlog-4-c/package`)).body();

  await page.goto(`${home.url}/library`);
  await page.getByLabel('Open a board package').setInputFiles(file(back));
  await expect(page.getByText('3 lines differ')).toBeVisible();
  // The part and the package it comes in.
  await expect(page.getByLabel('C77: only in theirs')).toBeChecked();
  await expect(page.getByLabel(/^U9: xMm/)).not.toBeChecked();
  await page.getByRole('button', { name: 'Take 2 of 3 lines' }).click();
  await expect(page.getByText('2 lines taken: file 2.')).toBeVisible();
  const mine = await (await page.request.get(`${home.url}/library/heronlog-4-c/files/board.json`)).json();
  expect(mine.parts.some((p: { ref: string }) => p.ref === 'C77')).toBe(true);

  await page.getByLabel('Open a board package').setInputFiles(file(Buffer.from('no archive')));
  await expect(page.getByText(/Expected a board package \(zip\); got something else/)).toBeVisible();
});
