/** The proof with the simulated supply and meter: a short that came back, a rail that fails, soaks through a power loss. */
import { createHash } from 'node:crypto';
import type { Page } from '@playwright/test';
import { decodeJpeg, encodePng, Image } from 'image-js';
import { demoBoard } from '../demo/files';
import { enterLine, headline, stageKey } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3226);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

const board = demoBoard('heronlog-4-c');
const status = (page: Page) => page.getByRole('status').first();

/** The probe is held, the pedal pressed, and the value is kept. */
async function pedal(page: Page, kept: string | RegExp): Promise<void> {
  await page.keyboard.press('F9');
  await expect(status(page)).toContainText('Kept:');
  await expect(status(page)).toContainText(kept);
}

test(
  'a short that came back is caught before power; a rail fails, the job goes back, is mended again and closes',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/32/probe`);
    await enterLine(page, 'off u4');
    await enterLine(page, 'on u4 new');
    await stageKey(page, 8, 'Prove');
    await expect(headline(page)).toHaveText('PD18 to ground before power: is the short gone?');
    const bench = page.getByLabel('The board on the simulated bench');
    const power = page.getByRole('button', { name: /^Output on: 15\.00 V, limit 0\.\d\d A$/ });
    const choose = async (words: RegExp): Promise<void> => {
      const option = bench.locator('option', { hasText: words });
      await bench.selectOption((await option.first().getAttribute('value'))!);
    };
    const view = (name: string) =>
      page.getByRole('navigation', { name: 'Steps of the proof' }).getByRole('link', { name });
    await view('Rails').click();
    await choose(/^U4 .*PD18 shorted/);
    await expect(power).toBeDisabled();
    await pedal(page, /TP8 to ground, 1\.\d\d Ω/);
    await expect(page.getByText('PD18 still shorted')).toBeVisible();
    await expect(power).toBeDisabled();

    // The part comes off and another goes on: the short went with it.
    await enterLine(page, 'off u4');
    await enterLine(page, 'on u4 new');
    await bench.selectOption('all good');
    await pedal(page, /TP8 to ground, 1\.\d\d kΩ/);
    await expect(power).toBeEnabled();
    await page.keyboard.press('F9');
    await expect(page.getByText('the output is off')).toBeVisible();
    await power.click();
    await expect(page.getByLabel('Supply and meter')).toContainText('expected.');
    await choose(/^U7 .*dead/);
    for (const rail of board.rails) {
      await pedal(page, `voltage of ${rail.id}`);
      if (rail.id === 'V5') break;
    }
    await expect(headline(page)).toHaveText(/^V5 fails, VSYS is good$/);
    await expect(page.getByRole('complementary')).toContainText('U7');
    await stageKey(page, 3, 'Probe');
    await expect(page.getByRole('complementary')).toContainText('U7');

    await enterLine(page, 'off u7');
    await enterLine(page, 'on u7 new');
    await stageKey(page, 8, 'Prove');
    // The bench comes a moment after its page: before, a pedal is an Enter.
    await expect(bench).toBeVisible();
    // Work was done since: the old short is measured once more before power, then the new part joint by joint.
    await pedal(page, /TP8 to ground, 1\.\d\d kΩ/);
    const u7 = board.parts.find((p) => p.ref === 'U7')!;
    await page.getByRole('link', { name: 'U7', exact: true }).click();
    await expect(headline(page)).toHaveText(`Joint 1 of U7, ${u7.pins['1']}`);
    await enterLine(page, 'ol');
    await expect(headline(page)).toHaveText('Joint 1 of U7 reads badly');
    await expect(page.getByRole('complementary')).toContainText('U7 joint 1');
    await enterLine(page, `joint u7 1 ${board.nets[u7.pins['1']].diodeV ?? 0.44}`);
    const walk = page.getByRole('region', { name: 'Joints of U7' });
    for (let left = Object.keys(u7.pins).filter((pin) => pin !== 'EP').length - 1; left > 0; left--)
      await pedal(page, /U7 joint \d+/);
    await expect(headline(page)).toHaveText('Every joint of U7 reads well');
    await expect(walk).toContainText('Flat on the board');
    await enterLine(page, 'flat u7 52 53 52 53');
    await expect(page.getByRole('complementary')).toContainText(/Placed parts sit and join\s*holds/);
    await view('Rails').click();
    await page.getByRole('button', { name: /^Output on/ }).click();
    for (const rail of board.rails) await pedal(page, `voltage of ${rail.id}`);
    await view('Plug ways').click();
    await expect(page.getByLabel('Before the work')).toContainText('4.99 V');
    await expect(page.getByLabel('Now', { exact: true })).toContainText('Not read yet.');
    await enterLine(page, 'usb a 15.1 0.61');
    await enterLine(page, 'usb b 15 0.6');
    await expect(page.getByLabel('Now', { exact: true })).toContainText('Healthy charging.');
    for (const fn of board.functions) await enterLine(page, `try ${fn.id} works`);
    await expect(headline(page)).toHaveText('Everything holds');
    await stageKey(page, 9, 'Close');
    await page.getByLabel('Cause, as the owner is told').fill('Two parts on the port’s supply had failed.');
    await page.getByRole('button', { name: 'Close the job' }).click();
    await expect(headline(page)).toHaveText('Closed: repaired');

    // It comes back: nothing proven counts any more, and the job knows what was done.
    await page.getByRole('textbox', { name: /^It came back/ }).fill('Charges an hour, then nothing');
    await page.getByRole('button', { name: 'Open it again' }).click();
    await expect(headline(page)).toHaveText(/gates are not yet met$/);
    await expect(page.getByRole('complementary')).toContainText('Came back after 0 days');
    await stageKey(page, 1, 'Arrive');
    const past = page.getByLabel('Before it came back');
    await expect(past).toContainText(/U4 .* replaced, U7 .* replaced/);
    await enterLine(page, 'v5 0.1 volt');
    await expect(past.getByRole('row').nth(1)).toContainText(/V5\s*[\d.]+ V\s*0\.10 V\s*has turned/);
  },
);

test('a real meter on a serial line gives the reading that is due; a silent one gets a sentence', async ({ page }) => {
  // A serial line of the browser whose other end answers in the words of IEEE 488.2 and SCPI-1999.
  await page.addInitScript(() => {
    const answers: Record<string, string> = {
      '*IDN?': 'Jetty,Meter 2,7,1',
      'MEAS:VOLT:DC?': '1.50E+01',
      'MEAS:RES?': '9.9E37',
      'MEAS:DIOD?': '4.1E-1',
    };
    const line = (known: Record<string, string>) => {
      let say: (bytes: Uint8Array) => void;
      return {
        open: async () => {},
        close: async () => {},
        readable: new ReadableStream<Uint8Array>({ start: (c) => void (say = (bytes) => c.enqueue(bytes)) }),
        writable: new WritableStream<Uint8Array>({
          write(bytes) {
            const answer = known[new TextDecoder().decode(bytes).trim()];
            if (answer) say(new TextEncoder().encode(`${answer}\n`));
          },
        }),
      };
    };
    let asked = 0;
    const serial = { requestPort: async () => line(asked++ === 0 ? {} : answers) };
    Object.defineProperty(navigator, 'serial', { value: serial, configurable: true });
  });
  await page.goto(`${server.url}/jobs/27/prove?view=rails`);
  const bench = page.getByLabel('Supply and meter');
  const side = page.getByRole('complementary');
  await side.getByRole('button', { name: 'Connect an instrument' }).click();
  await side.getByLabel('How it is reached').selectOption('serial');
  await side.getByRole('button', { name: 'Connect and try it' }).click();
  await expect(side).toContainText('Expected an answer to *IDN? within 2 s; got none.');
  await side.getByRole('button', { name: 'Connect and try it' }).click();
  await expect(side).toContainText('Jetty,Meter 2,7,1');
  await expect(bench).toContainText('Simulated supply; meter in hand');
  await bench.getByRole('button', { name: /^Output on/ }).click();
  await pedal(page, '15.00 V');
});

test(
  'soaks in two jobs run on through a power loss of the server, and hold a job open until they are over',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/27/prove?view=functions`);
    await enterLine(page, 'soak 30');
    await page.goto(`${server.url}/jobs/34/prove?view=functions`);
    await page.getByRole('button', { name: 'Soak 60 min' }).click();
    const soak = page.getByLabel('Soak', { exact: true });
    await expect(soak).toContainText('left of 60 min');
    await server.killHard();
    await server.serve();
    await page.goto(`${server.url}/jobs/27/prove?view=functions`);
    await expect(soak).toContainText(/(29|30):\d\d min left of 30 min/);
    const clocks = page.getByRole('navigation', { name: 'Running clocks' });
    await expect(clocks).toContainText(/0027 soak 29:\d\d/);
    await clocks.getByRole('link', { name: /^0034 soak (59|60):\d\d$/ }).click();
    await expect(page).toHaveURL(/\/jobs\/34\/prove$/);
    await page.getByRole('button', { name: 'It restarted' }).click();
    await expect(soak).toContainText('1 restart');
    await page.getByRole('button', { name: 'End the soak' }).click();
    await expect(page.getByRole('complementary')).toContainText('1 restart');
    await expect(clocks).not.toContainText('0034', { timeout: 30_000 });
  },
);

test('a press before the page’s script is awake waits for it and counts, on a button and in a drawing; the entry line has the keys', async ({
  page,
}) => {
  await page.route('**/_next/static/**/*.js', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await page.goto(`${server.url}/jobs/34/prove?view=functions`, { waitUntil: 'commit' });
  await page.getByRole('button', { name: 'Soak 10 min' }).click();
  await expect(page.getByLabel('Soak', { exact: true })).toContainText('left of 10 min');
  await page.goto(`${server.url}/jobs/34/outside?view=walk`, { waitUntil: 'commit' });
  await page.locator('[data-pin="A5"]').click();
  await expect(page.getByLabel('Entry line')).toHaveValue('fix a5 ');
  await page.goto(`${server.url}/jobs/27/prove`, { waitUntil: 'commit' });
  await expect(page.getByLabel('Entry line')).toBeFocused();
});

test('what a job taught is written back and taken back; its report reads in the shop’s words', async ({ page }) => {
  await page.goto(`${server.url}/jobs/26/close`);
  const lesson = page.getByLabel('What the job taught');
  await expect(lesson).toContainText('F1 at fault');
  await lesson.getByRole('button', { name: 'Write it back' }).click();
  await expect(lesson).toContainText(/\d+ readings and 0 reports kept\./);
  await lesson.getByRole('button', { name: 'Take it back' }).click();
  await expect(lesson).toContainText('nothing of it counts any more');

  await page.goto(`${server.url}/library/practice?view=report`);
  await page.getByLabel('Shop', { exact: true }).fill('The Jetty Bench');
  await page.getByLabel('Heading').fill('{device}, job {job}: what we did');
  await page.getByLabel('At its end').fill('Thirty days on {job}.');
  await page.getByRole('button', { name: 'Keep these words' }).click();
  await expect(page.getByText('every report reads like this')).toBeVisible();
  await page.goto(`${server.url}/jobs/26/report`);
  await expect(headline(page)).toHaveText('Heronlog 4, job 0026: what we did');
  await expect(page.locator('body')).toContainText('Thirty days on 0026.');
  const data = await (await page.request.get(`${server.url}/jobs/26/report.json`)).json();
  expect(data).toMatchObject({ shop: 'The Jetty Bench', outcome: 'Repaired' });
});

test('a private area of a picture is covered in the browser; nothing of it is in what is stored or given out', async ({
  page,
}) => {
  const [width, height] = [320, 240];
  const noise = new Uint8Array(3 * width * height);
  for (let i = 0; i < noise.length; i++) noise[i] = (i * 2654435761) >>> 24;
  const original = Buffer.concat([
    Buffer.from(encodePng(new Image(width, height, { data: noise }))),
    Buffer.from('owner phone 5550147'),
  ]);
  const { url } = server;
  await page.goto(`${url}/jobs/27/close`);
  const part = page.getByLabel('Pictures for the report');
  await page
    .getByLabel('Add a picture for the report')
    .setInputFiles({ name: 'screen.png', mimeType: 'image/png', buffer: original });
  const canvas = page.getByLabel('The picture; drag over what is private');
  await expect(part.getByRole('button', { name: 'Cover another area' })).toBeVisible();
  await canvas.scrollIntoViewIfNeeded();
  const box = (await canvas.boundingBox())!;
  const at = (x: number, y: number): [number, number] => [
    box.x + (x * box.width) / width,
    box.y + (y * box.height) / height,
  ];
  await page.mouse.move(...at(40, 40));
  await page.mouse.down();
  await page.mouse.move(...at(200, 120));
  await page.mouse.up();
  await expect(page.getByLabel('x of area 1, pixels')).toBeVisible({ timeout: 5000 });
  await part.getByRole('button', { name: 'Cover another area' }).click();
  for (const [side, value] of [
    ['x', 240],
    ['y', 160],
    ['width', 64],
    ['height', 64],
  ] as const)
    await page.getByLabel(`${side} of area 2, pixels`).fill(String(value));
  await page.getByLabel('What the picture shows').fill('The screen after the repair');
  await part.getByRole('button', { name: 'Keep the covered picture' }).click();
  const link = part.getByRole('link', { name: 'The screen after the repair' });
  await expect(link).toBeVisible();
  await expect(part).toContainText('2 areas covered');
  // Where the device is taken in, pictures are kept in the same way, and the same ones are there.
  await page.goto(`${url}/jobs/27/arrive`);
  const arrived = page.getByLabel('Photographs as it came');
  await expect(arrived.getByRole('link', { name: 'The screen after the repair' })).toBeVisible();
  await expect(page.getByLabel('Add a photograph of the device')).toBeAttached();
  await page.goBack();

  const stored = await (await page.request.get(`${url}${await link.getAttribute('href')}`)).body();
  expect(stored.includes('owner phone 5550147')).toBe(false);
  const seen = decodeJpeg(stored);
  expect([seen.width, seen.height]).toEqual([width, height]);
  // A JPEG's block next to the edge holds both sides of it: one block inside, nothing but black is left.
  const brightest = (x0: number, y0: number, x1: number, y1: number): number => {
    let most = 0;
    for (let y = y0; y < y1; y++)
      for (let x = x0; x < x1; x++) most = Math.max(most, ...seen.getPixel(x, y).slice(0, 3));
    return most;
  };
  expect(brightest(56, 56, 184, 104)).toBe(0);
  expect(brightest(256, 176, 288, 208)).toBe(0);
  expect(brightest(220, 10, 300, 100)).toBeGreaterThan(150);
  const sha256 = createHash('sha256').update(original).digest('hex');
  expect((await page.request.get(`${url}/images/${sha256}`)).status()).toBe(404);
  const data = await (await page.request.get(`${url}/jobs/27/report.json`)).json();
  expect(data.pictures).toEqual([
    { sha256: createHash('sha256').update(stored).digest('hex'), words: 'The screen after the repair' },
  ]);
  const pdf = await (await page.request.get(`${url}/jobs/27/report.pdf`)).body();
  expect([pdf.includes('DCTDecode'), pdf.includes('owner phone 5550147')]).toEqual([true, false]);
});
