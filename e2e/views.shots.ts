import { loadYear } from '../demo/year';
import { openDatabase } from '../src/db/client';
import { enterLine, headline } from './bench';
import { Hand } from './hand';
import { BenchServer } from './server';
import { beginTern, layTernPhoto, placeAll } from './sketching';
import { expect, test } from './test';

const server = new BenchServer(3214);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

const VIEWS = [
  { name: 'bench', path: '/' },
  { name: 'arrive', path: '/jobs/31/arrive' },
  { name: 'outside', path: '/jobs/28/outside' },
  { name: 'outside-traces', path: '/jobs/34/outside?view=trace', traces: true },
  { name: 'probe', path: '/jobs/31/probe', typed: 'tp7 1.8' },
  { name: 'decide', path: '/jobs/28/decide' },
  { name: 'decide-chip', path: '/jobs/35/decide?view=chip' },
  { name: 'stock-plan', path: '/stock?view=plan', ready: /served/ },
  { name: 'heat', path: '/jobs/32/heat', ready: /[Ll]ift/, typed: 'step 3 395' },
  { name: 'station', path: '/library/stations/bench-1', log: true },
  { name: 'balls', path: '/jobs/32/balls?view=picture&part=U8', microscope: true },
  { name: 'run', path: '/jobs/27/run', dim: true, pedal: 4 },
  { name: 'image', path: '/jobs/29/image', donor: 'Marshdesk known-good, unit 3' },
  { name: 'prove', path: '/jobs/27/prove', typed: 'chg5 5.02' },
  { name: 'close', path: '/jobs/26/close' },
  // Before a third board is there: the course goes over the boards in turn.
  { name: 'drill', path: '/drills', drilled: true },
  { name: 'sketch', path: '/library/sketch', sketched: true },
  { name: 'practice', path: '/library/practice?view=story' },
  { name: 'records', path: '/records?view=points&board=heronlog-4-c&point=usb:J1:A&near=0.01', year: true },
];

for (const view of VIEWS) {
  test(view.name, async ({ page }) => {
    if (view.year) {
      const db = await openDatabase(server.databaseUrl);
      await db.transaction((tx) => loadYear(tx, 180));
    }
    if (view.dim) await page.addInitScript(() => localStorage.setItem('theme', 'dark'));
    await page.goto(`${server.url}${view.path}`, { waitUntil: 'networkidle' });
    await expect(headline(page)).toHaveText(view.ready ?? /./, { timeout: 30_000 });
    if (view.donor) {
      await page.getByLabel('Take a kept image for the donor').selectOption({ label: view.donor });
      await expect(headline(page)).toContainText('The donor mends');
    }
    if (view.sketched) {
      const hand = new Hand(page);
      await beginTern(page, hand);
      await layTernPhoto(page, hand);
      await placeAll(page, hand);
      await page.waitForTimeout(3000);
    }
    if (view.log) {
      await page.getByRole('button', { name: 'Run the simulated logger' }).click();
      await expect(page.getByText('Take it over')).toBeVisible({ timeout: 60_000 });
    }
    if (view.traces) {
      for (const [side, file] of [
        ['A', 'silent-a-way'],
        ['B', 'charging-b-way'],
      ]) {
        await page.getByLabel(`Load a trace, ${side} way`).setInputFiles(`demo/outside/${file}.csv`);
        await page.waitForTimeout(2000);
      }
      await page.getByLabel('Pack', { exact: true }).selectOption('partly');
    }
    if (view.drilled) {
      await page.getByRole('button', { name: 'Begin', exact: true }).nth(2).click();
      await expect(page).toHaveURL(/drills\/\d+/, { timeout: 60_000 });
      for (const line of ['look j1', 'usb a', 'usb b', 'tp7 ohm', 'replace c17', 'hint']) await enterLine(page, line);
      await page.keyboard.press('Enter');
      await expect(page.getByLabel('Entry line')).not.toHaveValue('');
      await page.keyboard.press('Enter');
      await expect(page.getByRole('listitem')).toHaveCount(7);
      await page.getByLabel('Entry line').fill('replace d2');
      await page.keyboard.press('Enter');
      await expect(headline(page)).toContainText('Cured');
    }
    if (view.microscope) {
      await page.getByRole('button', { name: 'Take from the simulated microscope' }).click();
      await expect(headline(page)).toHaveText(/^Rework/, { timeout: 60_000 });
    }
    for (let press = 0; press < (view.pedal ?? 0); press++) {
      await page.keyboard.press('F9');
      await page.waitForTimeout(300);
    }
    if (view.typed) await page.getByLabel('Entry line').pressSequentially(view.typed);
    await page.waitForTimeout(500);
    await page.screenshot({ path: `docs/screenshots/${view.name}.png` });
  });
}
