/** The chip on the programmer: read over bad contact and good, kept, merged, written and read back, in the real interface. */
import { expect, test } from '@playwright/test';
import { headline } from './bench';
import { BenchServer } from './server';

const server = new BenchServer(3223);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

test('bad contact is told and cured; the merged image is written with the least erases and the old one kept', async ({
  page,
}) => {
  await page.goto(`${server.url}/jobs/29/image`, { waitUntil: 'networkidle' });
  const chip = page.getByLabel('The chip on the programmer');
  const read = page.getByRole('button', { name: 'Identify and read U19' });
  const clip = page.getByLabel('The clip');
  await clip.selectOption('touches nothing');
  await read.click();
  await expect(chip).toContainText('no chip answers');
  await clip.selectOption('barely touches');
  await read.click();
  await expect(chip).toContainText('no number of reads makes up for this contact');
  await expect(page.getByRole('button', { name: 'Keep as the patient’s dump' })).toHaveCount(0);
  await clip.selectOption('one address line held');
  await read.click();
  await expect(chip).toContainText('address bit 15 is held');
  await clip.selectOption('on dirty pads');
  await read.click();
  await expect(chip).toContainText('The majority of 3 reads holds all the same.');
  await clip.selectOption('sits well');
  await read.click();
  await expect(chip).toContainText('3 reads, all alike.');
  await expect(chip).toContainText('code check does not hold');
  await page.getByRole('button', { name: 'Keep as the patient’s dump' }).click();
  await expect(page.getByText('U19 read 3 times')).toBeVisible();

  await page.getByLabel('Take a kept image for the donor').selectOption('Marshdesk known-good, unit 3');
  await page.getByRole('button', { name: 'Make the new image' }).click();
  await page.getByRole('button', { name: 'Write the new image' }).click();
  await expect(chip).toContainText(/U19 written and read back the same: \d+ erases?, \d+ pages/, { timeout: 30_000 });
  await expect(headline(page)).toHaveText('New image written, checks hold');
  await expect(chip).toContainText('What it held before is kept.');
});

test('a dump in records is taken by its content; a broken one is named with its line', async ({ page }) => {
  await page.goto(`${server.url}/jobs/29/image`, { waitUntil: 'networkidle' });
  const pick = page.getByLabel('Load a dump for the donor');
  const file = (text: string) => ({ name: 'donor.hex', mimeType: 'text/plain', buffer: Buffer.from(text) });
  await pick.setInputFiles(file(':0100000001FF\n:00000001FF\n'));
  await expect(page.getByText('donor.hex: line 1, checksum: Expected FE; got FF.')).toBeVisible();
  await pick.setInputFiles(file(':0100000001FE\n:00000001FF\n'));
  await expect(page.getByText(/expected a dump of 131,072 bytes .* got 1\./)).toBeVisible();
});

test('checksums are found by their values alone in the kept images, in a worker, and can be cancelled', async ({
  page,
}) => {
  await page.goto(`${server.url}/jobs/29/image`, { waitUntil: 'networkidle' });
  const part = page.getByLabel('Checksums by their values');
  await part.getByRole('button', { name: /^Search in \d kept images$/ }).click();
  await part.getByRole('button', { name: 'Cancel' }).click();
  await part.getByRole('button', { name: /^Search in \d kept images$/ }).click();
  await expect(part).toContainText('CRC-32/ISO-HDLC', { timeout: 90_000 });
  await expect(part).toContainText('at 0x0112FC, low byte first');
});
