/** The chip on the programmer: read over bad contact and good, kept, merged, written and read back, in the real interface. */
import { headline } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3223);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

test(
  'bad contact is told and cured; the merged image is written with the least erases and the old one kept',
  { tag: LONG },
  async ({ page }) => {
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
    await expect(page.getByText('U19 read 3 times ·')).toBeVisible();

    await page.getByLabel('Take a kept image for the donor').selectOption('Marshdesk known-good, unit 3');
    await expect(headline(page)).toHaveText('The donor mends header, code');
    await page.getByRole('button', { name: 'Make the new image' }).click();
    await page.getByRole('button', { name: 'Write the new image' }).click();
    await expect(chip).toContainText(/U19 written and read back the same: \d+ erases?, \d+ pages/, { timeout: 30_000 });
    await expect(headline(page)).toHaveText('New image written, checks hold');
    await expect(chip).toContainText('What it held before is kept.');
  },
);

test('a dump in records is taken by its content; a broken one is named with its line', async ({ page }) => {
  await page.goto(`${server.url}/jobs/29/image`, { waitUntil: 'networkidle' });
  const pick = page.getByLabel('Load a dump for the donor');
  const file = (text: string) => ({ name: 'donor.hex', mimeType: 'text/plain', buffer: Buffer.from(text) });
  await pick.setInputFiles(file(':0100000001FF\n:00000001FF\n'));
  await expect(page.getByText('donor.hex: line 1, checksum: Expected FE; got FF.')).toBeVisible();
  await pick.setInputFiles(file(':0100000001FE\n:00000001FF\n'));
  await expect(page.getByText(/expected a dump of 131,072 bytes .* got 1\./)).toBeVisible();
});

test(
  'checksums are found by their values alone in the kept images, in a worker, and can be cancelled',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/29/image?view=map`, { waitUntil: 'networkidle' });
    const part = page.getByLabel('Checksums by their values');
    await part.getByRole('button', { name: /^Search in \d kept images$/ }).click();
    await part.getByRole('button', { name: 'Cancel' }).click();
    await part.getByRole('button', { name: /^Search in \d kept images$/ }).click();
    await expect(part).toContainText('CRC-32/ISO-HDLC', { timeout: 90_000 });
    await expect(part).toContainText('at 0x0112FC, low byte first');
    await expect(page.getByLabel('What the parts seem to be')).toContainText('CRC-32/ISO-HDLC of 0x011000 to 0x0112FC');
  },
);

test('a donor of another position is caught before the write, and cured by the position of the slot', async ({
  page,
}) => {
  await page.goto(`${server.url}/jobs/32/image`, { waitUntil: 'networkidle' });
  await page.getByLabel('Load a dump for the patient').setInputFiles('demo/images/heronlog-patient-damaged.bin');
  await expect(headline(page)).toHaveText('The patient’s own copy mends header, code');
  await page.getByLabel('Take a kept image for the donor').selectOption('Heronlog side port, unit 18');
  await expect(page.getByText('Right family, other position: expected 1; the settings carry 2.')).toBeVisible();
  await page.getByLabel('Source of settings', { exact: true }).selectOption('donor');
  const make = page.getByRole('button', { name: 'Make the new image' });
  await make.click();
  await expect(page.getByRole('alert').filter({ hasText: 'position' })).toContainText(
    'Expected position 1, which this slot has on the board; the new image says 2.',
  );
  await expect(page.getByRole('button', { name: 'Write the new image' })).toHaveCount(0);
  await page.getByLabel('Set position').fill('1');
  await make.click();
  await expect(headline(page)).toHaveText('New image made, checks hold');
  await expect(page.getByText(/from the patient’s own copy: header, code; .*set: position 1/)).toBeVisible();
  await expect(page.getByRole('complementary')).toContainText('Chain of custody, unbroken');
});

test(
  'a supply that dips in mid-write: it goes on, and what was there comes back; guarded and worn chips are told',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/32/image`, { waitUntil: 'networkidle' });
    const chip = page.getByLabel('The chip on the programmer');
    const write = page.getByRole('button', { name: 'Write the new image' });
    await page.getByLabel('Held by U9').selectOption('Heronlog known-good, unit 12');
    await page.getByLabel('The clip').selectOption('supply dips in mid-write');
    await write.click();
    await expect(chip).toContainText('The supply went away.');
    await page.reload({ waitUntil: 'networkidle' });
    await expect(chip).toContainText('A write was broken off');
    await page.getByLabel('The clip').selectOption('blocks protected');
    await write.click();
    await expect(chip).toContainText('protection opened and closed again');
    await expect(headline(page)).toHaveText('New image written, checks hold');
    await page.getByLabel('The clip').selectOption('sits well');
    await page.getByRole('button', { name: 'Write back what it held before' }).click();
    await expect(headline(page)).toHaveText('New image made, checks hold');
    await page.getByLabel('The clip').selectOption('a sector worn out');
    await write.click();
    await expect(chip).toContainText('the sector at 0x00D000 does not take it');
  },
);

test('images side by side: by meaning, then byte by byte with the keyboard; a file that only moved says so', async ({
  page,
}) => {
  await page.goto(`${server.url}/library/images?family=heron-pd`, { waitUntil: 'networkidle' });
  await expect(headline(page)).toContainText('regions differ');
  await page.getByLabel('Add a kept image').selectOption('Heronlog side port, unit 18');
  await expect(page.getByRole('row', { name: /^settings the same/ })).toContainText('position 1 → 2');
  const score = page.getByRole('group', { name: /^Bytes from/ });
  await page.getByRole('button', { name: 'Next difference' }).click();
  await expect(score).toHaveAttribute('aria-label', /^Bytes from 0x0026/);
  await score.focus();
  await page.keyboard.press('End');
  await expect(score).toHaveAttribute('aria-label', /^Bytes from 0x00FE/);
  await page.keyboard.press('Home');
  await page.keyboard.press('PageDown');
  await expect(score).toHaveAttribute('aria-label', /^Bytes from 0x0001A0/);

  await page.goto(`${server.url}/library/images?family=none`, { waitUntil: 'networkidle' });
  const content = Buffer.from(Array.from({ length: 5000 }, (_, i) => (i * i * 7 + (i >> 3)) & 0xff));
  const file = (name: string, buffer: Buffer) => ({ name, mimeType: 'application/octet-stream', buffer });
  await page.getByLabel('Look at a file').setInputFiles(file('one.bin', content));
  await expect(headline(page)).toHaveText('One image: one.bin');
  const moved = Buffer.concat([content.subarray(0, 1000), Buffer.alloc(24, 0x5a), content.subarray(1000)]);
  await page.getByLabel('Add a file').setInputFiles(file('two.bin', moved));
  await expect(headline(page)).toHaveText('1 of 1 image differs from the first');
  await page.getByRole('button', { name: 'Next difference' }).click();
  await expect(score).toContainText('24 more here');
});

test('a map is drawn on its image, kept with its revision, and says what does not hold together', async ({ page }) => {
  await page.goto(`${server.url}/library/images?family=heron-pd&view=map`, { waitUntil: 'networkidle' });
  await expect(headline(page)).toHaveText('15 regions; 3 of 4 checksums hold here');
  await page.getByLabel('Length of journal').fill('1001');
  await expect(page.getByRole('alert').filter({ hasText: 'journal' })).toContainText('It overlaps unused.');
  await expect(page.getByRole('button', { name: 'Keep the map' })).toBeDisabled();
  await page.getByLabel('Length of journal').fill('0800');
  const score = page.getByRole('group', { name: /^Bytes from/ });
  await page.getByLabel('Go to an offset').fill('E800');
  await page.keyboard.press('Enter');
  await score.locator('[data-at="59392"]').click();
  await score.locator('[data-at="59407"]').click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Make it a region' }).click();
  await page.getByLabel('Name of region 15').fill('stamp');
  await expect(headline(page)).toHaveText('16 regions; 3 of 4 checksums hold here');
  await page.getByRole('button', { name: 'Keep the map' }).click();
  await expect(page.getByText('Kept as heron-pd, revision 3.')).toBeVisible();
  await page.getByRole('button', { name: /^Take these \d+ for the map$/ }).click();
  await expect(headline(page)).toContainText(/^\d+ regions; 0 of 0 checksums hold here$/);
});
