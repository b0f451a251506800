import { expect, test as base } from '@playwright/test';

export { expect } from '@playwright/test';

/**
 * Of a walk that takes long and whose rules have tests of their own: `npm test` leaves it out, so that it stays a loop;
 * `npm run test:long` runs the interface whole.
 */
export const LONG = '@long';

/**
 * Playwright's test with a page that is awake once it is there: keys pressed before its script listens go nowhere. A visit that
 * waits for the `commit` alone is left as it is.
 */
export const test = base.extend({
  page: async ({ page }, use) => {
    const awake = () => expect(page.locator('body')).not.toHaveAttribute('data-asleep');
    const [goto, reload] = [page.goto.bind(page), page.reload.bind(page)];
    page.goto = async (url, options) => {
      const response = await goto(url, options);
      if (options?.waitUntil !== 'commit') await awake();
      return response;
    };
    page.reload = async (options) => {
      const response = await reload(options);
      await awake();
      return response;
    };
    await use(page);
  },
});
