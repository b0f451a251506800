import { plausibleBoard } from '../bench/diagnose/plausible-board';
import { kicadText } from '../src/core/netlist/tests/kicad-text';
import { writeIpc356, type TestRecord } from '../src/core/netlist';
import { BenchServer } from './server';
import { headline, tabTo } from './bench';
import { LONG, expect, test } from './test';

const server = new BenchServer(3217);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());

const record = (ref: string, pin: string, net: string, xMm: number, yMm: number): TestRecord => ({
  ref,
  pin,
  net,
  xMm,
  yMm,
  side: 'front',
  wMm: 0.5,
  hMm: 0.5,
  rotationDeg: 0,
});

/** A port, its controller, its flash, a capacitor and a test point. */
const NETLIST = writeIpc356([
  ...[
    ['A4', 'VBUS'],
    ['A5', 'CC1'],
    ['B5', 'CC2'],
    ['A1', 'GND'],
  ].map(([pin, net], i) => record('J1', pin, net, 2, 2 + 2 * i)),
  ...[
    ['1', 'CC1'],
    ['2', 'CC2'],
    ['3', 'VBUS'],
    ['4', 'AON33'],
    ['5', 'GND'],
  ].map(([pin, net], i) => record('U1', pin, net, 14, 2 + 2 * i)),
  record('U2', '8', 'AON33', 24, 3),
  record('U2', '4', 'GND', 24, 7),
  record('C1', '1', 'AON33', 19, 10),
  record('C1', '2', 'GND', 21, 10),
  record('TP1', '1', 'AON33', 24, 12),
]);

test('a netlist becomes a board: what is missing is said section by section until it can be added', async ({
  page,
}) => {
  await page.goto(`${server.url}/library`);
  await page.getByRole('link', { name: 'Make a board from a netlist' }).click();
  await expect(headline(page)).toHaveText('A board from open files');
  const pick = page.getByLabel('Read a board');
  await pick.setInputFiles({ name: 'odd.ipc', mimeType: 'text/plain', buffer: Buffer.from('nonsense\n') });
  await expect(page.getByRole('alert').filter({ hasText: 'odd.ipc' })).toContainText('xpected');
  await pick.setInputFiles({ name: 'Small Board.ipc', mimeType: 'text/plain', buffer: Buffer.from(NETLIST) });
  await expect(page.getByText('4 parts, 1 test points')).toBeVisible();
  const add = page.getByRole('button', { name: 'Add this board' });
  await expect(add).toBeDisabled();

  const say = (label: string, text: string) => page.getByLabel(label, { exact: true }).fill(text);
  for (const [label, text] of [
    ['Device', 'Gauge'],
    ['Board', 'port board'],
    ['Revision', 'A'],
    ['Copper layers', '4'],
    ['Image in', 'u2'],
    ['Level, V', '15'],
  ] as const)
    await say(label, text);
  // What names and wiring say stands in the form already.
  await expect(page.getByRole('region', { name: 'What was inferred' })).toContainText('J1, bus VBUS, CC CC1 and CC2');
  for (const [label, text] of [
    ['Connector', 'J1'],
    ['Controller', 'U1'],
    ['Rails its controller needs', 'AON33'],
    ['Ground net', 'GND'],
    ['Net of rail 1', 'VBUS'],
    ['Volts of rail 1', 'bus'],
    ['Net of rail 2', 'AON33'],
    ['Volts of rail 2', '3.3'],
    ['Source of rail 2', 'VBUS'],
    ['Maker of rail 2', 'U1'],
  ] as const)
    await expect(page.getByLabel(label, { exact: true })).toHaveValue(text);
  await expect(page.getByLabel('Kind of U1')).toHaveValue('portController');
  await page.getByLabel('Kind of U2').selectOption('flash');
  await expect(page.getByText('List at least one function')).toBeVisible();
  await page.getByRole('button', { name: 'Add a function' }).click();
  await say('Words of function 1', 'reaches its level');
  await say('Parts of function 1', 'u1 j1');
  await expect(page.getByText('Complete.')).toBeVisible();
  await add.click();
  await expect(page.getByText('Gauge, port board: added.')).toBeVisible();
  await page.getByRole('link', { name: 'open it' }).click();
  await expect(headline(page)).toHaveText('Gauge, port board');
  await expect(page.getByRole('complementary')).toContainText('AON33');
});

test(
  'a layout of three thousand parts: only what is near its port is asked, and all of it is answered by keyboard',
  { tag: LONG },
  async ({ page }) => {
    await page.goto(`${server.url}/library/draft`, { waitUntil: 'networkidle' });
    const text = kicadText(plausibleBoard(3000), 8);
    await page
      .getByLabel('Read a board')
      .setInputFiles({ name: 'large.kicad_pcb', mimeType: 'text/plain', buffer: Buffer.from(text) });
    const inferred = page.getByRole('region', { name: 'What was inferred' });
    await expect(inferred).toContainText('J1, bus VBUS, CC CC1 and CC2');
    await expect(inferred).toContainText('only these are asked about');
    await expect(page.getByText(/^3\d\d\d parts, /)).toBeVisible();

    const answer = async (label: string, said: string): Promise<void> => {
      await tabTo(page, label);
      await page.keyboard.type(said);
    };
    await page.getByLabel('Id', { exact: true }).focus();
    const answers = [
      ['Device', 'Large gauge'],
      ['Board', 'main board'],
      ['Revision', 'A'],
      ['Volts of rail 4', '4.2'],
      ['Volts of rail 5', '3.8'],
      ['Level, V', '15'],
    ] as const;
    for (const [label, said] of answers) await answer(label, said);
    await tabTo(page, 'Add a function');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Shift+Tab');
    await answer('Words of function 1', 'charges its pack');
    await answer('Parts of function 1', 'u5 j2');
    expect(answers.length + 2).toBeLessThanOrEqual(12);
    await expect(page.getByText('Complete.')).toBeVisible();
    await tabTo(page, 'Add this board');
    await page.keyboard.press('Enter');
    await expect(page.getByText('Large gauge, main board: added.')).toBeVisible({ timeout: 60_000 });
    await page.getByRole('link', { name: 'open it' }).click();
    await expect(headline(page)).toHaveText('Large gauge, main board', { timeout: 60_000 });
  },
);

test('a board is given out as files that read back; its drawing is a picture', async ({ page, request }) => {
  await page.goto(`${server.url}/library/heronlog-4-c`);
  for (const [name, start] of [
    ['board file', '{'],
    ['parts, CSV', 'Ref,Value'],
    ['netlist', 'P  UNITS'],
  ] as const) {
    const href = await page.getByRole('link', { name, exact: true }).getAttribute('href');
    const answer = await request.get(`${server.url}${href}`);
    expect([answer.status(), (await answer.text()).startsWith(start)]).toEqual([200, true]);
  }
  const svg = await (await request.get(`${server.url}/library/heronlog-4-c/files/front.svg`)).text();
  const drawn = await page.evaluate((text) => {
    const parsed = new DOMParser().parseFromString(text, 'image/svg+xml');
    return { broken: parsed.querySelector('parsererror') !== null, parts: parsed.querySelectorAll('g').length };
  }, svg);
  expect(drawn).toEqual({ broken: false, parts: 75 });
});

test('what the bench settles of story, records and prices is kept, and closed jobs suggest records', async ({
  page,
}) => {
  await page.goto(`${server.url}/library/practice?view=story`);
  await page.getByLabel('connector, liquid', { exact: true }).fill('7');
  await page.getByRole('button', { name: 'Keep these factors' }).click();
  await expect(page.getByRole('status')).toContainText('Kept');
  await page.getByRole('link', { name: 'Parts and money' }).click();
  await page.getByRole('button', { name: 'Fill in from closed jobs' }).click();
  await expect(page.getByText('Nothing is kept until you keep it')).toBeVisible();
  await page.getByLabel('An hour at the bench').fill('many');
  await page.getByRole('button', { name: 'Keep these figures' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'xpected' })).toContainText('an hour from 1 to 1,000');
  await page.getByLabel('An hour at the bench').fill('75');
  await page.getByRole('button', { name: 'Keep these figures' }).click();
  await expect(page.getByText('Kept: every open job')).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('An hour at the bench')).toHaveValue('75');
});

test('a job is held against good boards, and a suspect opens into the readings behind it', async ({ page }) => {
  await page.goto(`${server.url}/jobs/27/probe`);
  const margin = page.getByRole('complementary');
  await expect(margin).toContainText('mended with U4');
  await expect(margin.getByRole('group').first()).toContainText('likelier with U4 at fault');
  await page.getByRole('link', { name: 'Against good boards' }).click();
  await expect(headline(page)).toHaveText(/^All \d+ as good boards read$/);
  await expect(page.getByRole('list', { name: 'Against good boards' })).toContainText('in 5.35 kΩ to 8.13 kΩ');
});

test('days and money are shown as they are where the bench stands; what is no currency is refused', async ({
  page,
}) => {
  await page.goto(`${server.url}/library/practice?view=place`, { waitUntil: 'networkidle' });
  await page.getByLabel('Currency').fill('EURO');
  await page.getByRole('button', { name: 'Keep this' }).click();
  await expect(
    page.getByText('Expected a currency of three capitals such as EUR, or nothing; got "EURO".'),
  ).toBeVisible();
  await page.getByLabel('Currency').fill('EUR');
  await page.getByLabel('Language').fill('de-DE');
  // Jobs that came in at a quarter past ten in the morning, universal time: the next day has begun on Kiritimati.
  await page.getByLabel('Time zone').selectOption('Pacific/Kiritimati');
  await page.getByRole('button', { name: 'Keep this' }).click();
  await expect(page.getByText('Kept: every day and price is shown like this from now on.')).toBeVisible();
  await page.goto(`${server.url}/jobs?find=0037`);
  await expect(page.getByRole('region', { name: 'The jobs' })).toContainText('25.11.2026');
  await page.goto(`${server.url}/stock`);
  await expect(page.getByText(/8,50\s€/)).toBeVisible();
});
