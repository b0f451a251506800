/** A newcomer's first ten minutes: from the first page of an empty shop to a found fault, and on to the first real job. */
import AxeBuilder from '@axe-core/playwright';
import { headline } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3250);
test.beforeAll(() => server.startEmpty());
test.afterAll(() => server.stop());

test(
  'the tour leads from the empty shop to a fault that is found, and can be left',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(server.url, { waitUntil: 'networkidle' });
    await page.getByRole('button', { name: 'Begin the tour' }).click();
    await page.waitForURL(/\/drills\/\d+\?tour/, { timeout: 60_000 });
    const tour = page.getByRole('region', { name: 'The tour' });
    await expect(tour).toContainText('1 of 6');
    await page.waitForLoadState('networkidle');
    for (const next of ['2 of 6', '3 of 6', '4 of 6']) {
      await tour.getByRole('button', { name: 'Do it' }).click();
      await expect(tour).toContainText(next, { timeout: 30_000 });
    }
    const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
    expect(violations.map((v) => `${v.id}: ${v.nodes[0].html}`)).toEqual([]);

    // Left and taken up again: the drill is the same.
    const address = page.url();
    await tour.getByRole('link', { name: 'Leave the tour' }).click();
    await expect(tour).toBeHidden();
    await page.goto(address, { waitUntil: 'networkidle' });
    await expect(tour).toContainText('4 of 6');

    // What is proposed, until it is cured; Enter takes what a hint named.
    const line = page.getByLabel('Entry line');
    for (let k = 0; k < 12 && !(await tour.getByText('6 of 6').isVisible()); k++) {
      const done = await page.getByRole('listitem').count();
      await line.fill('hint');
      await line.press('Enter');
      await expect(page.getByRole('listitem')).toHaveCount(done + 1, { timeout: 30_000 });
      const told = await page.getByText('Asked what the program would do:').locator('strong').innerText();
      const work = /^(Replace|Rewrite|Touch up|Clean) (?:the \w+ of )?(\w+)/i.exec(told);
      if (work)
        await line.fill(
          `${{ replace: 'replace', rewrite: 'rewrite', 'touch up': 'touch', clean: 'clean' }[work[1].toLowerCase()]} ${work[2].toLowerCase()}`,
        );
      else await line.press('Enter');
      await expect(line).not.toHaveValue('');
      await line.press('Enter');
      await expect(page.getByRole('listitem').or(tour.getByText('6 of 6')).first()).toBeVisible();
      await page.waitForLoadState('networkidle');
      if (!(await tour.getByText('6 of 6').isVisible()))
        await expect(page.getByRole('listitem'))
          .not.toHaveCount(done + 1, { timeout: 30_000 })
          .catch(() => undefined);
    }
    await expect(tour).toContainText('6 of 6');
    await expect(headline(page)).toHaveText(/^Cured in .+: \d+ of 100$/);
    await tour.getByRole('link', { name: 'Take a device in' }).click();
    await expect(page).toHaveURL(/\/jobs\/new$/);

    // No second board: the shop has one to practise on now; and nothing was counted.
    await page.goto(server.url, { waitUntil: 'networkidle' });
    await expect(headline(page)).toHaveText('The bench is clear');
    await page.goto(`${server.url}/jobs`);
    await expect(page.getByRole('main')).not.toContainText('0001');
  },
);
