/** Read from an arm's length: one key makes everything larger, and what matters stays on one screen. */
import { headline } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3247);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

for (const [width, height, presses] of [
  [1280, 800, 3],
  [1280, 800, 4],
  [3840, 2160, 3],
] as const)
  test(
    `at ${width}×${height} after ${presses} presses the next step, what it means and the line are in sight`,
    { tag: presses === 4 ? LONG : [] },
    async ({ page }) => {
      await page.setViewportSize({ width, height });
      await page.goto(`${server.url}/jobs/31/probe`, { waitUntil: 'networkidle' });
      const before = (await headline(page).boundingBox())!;
      for (let k = 0; k < presses; k++) await page.keyboard.press('F8');
      await expect(page.getByRole('button', { name: presses === 3 ? '200 %' : '250 %' })).toBeVisible();
      const size = await headline(page).evaluate((h) => h.getBoundingClientRect().height / h.getClientRects().length);
      expect(size).toBeGreaterThan(before.height);
      for (const target of [headline(page), page.getByLabel('Entry line'), page.getByRole('complementary')]) {
        const box = (await target.boundingBox())!;
        expect(box.x).toBeGreaterThanOrEqual(0);
        expect(box.x + box.width).toBeLessThanOrEqual(width + 1);
        expect(box.y + Math.min(box.height, 40)).toBeLessThanOrEqual(height);
      }
      expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth + 1)).toBe(true);
      await page.reload({ waitUntil: 'networkidle' });
      await expect(page.getByRole('button', { name: presses === 3 ? '200 %' : '250 %' })).toBeVisible();
      for (let k = presses; k < 5; k++) await page.keyboard.press('F8');
      await expect(page.getByRole('button', { name: '100 %' })).toBeVisible();
    },
  );
