/** The heat planner in the real interface: from a station nobody knows to a card on the wall. */
import { demoBoard } from '../demo/files';
import { COARSE_MESH, NOMINAL_STATION, planLink, simulateHeat, startingPlan, withMultiplier } from '../src/core/heat';
import { enterLine, headline, refusedLine } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3221);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

/** The second of "Lift U4 at 58 s" or "Lift U4 at 1:05 min". */
function secondsTold(headlineText: string): number {
  const [, minutes, seconds] = / at (?:(\d+):)?(\d+) /.exec(headlineText)!;
  return 60 * Number(minutes ?? 0) + Number(seconds);
}

test('a set point is dragged over the reduced model and confirmed by the full run; the address opens the plan again', async ({
  page,
}) => {
  await page.goto(`${server.url}/jobs/32/heat`, { waitUntil: 'networkidle' });
  await expect(headline(page)).toHaveText(/[Ll]ift U4/, { timeout: 60_000 });
  const dial = page.getByRole('slider', { name: 'Step 3, dial, drag' });
  const was = Number(await dial.getAttribute('aria-valuenow'));
  await expect(async () => {
    const box = (await dial.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 8, { steps: 4 });
    await expect(page.getByText(/^Dragging: curves from the reduced model/)).toBeVisible({ timeout: 500 });
    await page.mouse.up();
  }).toPass({ timeout: 60_000 });
  const confirmed = page.getByText(/^The full run confirms what was dragged within \d\.\d K\.$/);
  await expect(confirmed).toBeVisible({ timeout: 60_000 });
  expect(Number((await confirmed.textContent())!.match(/within (\d\.\d)/)![1])).toBeLessThan(1);
  const now = Number(await dial.getAttribute('aria-valuenow'));
  expect(now).toBeLessThan(was);
  await dial.focus();
  await page.keyboard.press('ArrowUp');
  await expect(dial).toHaveAttribute('aria-valuenow', String(now + 5));
  await page.getByRole('link', { name: 'Address of this plan' }).click();
  await expect(page).toHaveURL(/plan=/);
  await page.reload();
  await expect(dial).toHaveAttribute('aria-valuenow', String(now + 5), { timeout: 60_000 });
});

test('an address with a torn plan is explained, and the screen goes on with its own', async ({ page }) => {
  await page.goto(`${server.url}/jobs/32/heat?plan=%7Bhalf`);
  await expect(page.getByText('Expected a heat plan in the address; got text that is not JSON.')).toBeVisible();
  await expect(headline(page)).toHaveText(/[Ll]ift U4/, { timeout: 60_000 });
});

test(
  'an apprentice calibrates a station, finds that no plan holds without a guard, takes the guard, prints the card',
  { tag: LONG },
  async ({ page }) => {
    test.setTimeout(600_000);
    // The simulated logger's noise is drawn from the clock: one and the same station every time.
    await page.clock.setFixedTime(new Date('2026-11-20T10:00:00Z'));
    await page.goto(`${server.url}/library`);
    await page.getByRole('link', { name: 'Hot-air stations and their calibration' }).click();
    await page.getByRole('link', { name: /Bench 1 hot air/ }).click();
    await expect(page.getByText('Never calibrated here')).toBeVisible();
    await page.getByRole('button', { name: 'Run the simulated logger' }).click();
    await expect(page.getByText(/\d+ of 60 s/)).toBeVisible();
    await page.getByRole('button', { name: 'Take it over' }).click({ timeout: 60_000 });
    await expect(page.getByText(/^Taken over: ε 0\.\d\d, m 0\.\d\d, \d+ % doubt\.$/)).toBeVisible();
    await expect(page.getByText(/^Calibrated \d{4}-\d\d-\d\d;/)).toBeVisible();

    // The memory beside the part must stay cooler than usual: it holds an image that nobody has a copy of.
    await page.goto(`${server.url}/jobs/32/heat`);
    await expect(headline(page)).toHaveText(/[Ll]ift U4/, { timeout: 60_000 });
    await enterLine(page, 'limit u9 202');
    await expect(headline(page)).toHaveText(/U4 at (\d+ s|\d+:\d\d min), but U9 gets too hot$/, { timeout: 60_000 });
    await page.getByRole('button', { name: 'Search a plan' }).click();
    await expect(page.getByText(/No plan without a guard holds: the best misses by \d\.\d K/)).toBeVisible({
      timeout: 240_000,
    });
    await expect(page.getByText(/With a cover on U9.*, U9 joints stay at \d+ °C of 202/)).toBeVisible();
    await page.getByRole('button', { name: 'Take this plan with its guard' }).click();
    await expect(headline(page)).toHaveText(/^Cover .*U9.*, lift U4 at (\d+ s|\d+:\d\d min), not before$/, {
      timeout: 60_000,
    });
    const lifted = secondsTold((await headline(page).textContent())!);
    await expect(page.getByText(/U9.* covered: lay the guards before the air/)).toBeVisible();

    await page.getByRole('button', { name: 'Keep this plan' }).click();
    const card = page.getByRole('link', { name: 'Card for the wall, PDF' });
    await expect(card).toBeVisible({ timeout: 30_000 });
    const pdf = await page.request.get(`${server.url}${await card.getAttribute('href')}`);
    expect(pdf.headers()['content-type']).toBe('application/pdf');
    expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');

    // Over the plan's own run: the joints were seen molten a little later than computed.
    await page.getByLabel('Molten at, seconds').fill('soon');
    await page.getByRole('button', { name: 'Compare', exact: true }).click();
    await expect(
      page.getByText('Expected the second at which all joints were molten, 5 to 900; got "soon".'),
    ).toBeVisible();
    await page.getByLabel('Molten at, seconds').fill(String(lifted + 4));
    await page.getByRole('button', { name: 'Compare', exact: true }).click();
    await page.getByRole('button', { name: 'Take it into the station' }).click({ timeout: 120_000 });
    await expect(page.getByText(/^Taken over: ε 0\.\d\d, m 0\.\d\d/)).toBeVisible();
  },
);

test(
  'a plan has a purpose; a run is held beside another; a logged curve lies over the prediction and moves the station',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/32/heat`, { waitUntil: 'networkidle' });
    await expect(headline(page)).toHaveText(/[Ll]ift U4|U4 does not melt/, { timeout: 60_000 });
    // A look for a plan that holds is over: nothing changes the plan by itself any more.
    await expect(page.getByText('Looking for a plan with more.')).toBeHidden({ timeout: 60_000 });
    const first = (await headline(page).textContent())!;
    await page.getByRole('button', { name: 'Hold this run to compare' }).click();
    await page.getByRole('button', { name: 'Soften underfill' }).click();
    await expect(headline(page)).toHaveText(/^Clear the edges of U4 from \d+ s, stop at /, { timeout: 60_000 });
    await expect(page.getByText(/hands off at \d+ s/)).toBeVisible();
    await expect(page.getByRole('row', { name: /coldest joint 2\d\d °C 1\d\d °C/ })).toBeVisible();
    expect(await refusedLine(page, 'underfill glue')).toBe(
      'Expected edge, soft, hard, unknown or a temperature; got "glue".',
    );
    await page.getByRole('button', { name: 'Part the boards' }).click();
    await expect(headline(page)).toHaveText(/^Lift the upper board at /, { timeout: 60_000 });
    await page.getByRole('button', { name: 'Reball off the board' }).click();
    await expect(headline(page)).toHaveText(/^Balls of U[1-9]\d? molten at /, { timeout: 60_000 });
    await page.getByRole('button', { name: 'Back to the held plan' }).click();
    await expect(headline(page)).toHaveText(first, { timeout: 60_000 });

    await page.getByLabel('Copper').selectOption('2');
    const whatIf = page.getByText('What if, not the board as it is: nothing to keep.');
    await expect(whatIf).toBeVisible({ timeout: 60_000 });
    await page.getByLabel('Copper').selectOption('1');
    await expect(whatIf).toBeHidden({ timeout: 60_000 });

    const pick = page.getByLabel('Logged curve, CSV');
    await pick.setInputFiles({ name: 'torn.csv', mimeType: 'text/csv', buffer: Buffer.from('time,probe\n1,x\n') });
    await expect(page.getByText('torn.csv: Expected rows of samples; got 1.')).toBeVisible();
    // What a probe would show on a station a little stronger than the nominal one, over the very plan.
    const board = demoBoard('heronlog-4-c');
    const plan = startingPlan('U4', board.alloy, 4);
    const stronger = withMultiplier(NOMINAL_STATION, 1.05 * NOMINAL_STATION.multiplier);
    const { timesS, parts } = simulateHeat(board, stronger, plan, { ...COARSE_MESH, frames: false })!;
    const { jointMeanC } = parts.find((p) => p.ref === 'U4')!;
    const csv = ['time,U4 joint', ...Array.from(timesS, (t, i) => `${t},${jointMeanC[i].toFixed(1)}`)].join('\n');
    await page.goto(`${server.url}/jobs/32/heat${planLink(plan, 'bench-1')}`, { waitUntil: 'networkidle' });
    await expect(headline(page)).toHaveText(/U4/, { timeout: 60_000 });
    await pick.setInputFiles({ name: 'run.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
    await expect(page.getByText('Read less computed, rms')).toBeVisible({ timeout: 60_000 });
    await page.getByRole('button', { name: 'Take the log into the station' }).click();
    await expect(page.getByText(/^Taken over: ε 0\.\d\d, m 0\.\d\d/)).toBeVisible({ timeout: 60_000 });
  },
);

test('what must be baked before it meets hot air is told with its hours', async ({ page }) => {
  await page.goto(`${server.url}/jobs/32/heat?view=bake`);
  await expect(headline(page)).toHaveText('No chip is chosen yet: Decide says which');
  const lot = page.getByRole('region', { name: 'L-13' });
  await expect(lot.getByText('level 3, open for')).toBeVisible();
  await expect(lot.getByText('9 h')).toBeVisible();
});

test('trials that cannot tell the parameters apart are refused with the reason; a trial is left out again', async ({
  page,
}) => {
  await page.goto(`${server.url}/library/stations/bench-2`, { waitUntil: 'networkidle' });
  await expect(page.getByText(/Next, it narrows the doubt most/)).toBeVisible({ timeout: 30_000 });
  await page.getByLabel('Seen').selectOption('timed at a set point');
  await page.getByLabel('Set point, °C', { exact: true }).fill('900');
  await page.getByRole('button', { name: 'Add the trial' }).click();
  await expect(page.getByText('Expected a set point from 100 to 450 °C; got "900".')).toBeVisible();
  await page.getByLabel('Set point, °C', { exact: true }).fill('350');
  await page.getByLabel('Melted after, s').fill('35');
  await page.getByRole('button', { name: 'Add the trial' }).click();
  await expect(
    page.getByText(/Expected trials that tell a hot outlet from a strong jet; got one set point/),
  ).toBeVisible({
    timeout: 30_000,
  });
  await page.getByRole('button', { name: 'Leave out trial 1' }).click();
  await expect(page.getByText('Nothing yet: run a log or add a trial.')).toBeVisible();
});

test(
  'goals and limits of the bench are a set for each alloy; nonsense gets a sentence',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/jobs/32/heat?view=goals`, { waitUntil: 'networkidle' });
    const set = page.getByRole('region', { name: 'SAC305' });
    await set.getByLabel('Neighbours’ joints below solidus, K').fill('cold');
    await set.getByRole('button', { name: 'Keep for SAC305' }).click();
    await expect(set.getByText('Expected 0 to 60 K below solidus; got NaN.')).toBeVisible();
    await set.getByLabel('Neighbours’ joints below solidus, K').fill('22');
    await set.getByRole('button', { name: 'Keep for SAC305' }).click();
    await expect(set.getByText('Kept: every plan is judged by it from now on.')).toBeVisible();
    await page.goto(`${server.url}/jobs/32/heat`);
    await expect(page.getByText(/\d+ of 195/).first()).toBeVisible({ timeout: 60_000 });
    await page.goto(`${server.url}/jobs/32/heat?view=goals`, { waitUntil: 'networkidle' });
    await set.getByRole('button', { name: 'Back to the usual' }).click();
    await expect(set.getByLabel('Neighbours’ joints below solidus, K')).toHaveValue('10');
  },
);

test('a logger’s file calibrates a new station, its probes placed by hand; a file that is none gets a sentence', async ({
  page,
}) => {
  await page.goto(`${server.url}/library/stations`, { waitUntil: 'networkidle' });
  await page.getByLabel('Name').fill('Window bench');
  await page.getByLabel('Dial from to, °C').fill('450 100');
  await page.getByRole('button', { name: 'Add the station' }).click();
  await expect(page.getByText('Expected ranges from low to high; got 450 to 100 °C and 10 to 60 l/min.')).toBeVisible();
  await page.getByLabel('Dial from to, °C').fill('100 450');
  await page.getByRole('button', { name: 'Add the station' }).click();
  await page.getByRole('link', { name: /Window bench/ }).click();
  await expect(headline(page)).toHaveText('Window bench');

  const pick = page.getByLabel('Logger’s file');
  await pick.setInputFiles({ name: 'words.csv', mimeType: 'text/csv', buffer: Buffer.from('no\nnumbers') });
  await expect(page.getByText(/words\.csv: Expected rows of two or more columns with figures/)).toBeVisible();

  // A slug that warms like one of 1.5 g or so, and a board beside it, after five quiet seconds.
  const rise = (t: number, topC: number, tauS: number): number =>
    22 + (topC - 22) * (1 - Math.exp(-Math.max(0, t - 8) / tauS));
  const rows = Array.from(
    { length: 70 },
    (_, t) => `${t};${rise(t, 225, 26).toFixed(1)};${rise(t, 195, 30).toFixed(1)}`,
  );
  const csv = `time s;T1;T2\n${rows.join('\n')}`;
  await pick.setInputFiles({ name: 'log.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(page.getByText(/^air on at \d+ s$/)).toBeVisible();
  await expect(page.getByLabel('T1')).toHaveValue('slug');
  await page.getByLabel('T2').selectOption('');
  await page.getByRole('button', { name: 'Use this log' }).click();
  await expect(page.getByText(/^log of \d+ s, 1 probes?$/)).toBeVisible();
  await expect(page.getByText('Residuals, of 1')).toBeVisible({ timeout: 30_000 });
});
