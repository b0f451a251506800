/** From the first touch of heat to a part that can go down, and the run in large type, in the real interface. */
import type { Page } from '@playwright/test';
import { enterLine, headline, refusedLine } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3222);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

const finding = (page: Page) => page.getByRole('link', { name: /Balls/ }).first();

test(
  'underfill: the order of the edges, windows with the station’s doubt, guards with what they spare',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/32/balls?view=clear`);
    await expect(headline(page)).toHaveText(/^Lift U4 at \d+ s, not before \d+$/, { timeout: 60_000 });
    await expect(page.getByText('No underfill: nothing to clear.')).toBeVisible();
    await expect(
      page
        .getByLabel('Guards, as simulated')
        .getByText(/^U\d+ −\d+ K$/)
        .first(),
    ).toBeVisible();
    await page.getByLabel('Underfill under it').selectOption('hard');
    await expect(headline(page)).toHaveText(/^Clear, lift U4/, { timeout: 60_000 });
    await expect(page.getByLabel('Order of clearing').getByRole('listitem')).toHaveCount(8);
    await expect(page.getByText(/Stop when:/)).toBeVisible();
    await page.getByLabel('Softens from, °C').fill('999');
    await expect(page.getByText('Expected where it softens, 60 to 210 °C; got "999".')).toBeVisible();
    await page.getByLabel('Softens from, °C').fill('120');
    await page.getByRole('link', { name: 'open the clearing plan' }).click();
    await expect(headline(page)).toContainText('U4', { timeout: 60_000 });
    await expect(page).toHaveURL(/plan=/);
  },
);

test(
  'lifted pads by entry and by click, what follows of them, and the site marked ready',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/32/balls`, { waitUntil: 'networkidle' });
    expect(await refusedLine(page, 'lifted u4 99')).toContain('Expected pads of U4');
    await enterLine(page, 'lifted u4 ep');
    await expect(finding(page)).toContainText('Goes on');
    await page.reload({ waitUntil: 'networkidle' });
    await expect(page.getByLabel('Lifted pads').getByText('EP', { exact: true })).toBeVisible();
    await enterLine(page, 'lifted u4 none');
    await enterLine(page, 'flat u4 50 150 50 150');
    await expect(finding(page)).toContainText('high');
    await page.getByRole('combobox', { name: /^Braid/ }).selectOption('never');
    await expect(page.getByText('House rule: no braid on pads.')).toBeVisible();
    await page.getByRole('button', { name: 'The site is ready' }).click();
    await expect(page.getByText(/^Site ready\. Next:/)).toBeVisible();
  },
);

test('balls in a picture: taken, judged, set right by hand, kept with the picture, refused when it is none', async ({
  page,
}) => {
  await page.goto(`${server.url}/jobs/32/balls?view=picture&part=U8`, { waitUntil: 'networkidle' });
  await expect(headline(page)).toHaveText('Show the 100 balls of U8');
  await page
    .getByLabel('Picture of the balls')
    .setInputFiles({ name: 'x.png', mimeType: 'image/png', buffer: Buffer.from('none') });
  await expect(page.getByText('Expected a PNG or JPEG picture; this file is neither, or broken.')).toBeVisible();
  await page.getByRole('button', { name: 'Take from the simulated microscope' }).click();
  await expect(headline(page)).toHaveText(/^Rework: \d+ ball/, { timeout: 60_000 });
  const told = Number(/(\d+) ball/.exec((await headline(page).textContent())!)![1]);
  await page
    .locator('svg g', { has: page.locator('title', { hasText: /: good/ }) })
    .first()
    .click();
  await expect(headline(page)).toHaveText(new RegExp(`^Rework: ${told + 1} balls are missing`));
  await page.getByRole('button', { name: 'Keep with its picture' }).click();
  await expect(page.getByText('Kept on the job with its picture.')).toBeVisible();
  await page.reload();
  await expect(headline(page)).toHaveText(new RegExp(`^Rework: ${told + 1} balls are missing`));
  const src = await page.locator('svg image').getAttribute('href');
  const kept = await page.request.get(server.url + src!);
  expect(kept.headers()['content-type']).toBe('image/png');
});

test('pads in a picture: taken, told, one set right by hand, kept, and what is gone entered as lifted', async ({
  page,
}) => {
  await page.goto(`${server.url}/jobs/32/balls?view=pads`, { waitUntil: 'networkidle' });
  await expect(headline(page)).toHaveText('Show the 41 pads of U4');
  await page.getByRole('button', { name: 'Take from the simulated microscope' }).click();
  await expect(headline(page)).toHaveText(/^Pads: \d+ gone/, { timeout: 60_000 });
  const told = Number(/(\d+) gone/.exec((await headline(page).textContent())!)![1]);
  await page.locator('svg g', { has: page.locator('title', { hasText: /^EP: even/ }) }).click();
  await expect(headline(page)).toHaveText(new RegExp(`^Pads: ${told + 1} gone`));
  await page.getByRole('button', { name: 'Keep with its picture' }).click();
  await expect(page.getByText('Kept on the job with its picture.')).toBeVisible();
  await page.getByRole('button', { name: /^Enter .*EP as lifted$/ }).click();
  await expect(finding(page)).toContainText('Pads:');
  await page.reload({ waitUntil: 'networkidle' });
  await expect(headline(page)).toHaveText(new RegExp(`^Pads: ${told + 1} gone`));
  await page.goto(`${server.url}/jobs/32/balls`, { waitUntil: 'networkidle' });
  await expect(page.getByLabel('Lifted pads').getByText('EP', { exact: true })).toBeVisible();
});

test('heights of the corners as a plane, and solders that must not be mixed', async ({ page }) => {
  await page.goto(`${server.url}/jobs/32/balls?view=place`, { waitUntil: 'networkidle' });
  for (const [corner, um] of [
    ['Top left', '52'],
    ['Top right', '51'],
    ['Bottom left', '50'],
    ['Bottom right', '53'],
  ])
    await page.getByLabel(corner).fill(um);
  await expect(headline(page)).toHaveText(/^Flat within \d+ µm\.$/);
  await page.getByRole('button', { name: 'Keep the heights' }).click();
  await expect(finding(page)).toContainText('Flat within');
  await page.goto(`${server.url}/jobs/32/balls?view=mix`, { waitUntil: 'networkidle' });
  await expect(headline(page)).toHaveText(/^Melts at 183–/);
  await page.getByLabel('Volume of Sn42Bi58, mm³').fill('0.2');
  await expect(headline(page)).toHaveText('Clean it away, do not mix');
  await page.getByLabel('Seen molten at, °C').fill('139');
  await expect(page.getByText('low-melt bismuth alloy')).toBeVisible();
});

test(
  'a run by pedal against a fake clock: gates, steps that go on, a reload in mid-step, pause, mark, give up',
  { tag: LONG },
  async ({ page }) => {
    const clock = page.getByTestId('clock');
    await page.clock.install({ time: new Date('2026-11-26T10:00:00Z') });
    await page.goto(`${server.url}/jobs/27/run`, { waitUntil: 'networkidle' });
    await page.clock.pauseAt(new Date('2026-11-26T10:00:30Z'));
    await expect(headline(page)).toHaveText('Ready to begin');
    const pedal = () => page.keyboard.press('F9');
    await pedal();
    await expect(headline(page)).toHaveText('Pack out, strap on, extraction running');
    await page.clock.runFor(600_000);
    await expect(headline(page)).toHaveText('Pack out, strap on, extraction running');
    await pedal();
    await expect(headline(page)).toHaveText('Mark pin 1 of U4 on the board');
    await pedal();
    await expect(headline(page)).toHaveText('Cover U9, Q1');
    await pedal();
    await expect(headline(page)).toHaveText('Warm the area');
    await expect(clock).toHaveText('20');
    await page.clock.runFor(8_000);
    await expect(clock).toHaveText('12');
    await expect(page.getByText('kept', { exact: true })).toBeVisible();

    await page.reload({ waitUntil: 'networkidle' });
    await page.clock.runFor(200);
    await expect(headline(page)).toHaveText('Warm the area');
    await expect(clock).toHaveText('12');

    await page.clock.runFor(14_000);
    await expect(headline(page)).toHaveText('Close in');
    await page.keyboard.press('p');
    await expect(headline(page)).toHaveText('Paused');
    await expect(page.getByText(/^Nozzle up and away/)).toBeVisible();
    await page.clock.runFor(60_000);
    await page.keyboard.press('p');
    await expect(headline(page)).toHaveText('Close in');
    await expect(clock).toHaveText('18');
    await page.clock.runFor(18_000 + 22_000 + 200);
    await expect(headline(page)).toHaveText('Nudge and lift');
    await expect(page.getByText('Not swimming: do not pull. Never lever it sideways.')).toBeVisible();
    await page.keyboard.press('m');
    await expect(page.getByText('swims at 62 s')).toBeVisible();
    await page.clock.runFor(40_000);
    await expect(page.getByText(/^Long over its time: air away/)).toBeVisible();
    await page.keyboard.press('x');
    await expect(headline(page)).toHaveText('Given up');
    await expect(page.getByText(/^Air off\. Plate off\. Do not pull/)).toBeVisible();
    await page.clock.resume();
    await page.goto(`${server.url}/jobs/27/heat`);
    await expect(page.getByLabel('Molten at, seconds')).toHaveValue('62', { timeout: 60_000 });
  },
);

test('the pedal held at the nudge says that nothing swims: the run is computed anew, goes on or is given up, and says so', async ({
  page,
}) => {
  await page.clock.install({ time: new Date('2026-11-26T11:00:00Z') });
  await page.goto(`${server.url}/jobs/27/run`, { waitUntil: 'networkidle' });
  await page.clock.pauseAt(new Date('2026-11-26T11:00:30Z'));
  for (const card of ['Pack out, strap on, extraction running', 'Mark pin 1 of U4 on the board', 'Cover U9, Q1']) {
    await page.keyboard.press('F9');
    await expect(headline(page)).toHaveText(card);
  }
  await page.keyboard.press('F9');
  await page.clock.runFor(62_200);
  await expect(headline(page)).toHaveText('Nudge and lift');
  await page.keyboard.down('F9');
  await page.clock.runFor(900);
  await page.keyboard.up('F9');
  const said = page.getByText(/^Not swimming at 6\d s: do not pull\./);
  await expect(said).toBeVisible({ timeout: 30_000 });
  const goesOn = /nudge again in \d+ s\.$/.test((await said.textContent())!);
  await expect(headline(page)).toHaveText(goesOn ? 'On to the melt' : 'Given up');
  await expect(page.getByText(/not swimming at 6\d s/)).toBeVisible();
  await page.keyboard.press('x');
  await expect(headline(page)).toHaveText('Given up');
  await expect(page.getByText('keeping…')).toBeHidden();
});

test(
  'the plan that took a part off puts it back; a press that does not reach the disk is said, and kept later',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/27/probe`, { waitUntil: 'networkidle' });
    await enterLine(page, 'off u4');
    await page.goto(`${server.url}/jobs/27/run`, { waitUntil: 'networkidle' });
    await expect(page.getByText('Place U4')).toBeVisible();
    await page.keyboard.press('F9');
    await expect(headline(page)).toHaveText('Pack out, strap on, extraction running');
    await page.keyboard.press('F9');
    await expect(headline(page)).toHaveText('Pin 1 of U4 at the mark');
    await expect(page.getByText('A part the wrong way round shorts at first power.')).toBeVisible();
    await page.context().setOffline(true);
    await page.keyboard.press('F9');
    await expect(headline(page)).toHaveText('Cover U9, Q1');
    await expect(page.getByText(/^Not kept yet: /)).toBeVisible({ timeout: 15_000 });
    await page.context().setOffline(false);
    await expect(page.getByText(/^Not kept/)).toBeHidden({ timeout: 15_000 });
    await expect(page.getByText('kept', { exact: true })).toBeVisible();
    await page.reload({ waitUntil: 'networkidle' });
    await expect(headline(page)).toHaveText('Cover U9, Q1');
  },
);
