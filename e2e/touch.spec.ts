/** Under a finger: what is pressed is as high as a fingertip, and nothing lies on anything. */
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3242);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());
test.use({ viewport: { width: 1024, height: 768 }, hasTouch: true, isMobile: true });

for (const path of ['/', '/jobs/31/probe', '/jobs/31/arrive', '/library', '/library/heronlog-4-c/edit', '/stock'])
  test(`${path} has targets of 44 px`, async ({ page }) => {
    await page.goto(`${server.url}${path}`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    const small = await page
      .locator(
        'button:visible, select:visible, nav a:visible, input:visible:not([type=checkbox]):not([type=radio]):not([type=file])',
      )
      .evaluateAll((all) =>
        all
          .filter((e) => e.getBoundingClientRect().height < 43.5)
          .map(
            (e) =>
              `${e.tagName} ${e.textContent?.slice(0, 30) || e.getAttribute('aria-label')} ${Math.round(e.getBoundingClientRect().height)}`,
          ),
      );
    expect(small).toEqual([]);
  });

for (const [width, height] of [
  [390, 844],
  [768, 1024],
])
  test(
    `at ${width} × ${height} no page is pushed wider than the screen, and the work begins in its upper half`,
    { tag: width === 768 ? LONG : [] },
    async ({ browser }) => {
      const page = await browser.newPage({ viewport: { width, height }, hasTouch: true });
      for (const path of [
        '/',
        '/jobs',
        '/stock',
        '/jobs/31/probe',
        '/jobs/27/prove',
        '/jobs/32/heat',
        '/jobs/28/decide',
      ]) {
        await page.goto(`${server.url}${path}`);
        const title = await page.getByRole('heading', { level: 1 }).boundingBox();
        const wide = await page.evaluate(() => document.documentElement.scrollWidth);
        expect([path, wide]).toEqual([path, width]);
        expect(title!.x + title!.width).toBeLessThanOrEqual(width);
        expect(title!.y).toBeLessThan(height / 2);
      }
      await page.close();
    },
  );
