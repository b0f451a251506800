import { expect, test } from '@playwright/test';
import { headline } from './bench';
import { Hand } from './hand';
import { BenchServer } from './server';
import { beginTern, layTernPhoto, placeAll } from './sketching';

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
  { name: 'sketch', path: '/library/sketch', sketched: true },
  { name: 'image-compare', path: '/library/images?family=heron-pd', added: 'Heronlog side port, unit 18' },
  { name: 'practice', path: '/library/practice?view=story' },
  { name: 'draft', path: '/library/draft', netlist: true },
];

for (const view of VIEWS) {
  test(view.name, async ({ page }) => {
    if (view.dim) await page.addInitScript(() => localStorage.setItem('theme', 'dark'));
    await page.goto(`${server.url}${view.path}`, { waitUntil: 'networkidle' });
    await expect(headline(page)).toHaveText(view.ready ?? /./, { timeout: 30_000 });
    if (view.donor) {
      await page.getByLabel('Take a kept image for the donor').selectOption({ label: view.donor });
      await expect(headline(page)).toContainText('The donor mends');
    }
    if (view.added) {
      await page.getByLabel('Add a kept image').selectOption(view.added);
      await expect(page.getByText('position 1 → 2')).toBeVisible();
      await page.getByRole('button', { name: 'Next difference' }).click();
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
    if (view.netlist) {
      const netlist = await page.request.get(`${server.url}/library/heronlog-4-c/files/netlist.ipc`);
      const buffer = await netlist.body();
      await page.getByLabel('Read a board').setInputFiles({ name: 'Heronlog.ipc', mimeType: 'text/plain', buffer });
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
