/** From an empty shop to the first proposal on a board that nobody has a file of: eight answers, a photograph, and clicks. */
import { deflateSync } from 'node:zlib';
import CRC32 from 'crc-32';
import { enterLine, headline, readyLine } from './bench';
import { BROWSER } from './browser';
import { Hand } from './hand';
import { BenchServer } from './server';
import { beginTern, layTernPhoto, placeAll } from './sketching';
import { TERN_MM, TERN_PARTS } from './tern-photo';
import { expect, test } from './test';

/** A camera that is none: the browser's own moving picture. */
const { args, ...launch } = BROWSER.launchOptions;
test.use({ launchOptions: { ...launch, args: [...args, '--use-fake-device-for-media-stream'] } });

/** A square black picture of one bit a pixel. Layout: PNG specification (ISO/IEC 15948), sections 5 and 11. */
function blankPng(side: number): Buffer {
  const chunk = (type: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(CRC32.buf(body) >>> 0);
    return Buffer.concat([length, body, sum]);
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(side, 0);
  header.writeUInt32BE(side, 4);
  header[8] = 1;
  const rows = Buffer.alloc(side * (1 + Math.ceil(side / 8)));
  const parts = [chunk('IHDR', header), chunk('IDAT', deflateSync(rows)), chunk('IEND', Buffer.alloc(0))];
  return Buffer.concat([Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]), ...parts]);
}

const server = new BenchServer(3239);
test.beforeAll(() => server.startEmpty());
test.afterAll(() => server.stop());

test('eight answers, one photograph, the parts by click, a job and its first measurement', async ({ page }) => {
  const hand = new Hand(page);
  await page.goto(server.url);
  await hand.click(page.getByRole('link', { name: 'Take a device in' }));
  await hand.click(page.getByRole('link', { name: 'Begin with its board: eight questions' }));
  await beginTern(page, hand);
  await layTernPhoto(page, hand);
  const later = await placeAll(page, hand);
  expect(later).toContain('J2');
  await hand.line('u4 is the controller');
  await expect(page.getByText('Kept: U4 is the controller.')).toBeVisible();
  await hand.line('u9 is the memory');
  await expect(page.getByText('Kept: U9 is the memory.')).toBeVisible();
  await hand.key('Shift+K');
  await hand.wait(expect(page.getByText('Kept as file 2.')).toBeVisible());

  // What was clicked lies where it is drawn, to half of what a probe needs; packages were told by their look.
  const file = await (await page.request.get(`${server.url}/library/tern-1/files/board.json`)).json();
  const parts = new Map<string, { xMm: number; yMm: number; package: string }>(
    file.parts.map((p: { ref: string }) => [p.ref, p]),
  );
  for (const p of TERN_PARTS.filter((q) => parts.has(q.ref) && !['R4', 'R5'].includes(q.ref))) {
    const found = parts.get(p.ref)!;
    expect(`${p.ref} ${Math.hypot(found.xMm - p.xMm, found.yMm - p.yMm) < 0.35}`).toBe(`${p.ref} true`);
  }
  expect(['U4', 'U9', 'U2', 'U8', 'C6'].map((ref) => parts.get(ref)!.package)).toEqual([
    'QFN-40-0.5',
    'SOIC-8',
    'QFN-32-0.5',
    'BGA-100-0.8',
    'CHIP-2012',
  ]);

  await hand.click(page.getByRole('link', { name: 'Open a job on it' }));
  await hand.fill(page.getByLabel(/symptom|owner’s words/i).first(), 'does not charge');
  await hand.click(page.getByRole('button', { name: 'Open the job' }));
  await hand.wait(page.waitForURL(/jobs\/1\/outside$/));
  await page.goto(`${server.url}/jobs/1/probe`);
  // The first measurement stands in the headline, its point on the photograph.
  await expect(headline(page)).toHaveText(/J1|TP|C\d/);
  await expect(page.getByRole('img', { name: /asked for/ }).locator('image')).toBeVisible();

  // The heat plan for the controller knows the neighbours that were laid, and says which were not.
  await page.goto(`${server.url}/jobs/1/heat`);
  await expect(headline(page)).toHaveText(/[Ll]ift U4/, { timeout: 60_000 });
  await expect(page.getByRole('note').getByText(/Not in this plan, for want of a place: .*J2/)).toBeVisible();
  await expect(page.getByText(/^U9 joints/)).toBeVisible();

  // Keystroke-level: at most 120 actions and ten minutes, what the machine takes included.
  expect(hand.actions).toBeLessThanOrEqual(120);
  expect(hand.seconds).toBeLessThanOrEqual(600);
  console.log(`${hand.actions} actions, ${Math.round(hand.seconds)} s by the keystroke-level model`);
});

test('a device whose board nobody knows: taken in, read from outside, and put on its board later', async ({ page }) => {
  await page.goto(`${server.url}/jobs/new`);
  await page.getByLabel('Board').selectOption({ label: 'not known yet' });
  await page.getByLabel('Symptom, in the owner’s words').fill('charges one way round only');
  await page.getByRole('button', { name: 'Open the job' }).click();
  await page.waitForURL(/jobs\/\d+\/outside$/);
  await enterLine(page, 'look j1 good');
  await page.goto(page.url().replace('outside', 'arrive'), { waitUntil: 'networkidle' });
  const part = page.getByRole('complementary');
  await expect(part).toContainText('Not known yet. What is proposed comes from the usual circuit round a port');
  await page.getByLabel('Board of this job').selectOption({ label: 'Tern 1, sketch, revision 1' });
  await page.getByRole('button', { name: 'It is this one' }).click();
  await expect(part).not.toContainText('Not known yet');
  await expect(page.getByText('Tern 1', { exact: true })).toBeVisible();
  // What was read before is there, on the new board.
  await page.goto(page.url().replace('arrive', 'probe'));
  await expect(page.getByRole('list', { name: 'Readings, newest first' })).toContainText('J1');
});

test('pin 1 of a chip is said by a click on the corner that its mark is at; its middle says nothing', async ({
  page,
}) => {
  await page.goto(`${server.url}/library/tern-1/edit`, { waitUntil: 'networkidle' });
  const drawing = page.getByRole('img', { name: /front side/ });
  const photo = (await drawing.locator('image').boundingBox())!;
  const chip = TERN_PARTS.find((p) => p.ref === 'U4')!;
  const click = (dxMm: number, dyMm: number): Promise<void> =>
    page.mouse.click(
      photo.x + ((chip.xMm + dxMm) / TERN_MM[0]) * photo.width,
      photo.y + ((chip.yMm + dyMm) / TERN_MM[1]) * photo.height,
    );
  await click(0, 0);
  await expect(headline(page)).toHaveText(/^U4, /);
  await page.getByRole('button', { name: 'Pin 1 …' }).click();
  await expect(headline(page)).toHaveText('Where is pin 1 of U4?');
  await click(0, 0);
  await expect(page.getByText('Expected the corner of U4 that its mark is at; that is between two.')).toBeVisible();
  await click(2, -2);
  await expect(headline(page)).toHaveText(/^U4, /);
  await page.getByLabel('Entry line').focus();
  await page.keyboard.press('Shift+K');
  await expect(page.getByText(/^Kept as file \d/)).toBeVisible();
  const file = await (await page.request.get(`${server.url}/library/tern-1/files/board.json`)).json();
  expect(file.parts.find((p: { ref: string }) => p.ref === 'U4')).toMatchObject({ rotationDeg: 90 });
});

test('a walk over a good board asks for what tells most, and a second one is held against the first', async ({
  page,
}) => {
  await page.goto(`${server.url}/library/tern-1/good`);
  await readyLine(page);
  await expect(headline(page)).toHaveText(/to ground, resistance$/, { timeout: 60_000 });
  const first = await headline(page).innerText();
  await expect(page.getByLabel('Its readings are taken back as one')).toHaveValue('good board 1');
  await page.keyboard.type('ol');
  await expect(page.getByText(/^An open line has no figure to compare with/)).toBeVisible();
  await enterLine(page, '12k');
  await expect(headline(page)).not.toHaveText(first);
  const second = await headline(page).innerText();
  await page.keyboard.press('Shift+N');
  await expect(headline(page)).not.toHaveText(second);
  await expect(page.getByRole('complementary')).toContainText('12.0 kΩ');
  // Another board: the same point is asked again, and its neighbour's figure stands beside what is typed.
  await page.getByLabel('Its readings are taken back as one').selectOption('good board 2');
  await expect(headline(page)).toHaveText(first);
  await (await readyLine(page)).focus();
  await page.keyboard.type('11.5k');
  await expect(page.getByText('11.5 kΩ; another good board reads 12.0 kΩ')).toBeVisible();
});

test('what is no photograph, or too large a one, is answered with a sentence', async ({ page }) => {
  await page.goto(`${server.url}/library/tern-1/edit`);
  const pick = page.getByLabel('Photograph of the back');
  await pick.setInputFiles({ name: 'nothing.png', mimeType: 'image/png', buffer: Buffer.alloc(0) });
  await expect(page.getByText('nothing.png: expected a picture; the file is empty.')).toBeVisible();
  await page.getByRole('button', { name: 'Leave it' }).click();
  await pick.setInputFiles({ name: 'text.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(page.getByText(/text\.png: expected a PNG, JPEG or WebP picture/)).toBeVisible();
  await page.getByRole('button', { name: 'Leave it' }).click();
  await pick.setInputFiles({ name: 'huge.png', mimeType: 'image/png', buffer: blankPng(9500) });
  await expect(page.getByText('huge.png: expected at most 25 megapixels; got 90.')).toBeVisible({ timeout: 30_000 });
});

test('a camera gives a still at full size to be laid flat', async ({ page, context }) => {
  await context.grantPermissions(['camera']);
  await page.goto(`${server.url}/library/tern-1/edit`);
  await page.getByRole('button', { name: 'camera' }).nth(1).click();
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByText('back, 0 of 4 corners')).toBeVisible();
});

test('a camera that is unplugged is said in a sentence, and the page goes on', async ({ page, context }) => {
  await context.grantPermissions(['camera']);
  await page.goto(`${server.url}/library/tern-1/edit`);
  await page.getByRole('button', { name: 'camera' }).first().click();
  await expect(page.getByRole('button', { name: 'Take it' })).toBeEnabled();
  await page
    .locator('video')
    .evaluate((video: HTMLVideoElement) =>
      (video.srcObject as MediaStream).getVideoTracks()[0].dispatchEvent(new Event('ended')),
    );
  await expect(page.getByText('The camera is gone: its line was lost.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take it' })).toBeDisabled();
});

test('a camera that the browser keeps from the page is said in a sentence', async ({ page, context }) => {
  await context.clearPermissions();
  await page.goto(`${server.url}/library/tern-1/edit`);
  await page.getByRole('button', { name: 'camera' }).first().click();
  await expect(page.getByText(/does not let this page use the camera/)).toBeVisible();
});
