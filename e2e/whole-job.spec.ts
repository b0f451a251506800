import { demoBoard } from '../demo/files';
import { enterLine, headline, stageKey } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3211);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

const board = demoBoard('heronlog-4-c');

test('a faulty controller from the door to the report, by typed entries', async ({ page }) => {
  await page.goto(`${server.url}/jobs/new`);
  await page.getByLabel('Board').selectOption('heronlog-4-c');
  await page.getByLabel('Symptom, in the owner’s words').fill('Went dead on a car charger');
  await page.getByLabel('Unknown charger').check();
  await page.getByLabel('The owner agreed to risky steps').check();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page).toHaveURL(/\/jobs\/\d+\/outside$/);
  await expect(headline(page)).toHaveText('Look into J1 before any power');

  await enterLine(page, 'look j1 good');
  await enterLine(page, 'usb a 5.02 0.06');
  await enterLine(page, 'usb b 5.02 0.06');
  await expect(page.getByRole('navigation', { name: 'The path' })).toContainText('no conversation, supply pulled down');

  await stageKey(page, 3, 'Probe');
  await enterLine(page, 'pack out');
  await enterLine(page, 'out');
  // The application asks; Enter on the empty line takes its question, the value answers it.
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Entry line')).toHaveValue('tp7 ohm ');
  await page.keyboard.type('1.6');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').first()).toContainText('Kept: TP7 to ground, 1.60 Ω');
  await enterLine(page, 'tp8 1.3k ohm');
  await enterLine(page, 'c14 1.6 ohm');
  await enterLine(page, 'vbus_f 180k ohm');
  await expect(page.getByRole('complementary')).toContainText('U4 port controller, AON33 shorted inside');

  await stageKey(page, 4, 'Decide');
  await page
    .getByRole('row', { name: /Replace U4/ })
    .getByRole('button', { name: 'Take this route' })
    .click();
  await expect(headline(page)).toHaveText('U4: heron-pd-r2 fits, as built');
  await page.getByRole('button', { name: 'Take this chip' }).first().click();
  await expect(headline(page)).toHaveText('Chosen for U4: heron-pd-r2, C-108 of lot L-12');

  await stageKey(page, 5, 'Heat');
  await expect(headline(page)).toHaveText(/[Ll]ift U4 at (\d+ s|\d+:\d\d min), not before$/, { timeout: 60_000 });
  await enterLine(page, 'cover u9');
  await expect(page.getByRole('complementary')).toContainText('U9 joints, covered');
  await expect(headline(page)).toHaveText(/^Cover .*U9.*, lift U4 at /);
  await enterLine(page, 'keep');
  await enterLine(page, 'off u4');

  await stageKey(page, 3, 'Probe');
  await enterLine(page, 'tp7 6.6k ohm');
  await stageKey(page, 6, 'Balls');
  await page.getByRole('button', { name: 'The site is ready' }).click();
  await expect(page.getByText('Site ready.')).toBeVisible();
  await enterLine(page, 'on u4 new');

  await stageKey(page, 7, 'Image');
  await page.getByLabel('Load a dump for the patient').setInputFiles('demo/images/heronlog-patient-damaged.bin');
  await expect(headline(page)).toHaveText('The patient’s own copy mends header, code');
  await page.getByLabel('Take a kept image for the donor').selectOption({ label: 'Heronlog known-good, unit 12' });
  await expect(page.getByText(/of 15 regions differ from the donor’s/)).toBeVisible();
  await page.getByRole('button', { name: 'Make the new image' }).click();
  await expect(headline(page)).toHaveText('New image made, checks hold');
  await page.getByRole('button', { name: 'Written to U9 and read back the same' }).click();
  await expect(headline(page)).toHaveText('New image written, checks hold');

  await stageKey(page, 8, 'Prove');
  await expect(headline(page)).toContainText('is the short gone?');
  await enterLine(page, 'tp7 6.6k ohm');
  await expect(headline(page)).toHaveText(/^Joint 1 of U4/);
  await page.keyboard.press('Shift+R');
  await expect(headline(page)).toHaveText('Measure VBUS');
  for (const rail of board.rails) {
    const volts = rail.expect.kind === 'bus' ? 15 : rail.expect.volts;
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Entry line')).toHaveValue(/ $/);
    await page.keyboard.type(`${volts} v`);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('status').first()).toContainText(`voltage of ${rail.id}`);
    await expect(page.getByRole('status').first()).toContainText('Kept:');
  }
  await enterLine(page, 'usb a 15.1 0.61');
  await enterLine(page, 'usb b 15 0.6');
  for (const fn of board.functions) await enterLine(page, `try ${fn.id} works`);
  await expect(headline(page)).toHaveText('Everything holds');

  await stageKey(page, 9, 'Close');
  await expect(headline(page)).toHaveText('All gates hold: close it as repaired');
  await page.getByLabel('Cause, as the owner is told').fill('The car charger killed the port controller.');
  await page.getByRole('button', { name: 'Close the job' }).click();
  await expect(headline(page)).toHaveText('Closed: repaired');

  const number = /jobs\/(\d+)/.exec(page.url())![1];
  const pdf = await page.request.get(`${server.url}/jobs/${number}/report.pdf`);
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  await page.goto(`${server.url}/jobs/${number}/report`);
  await expect(page.locator('body')).toContainText('Repaired');
  await expect(page.locator('body')).toContainText('The car charger killed the port controller.');
  await expect(page.locator('body')).toContainText('U4 port controller replaced');
});

test(
  'power loss in the middle of a job: every confirmed entry is there after a restart',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/33/outside`);
    const confirmed = [
      'usb j2 b 20 0.03',
      'usb j1 a 20.1 1.02',
      'try data-2 works',
      'pack out',
      'f2 0.03',
      'tp1 5.03 v',
    ];
    for (const line of confirmed) await enterLine(page, line);
    await server.killHard();

    await page.getByLabel('Entry line').focus();
    await page.keyboard.type('f1 0.02');
    await page.keyboard.press('Enter');
    const status = page.getByRole('status').first();
    await expect(status).toContainText('it is not known whether this was kept');
    await expect(page.getByLabel('Entry line')).toHaveValue('f1 0.02');

    // The page finds out by itself once the server is back; the line is still there to be entered.
    await server.serve();
    await expect(status).toContainText('Not kept: enter it again');
    await page.keyboard.press('Enter');
    await expect(status).toContainText('Kept: Through F1');

    await page.goto(`${server.url}/jobs/33/probe`);
    const readings = page.getByRole('list', { name: 'Readings, newest first' });
    await expect(readings.getByRole('listitem')).toHaveCount(8); // two from the demo, six readings confirmed here
    for (const text of ['20.00 V, 0.03 A', '20.10 V, 1.02 A', 'works', '0.03 Ω', '5.03 V'])
      await expect(readings).toContainText(text);
    await expect(page.getByLabel('Caution')).toContainText('Pack is out.');
  },
);
