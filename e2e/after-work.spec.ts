/** After a swap one plug way stays dead: the new part's joint before another chip, what was cured on its own line. */
import { enterLine, headline, stageKey } from './bench';
import { BenchServer } from './server';
import { expect, test } from './test';

const server = new BenchServer(3238);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

test('the joint first, then the optional array, and no second controller', async ({ page }) => {
  await page.goto(`${server.url}/jobs/32/probe`);
  await enterLine(page, 'off u4');
  await enterLine(page, 'on u4 new');
  // The shorts are gone with the old chip; one way round charges, the other does not even talk.
  await enterLine(page, 'tp7 6.6k');
  await enterLine(page, 'tp8 1.3k');
  await enterLine(page, 'usb a 15 0.6');
  await enterLine(page, 'usb b 5.02 0.01');
  await stageKey(page, 3, 'Probe');
  await expect(headline(page)).toHaveText(/^(U4 joint 2, CC2, diode mode|Look at U4 with magnification)/);
  const cured = page.getByRole('complementary').getByText(/^U4 .*PD18.*: mended/);
  await expect(cured).toBeVisible();
  await expect(page.getByRole('complementary').getByText('New U4, joint 2 CC2 open', { exact: true })).toBeVisible();
  await expect(page.getByText('Replace U4: cures')).toHaveCount(0);

  // The joint conducts, but what hangs on the line pulls it low, at the joint and at the contact.
  await enterLine(page, 'joint u4 2 0.15');
  await enterLine(page, 'b5 0.14');
  await enterLine(page, 'joint u4 2 0.14');
  await expect(headline(page)).toHaveText(/D2/);
  await expect(page.getByText(/^Replace U4/)).toHaveCount(0);
});
