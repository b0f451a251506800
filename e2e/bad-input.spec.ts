import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { enterLine, refusedLine } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3212);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-bad-'));
const file = (name: string, content: string | Buffer): string => {
  const at = path.join(folder, name);
  writeFileSync(at, content);
  return at;
};

test('a malformed board file is explained and changes nothing', async ({ page }) => {
  await page.goto(`${server.url}/library`);
  await page
    .getByLabel('Add a board file')
    .setInputFiles(file('board.json', '{ "format": "unisolda-board/1", "parts": "many" }'));
  await expect(page.getByRole('alert').filter({ hasText: 'not kept' })).toBeVisible();
  await expect(page.locator('main')).toContainText('thicknessMm: Invalid input: expected number, received undefined.');
  await page.getByLabel('Add a board file').setInputFiles(file('text.json', 'not a board'));
  await expect(page.locator('main')).toContainText('Expected a board file in JSON; got text that is not JSON');
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('2 boards');
});

test('a 50 MB text sent as an image is refused and the job stays as it was', { tag: LONG }, async ({ page }) => {
  await page.goto(`${server.url}/jobs/29/image`);
  const before = await page.locator('main').innerText();
  await page.getByLabel('Load a dump for the donor').setInputFiles(file('huge.txt', Buffer.alloc(50_000_000, 'text ')));
  const ask = page.getByRole('region', { name: 'What the file leaves open' });
  await expect(ask).toContainText('The file looks like text: are these very bytes what the chip holds?', {
    timeout: 60_000,
  });
  await page.keyboard.press('1');
  await expect(page.getByRole('alert').filter({ hasText: 'huge.txt' })).toContainText(
    'expected a dump of 131,072 bytes for Marsh three-port image; got 50,000,000',
  );
  await page.reload();
  expect(await page.locator('main').innerText()).toBe(before);
});

test('letters where a number belongs, and a point that does not exist', async ({ page }) => {
  await page.goto(`${server.url}/jobs/31/probe`);
  const readings = page.getByRole('listitem');
  const count = await readings.count();
  expect(await refusedLine(page, 'tp7 abc')).toContain('Expected a number such as 0.4, 4.7k or 4k7; got "abc".');
  expect(await refusedLine(page, 'tp77 1.2')).toContain(
    'Expected a test point, part or net of this board; got "tp77".',
  );
  await expect(page.getByLabel('Entry line')).toHaveValue('tp77 1.2');
  await page.reload();
  await expect(readings).toHaveCount(count);
});

test('two tabs entering at once: both entries are there in both', async ({ context }) => {
  const [a, b] = [await context.newPage(), await context.newPage()];
  await Promise.all([a.goto(`${server.url}/jobs/31/probe`), b.goto(`${server.url}/jobs/31/probe`)]);
  await Promise.all([enterLine(a, 'tp7 1.71 ohm'), enterLine(b, 'tp8 1.29k')]);
  for (const page of [a, b]) {
    await page.reload();
    const readings = page.getByRole('list', { name: 'Readings, newest first' });
    await expect(readings).toContainText('1.71 Ω');
    await expect(readings).toContainText('1.29 kΩ');
  }
});

test('pages and files that do not exist', async ({ page }) => {
  const missing = await page.goto(`${server.url}/jobs/4711/probe`);
  expect(missing!.status()).toBe(404);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('There is no such page');
  const image = await page.request.get(`${server.url}/images/abc`);
  expect(image.status()).toBe(404);
  expect(await image.json()).toEqual({ problem: 'Expected the SHA-256 of a kept image; got abc.' });
});

test('pictures that are none, or show something else than the part, are explained', async ({ page }) => {
  await page.goto(`${server.url}/jobs/32/balls?view=picture&part=U8`, { waitUntil: 'networkidle' });
  const pick = page.getByLabel('Picture of the balls');
  await pick.setInputFiles({ name: 'dump.jpg', mimeType: 'image/jpeg', buffer: Buffer.alloc(5000, 7) });
  await expect(page.getByText('this file is neither, or broken.')).toBeVisible();
  await pick.setInputFiles('docs/screenshots/bench.png');
  await expect(page.getByText(/^Expected a picture of 10 × 10 balls seen from above/)).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Show the 100 balls of U8');
  const served = await page.request.get(`${server.url}/pictures/${'0'.repeat(64)}`);
  expect(served.status()).toBe(404);
  expect(await served.json()).toMatchObject({
    problem: expect.stringContaining('Expected the SHA-256 of a kept picture'),
  });
});
