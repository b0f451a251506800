import AxeBuilder from '@axe-core/playwright';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { writeCapture } from '../bench/usb/capture';
import { enterLine, headline, refusedLine } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3216);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-outside-'));
const file = (name: string, content: string | Buffer): string => {
  const at = path.join(folder, name);
  writeFileSync(at, content);
  return at;
};

async function openView(page: Page, name: string): Promise<void> {
  const link = page.getByRole('navigation', { name: 'Views of the port' }).getByRole('link', { name });
  await link.click();
  await expect(link).toHaveAttribute('aria-current', 'page');
}

/** Goes to something with the Tab key alone. */
async function tabTo(page: Page, label: string): Promise<void> {
  for (let presses = 0; presses < 60; presses++) {
    if ((await page.evaluate(() => document.activeElement?.getAttribute('aria-label'))) === label) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab never comes to ${label}`);
}

/**
 * Picks a file by keyboard: Tab to it, the space bar opens the dialogue. The page may still be catching up with the entry
 * before and put a new field in the place of the one that has the focus; then the key is pressed again, as a hand would.
 */
async function pickByKey(page: Page, label: string, at: string): Promise<void> {
  await expect(async () => {
    await tabTo(page, label);
    const opened = page.waitForEvent('filechooser', { timeout: 3_000 });
    await page.keyboard.press('Space');
    await (await opened).setFiles(at);
  }).toPass();
}

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
  await openView(page, 'Traces');
  await page.getByLabel('Load a trace, A way').setInputFiles('demo/outside/silent-a-way.csv');
  await expect(page.getByRole('img', { name: 'Current over time, both plug ways' })).toBeVisible();
  await page.getByLabel('Load a trace, B way').setInputFiles('demo/outside/charging-b-way.csv');
  await expect(page.getByRole('navigation', { name: 'The path' })).toContainText('B way: charging');
  const drawing = page.getByRole('img', { name: 'Current over time, both plug ways' });
  await expect(drawing).toContainText('five volts, no conversation');
  await expect(drawing).toContainText('charging steadily');
  await expect(page.getByRole('complementary')).toContainText('U4 port controller, its CC side A dead');
  await page.reload();
  await expect(drawing).toContainText('current climbs');
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
});

test(
  'a capture that stops after the offers says so, and what that implicates on this board',
  { tag: LONG },
  async ({ page }) => {
    await newJob(page);
    await openView(page, 'Conversation');
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
  },
);

test('the healthy window follows the charger', async ({ page }) => {
  await newJob(page);
  await expect(page.locator('main')).toContainText('Healthy with this charger and pack: 15 V, 0.40 to 0.80 A.');
  await page.getByLabel('Charger').selectOption({ label: 'small, 5 V 1 A charger' });
  await expect(page.locator('main')).toContainText('Healthy with this charger and pack: 5 V');
  await page.getByLabel('Charger').selectOption({ label: '65 W charger' });
  await page.getByLabel('Pack', { exact: true }).selectOption({ label: 'pack flat' });
  await expect(page.locator('main')).toContainText('15 V, 0.06 to 0.16 A.');
});

test('files that are no traces or captures get a sentence and leave the job as it was', async ({ page }) => {
  await newJob(page);
  const problem = page.getByRole('alert').filter({ hasText: 'xpected' });
  await openView(page, 'Traces');
  await page.getByLabel('Load a trace, A way').setInputFiles(file('empty.csv', ''));
  await expect(problem).toContainText('empty.csv: expected volts and amps of a USB meter; got an empty file.');
  await page
    .getByLabel('Load a trace, A way')
    .setInputFiles(
      file(
        'scaled.csv',
        `Time (s),Voltage (V),Current (A)\n${Array.from({ length: 30 }, (_, i) => `${i ^ 1},5.02,0.1`).join('\n')}`,
      ),
    );
  await expect(problem).toContainText(
    'scaled.csv: Expected times that go on; row 2 lies 1.000 s before the one above it.',
  );
  await openView(page, 'Conversation');
  await page.getByLabel('Load a capture').setInputFiles(file('noise.bin', Buffer.alloc(50_000)));
  await expect(problem).toContainText('noise.bin: Expected rows of time and levels');
  await openView(page, 'The meter');
  await page.reload();
  await expect(page.getByText('not read yet')).toHaveCount(2);
});

test(
  'the whole stage by keyboard: a look, a trace each way, a capture that stops, one row of contacts, the conclusion',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/new`);
    await page.getByLabel('Symptom, in the owner’s words').focus();
    await page.keyboard.type('charges one way round only');
    await page.keyboard.press('Shift+Tab');
    await page.keyboard.type('Heronlog');
    await page.getByRole('button', { name: 'Open the job' }).focus();
    await page.keyboard.press('Enter');
    await expect(headline(page)).toHaveText('Look into J1 before any power');
    await enterLine(page, 'look j1 good');

    await page.keyboard.press('Shift+T');
    await pickByKey(page, 'Load a trace, A way', 'demo/outside/silent-a-way.csv');
    const drawing = page.getByRole('img', { name: 'Current over time, both plug ways' });
    await expect(drawing).toContainText('five volts, no conversation');
    await expect(page.getByRole('navigation', { name: 'The path' })).toContainText('A way: no conversation');
    await pickByKey(page, 'Load a trace, B way', 'demo/outside/charging-b-way.csv');
    await expect(drawing).toContainText('charging steadily');
    await expect(page.getByRole('navigation', { name: 'The path' })).toContainText('B way: charging');

    await tabTo(page, 'Entry line');
    await page.keyboard.press('Shift+C');
    await expect(
      page.getByRole('navigation', { name: 'Views of the port' }).getByRole('link', { name: 'Conversation' }),
    ).toHaveAttribute('aria-current', 'page');
    await pickByKey(page, 'Load a capture', 'demo/outside/offers-unanswered.csv');
    await expect(page.getByRole('region', { name: 'The conversation' })).toContainText('Offers go unanswered');

    await tabTo(page, 'Entry line');
    await page.keyboard.press('Shift+W');
    const good = [0, 0.266, 0.265, 0.461, 0.262, 0.258, 0.257, 0.27, 0.462, 0.264, 0.265, 0.001];
    for (const [i, volts] of good.entries()) {
      await expect(headline(page)).toHaveText(new RegExp(`^A${i + 1}, `));
      await page.keyboard.type(String(volts));
      await page.keyboard.press('Enter');
      await expect(page.getByRole('status').first()).toContainText(`Kept: J1 contact A${i + 1},`);
    }
    await expect(headline(page)).toHaveText('B1, GND');
    await expect(page.locator('main')).toContainText('12 of 24 read');

    await page.keyboard.press('Shift+M');
    await expect(page.getByRole('complementary')).toContainText('U4 port controller, its CC side A dead');
    await expect(page.locator('main')).toContainText('Healthy with this charger and pack');
    await expect(page).toHaveTitle(/Unisolda/);
    const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
    expect(violations.map((v) => v.id)).toEqual([]);
  },
);

test('a contact that is shorted is marked, judged against good boards, and what stands behind it is named', async ({
  page,
}) => {
  await page.goto(`${server.url}/jobs/34/outside?view=walk`);
  await expect(headline(page)).toHaveText('B3, TXN_C');
  await expect(page.locator('main')).toContainText('(5 boards).');
  const said = page.getByRole('region', { name: 'What the contacts say' });
  await expect(said).toContainText('shorted to ground.');
  await expect(said).toContainText('Behind it: D1, C18, U4.');
  await page.locator('[data-pin="A5"]').click();
  await expect(page.getByLabel('Entry line')).toHaveValue('fix a5 ');
  await page.keyboard.type('0.261');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').first()).toContainText('Kept: Corrects A5 CC1 drop');
  await expect(said).not.toContainText('shorted to ground.');
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
});

test('a doubtful port is not powered: the screen says what to do instead', async ({ page }) => {
  await page.goto(`${server.url}/jobs/30/outside`);
  await page.getByText('Corrosion', { exact: true }).click();
  await page.getByRole('button', { name: 'J1 is doubtful: no power' }).click();
  await expect(headline(page)).toHaveText('Do not power J1');
  expect(await refusedLine(page, 'usb a 5.02 0.01')).toContain('J1 looked doubtful (corrosion)');
  await enterLine(page, 'look j1 good');
  await enterLine(page, 'usb a 5.02 0.01');
});

test('the simulated meter runs live and its trace is kept like a file', async ({ page }) => {
  await newJob(page);
  await openView(page, 'Traces');
  await page.getByLabel('Scene').selectOption('swinging');
  await page.getByLabel('Speed').selectOption({ label: '60×' });
  await page.getByRole('button', { name: 'Run' }).click();
  const drawing = page.getByRole('img', { name: 'Current over time, both plug ways' });
  await expect(drawing).toBeVisible();
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: 'Stop and keep' }).click();
  await expect(drawing).toContainText('swings, cannot settle');
  await expect(page.getByRole('complementary')).toContainText('U9 configuration flash, its image corrupted or blank');
});

test('columns are asked for where a file leaves them in doubt', async ({ page }) => {
  await newJob(page);
  await openView(page, 'Traces');
  const rows = Array.from({ length: 80 }, () => '0.61;15.02').join('\n');
  await page.getByLabel('Load a trace, A way').setInputFiles(file('bare.csv', `one;two\n${rows}\n`));
  const ask = page.getByRole('region', { name: 'What the file leaves open' });
  await expect(ask).toContainText('The file has no column of times');
  await page.keyboard.type('1 s');
  await page.keyboard.press('Enter');
  await expect(ask).toContainText('No column is named as the voltage of the bus.');
  await page.keyboard.press('2');
  await expect(ask).toContainText('No column is named as the current of the bus.');
  await page.keyboard.press('1');
  await expect(ask).toContainText('0.61 A or mA');
  await page.keyboard.press('1');
  await expect(page.getByRole('img', { name: 'Current over time, both plug ways' })).toContainText('charging steadily');
  // What was said is kept for files that look the same: the next one is read without a question.
  await page.getByLabel('Read files like it the same way').fill('bench meter');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Kept: files like it are read as those of bench meter')).toBeVisible();
  await page.getByLabel('Load a trace, B way').setInputFiles(file('again.csv', `one;two\n${rows}\n`));
  await expect(page.getByText('again.csv is read as the files of bench meter.')).toBeVisible();
  await expect(ask).toBeHidden();
  await openView(page, 'The meter');
  await expect(page.locator('main')).toContainText('15.02 V');
});

test(
  'messages typed as hex, and a simulated conversation, are read like a capture',
  { tag: LONG },
  async ({ page }) => {
    await newJob(page);
    await openView(page, 'Conversation');
    await page.getByRole('button', { name: 'type it as hex' }).click();
    await page.getByLabel('Messages as hex').fill('hello');
    await page.getByRole('button', { name: 'Read them' }).click();
    await expect(page.getByRole('alert').filter({ hasText: 'line 1' })).toContainText(
      'line 1: expected hex; got "hello".',
    );
    await page.getByLabel('Messages as hex').fill('0.5ms 4161 0001912C 0002D12C 0004B12C 00064145');
    await page.getByRole('button', { name: 'Read them' }).click();
    const talk = page.getByRole('region', { name: 'The conversation' });
    await expect(talk).toContainText('Source_Capabilities: 5 V 3 A, 9 V 3 A, 15 V 3 A, 20 V 3.25 A');
    await page.getByLabel('What is wrong').selectOption({ label: 'contract collapses' });
    await page.getByRole('button', { name: 'Capture', exact: true }).click();
    await expect(talk).toContainText('A contract is reached, then collapses');
  },
);

test(
  'swaps, the quick tester and the battery connector count, with the bench’s own error rates',
  { tag: LONG },
  async ({ page }) => {
    await newJob(page);
    await enterLine(page, 'usb a 5.02 0.01');
    await enterLine(page, 'usb b 5.02 0.01');
    await enterLine(page, 'tester fail');
    await enterLine(page, 'swap charger same');
    await enterLine(page, 'pack 0.5');
    const quick = page.getByRole('list', { name: 'Quick tests' });
    for (const words of ['fails', 'no change', '0.50 V']) await expect(quick).toContainText(words);
    const job = page.url();
    await page.goto(`${server.url}/library/practice`);
    const rate = page.getByLabel('Error rate of quick port tester, per cent');
    await rate.fill('90');
    await page.getByRole('button', { name: 'Keep these rates' }).click();
    await expect(page.getByRole('alert').filter({ hasText: 'xpected' })).toContainText(
      'Expected error rates from 0.1 to 50 %',
    );
    await rate.fill('35');
    await page.getByRole('button', { name: 'Keep these rates' }).click();
    await expect(page.getByText('Kept: every open job counts with it')).toBeVisible();
    await page.reload();
    await expect(rate).toHaveValue('35');
    await page.goto(job);
    await expect(quick).toContainText('fails');
  },
);

test(
  'a long capture shows its progress and can be cancelled; nothing is kept then',
  { tag: LONG },
  async ({ page }) => {
    const long = path.join(folder, 'long.csv');
    writeCapture(long, 60_000_000);
    await newJob(page);
    await openView(page, 'Conversation');
    await page.getByLabel('Load a capture').setInputFiles(long);
    await expect(page.getByText(/^Decoding [1-9]\d? %$/)).toBeVisible();
    await page.getByRole('button', { name: 'Cancel' }).click();
    await expect(page.getByText(/^Decoding/)).toHaveCount(0);
    await page.reload();
    await expect(page.locator('main')).toContainText('No capture yet');
  },
);
