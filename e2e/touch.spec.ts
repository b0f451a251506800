/** Under a finger: what is pressed is as high as a fingertip, and nothing lies on anything. */
import { expect, test } from '@playwright/test';
import { BenchServer } from './server';

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
