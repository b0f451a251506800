/** Instruments on the network at every page where a reading is due: the pedal takes it, the interlock holds. */
import type { Page } from '@playwright/test';
import { MEASURE_METER, STANDARD_SUPPLY } from '../src/devices/instruments/dialects';
import { Speaker } from '../src/devices/instruments/tests/speaker';
import { servedOverTcp } from '../src/devices/instruments/tests/tcp-speaker';
import { demoBoard } from '../demo/files';
import { enterLine, headline } from './bench';
import { BenchServer } from './server';
import { LONG, expect, test } from './test';

const server = new BenchServer(3248);
test.beforeAll(() => server.start());
test.afterAll(() => server.stop());
test.describe.configure({ mode: 'serial' });

async function connect(page: Page, name: string, address: string): Promise<void> {
  await page.getByRole('button', { name: 'Connect an instrument' }).click();
  await page.getByLabel('What it is').selectOption(name);
  await page.getByLabel('Address').fill(address);
  await page.getByRole('button', { name: 'Connect and try it' }).click();
}

/** What a sound board reads at the place that is due, as the page says it, in the meter's own units. */
async function soundHere(page: Page): Promise<number> {
  const words = await page.getByText(/^A sound board reads /).innerText();
  const [, figure, prefix] = /reads (?:about )?([\d.]+)\s*(k|M|m)?/.exec(words) ?? [];
  return figure === undefined ? Infinity : Number(figure) * ({ k: 1e3, M: 1e6, m: 1e-3 }[prefix] ?? 1);
}

/** Heights of the notes that a page plays from now on, Hz. */
async function notesOf(page: Page): Promise<() => Promise<number[]>> {
  await page.addInitScript(() => {
    const notes: number[] = [];
    Object.assign(window, { notes });
    const { start } = OscillatorNode.prototype;
    OscillatorNode.prototype.start = function (this: OscillatorNode, when?: number) {
      notes.push(Math.round(this.frequency.value));
      start.call(this, when);
    };
  });
  return () => page.evaluate(() => (window as unknown as { notes: number[] }).notes.splice(0));
}

test(
  'a whole port is walked by the pedal alone, and nothing is measured with a supply on',
  { tag: LONG },
  async ({ page }) => {
    const under = { V: 0, Ω: 0, drop: 0.5 };
    const meter = new Speaker(MEASURE_METER, under, 'Bench,Meter,17,1', 'unit');
    const supply = new Speaker(STANDARD_SUPPLY, { V: 5, Ω: 0, drop: 0 }, 'Bench,Supply,3,1');
    const notes = await notesOf(page);
    await servedOverTcp(meter, (meterPort) =>
      servedOverTcp(supply, async (supplyPort) => {
        await page.goto(`${server.url}/jobs/32/outside?view=walk`, { waitUntil: 'networkidle' });
        await connect(page, MEASURE_METER.name, `127.0.0.1:1`);
        await expect(page.getByText(/^Expected an instrument at 127\.0\.0\.1:1/)).toBeVisible();
        await page.getByLabel('Address').fill(`127.0.0.1:${meterPort}`);
        await page.getByRole('button', { name: 'Connect and try it' }).click();
        await expect(page.getByText('Bench,Meter,17,1')).toBeVisible();
        await connect(page, STANDARD_SUPPLY.name, `127.0.0.1:${supplyPort}`);
        await expect(page.getByText('Bench,Supply,3,1')).toBeVisible();

        supply.isOn = true;
        await page.keyboard.press('F9');
        await expect(page.getByText('the output of Bench,Supply,3,1 is on. Switch it off first.')).toBeVisible();
        expect(await notes()).toEqual([196]);
        supply.isOn = false;

        let taken = 0;
        for (; taken < 40; taken++) {
          const before = await headline(page).innerText();
          if (before === 'Every contact of J1 reads well') break;
          under.drop = await soundHere(page);
          await page.keyboard.press('F9');
          await expect(headline(page)).not.toHaveText(before, { timeout: 10_000 });
        }
        expect(taken).toBe(24);
        // A tone for each: as high as what it said is good.
        const heard = await notes();
        expect(heard.length).toBeGreaterThanOrEqual(24);
        expect(heard.filter((hz) => hz < 500)).toEqual([]);
      }),
    );
  },
);

test('a reading that says something is wrong sounds low and twice; a bench may do without', async ({ page }) => {
  const under = { V: 0, Ω: 0, drop: 0.5 };
  const meter = new Speaker(MEASURE_METER, under, 'Bench,Meter,17,1', 'unit');
  const notes = await notesOf(page);
  await servedOverTcp(meter, async (port) => {
    await page.goto(`${server.url}/jobs/31/outside?view=walk`, { waitUntil: 'networkidle' });
    await connect(page, MEASURE_METER.name, `127.0.0.1:${port}`);
    await expect(page.getByText('Bench,Meter,17,1')).toBeVisible();
    const places: string[] = [];
    const take = async (): Promise<void> => {
      const before = await headline(page).innerText();
      places.push(before);
      under.drop = (await soundHere(page)) < 0.1 ? 0.9 : 0.003;
      await page.keyboard.press('F9');
      await expect(headline(page)).not.toHaveText(before, { timeout: 10_000 });
    };
    await take();
    expect(await notes()).toEqual([330, 330]);
    await page.getByRole('button', { name: 'Tones on' }).click();
    await expect(page.getByRole('button', { name: 'Tones off' })).toBeVisible();
    await page.getByLabel('Entry line').focus();
    await take();
    expect(await notes()).toEqual([]);
    // Both are taken back: the port is walked whole by another test.
    for (const place of places.reverse()) {
      await page.keyboard.press('Shift+U');
      await expect(headline(page)).toHaveText(place);
    }
  });
});

test('after a swap every joint and every rail is proven by the pedal alone', { tag: LONG }, async ({ page }) => {
  const board = demoBoard('heronlog-4-c');
  const under = { V: 0, Ω: 1300, drop: 0.5 };
  const meter = new Speaker(MEASURE_METER, under, 'Bench,Meter,17,1', 'unit');
  const supply = new Speaker(STANDARD_SUPPLY, { V: 15, Ω: 0, drop: 0 }, 'Bench,Supply,3,1');
  const pedal = async (): Promise<void> => {
    const before = await headline(page).innerText();
    await page.keyboard.press('F9');
    await expect(headline(page)).not.toHaveText(before);
  };
  await page.goto(`${server.url}/jobs/32/probe`, { waitUntil: 'networkidle' });
  const placed = ['u4', 'u8', 'u5', 'u10'];
  for (const ref of placed) {
    await enterLine(page, `off ${ref}`);
    await enterLine(page, `on ${ref} new`);
  }
  await servedOverTcp(meter, (meterPort) =>
    servedOverTcp(supply, async (supplyPort) => {
      await page.goto(`${server.url}/jobs/32/prove`, { waitUntil: 'networkidle' });
      await connect(page, MEASURE_METER.name, `127.0.0.1:${meterPort}`);
      await expect(page.getByText('Bench,Meter,17,1')).toBeVisible();
      await connect(page, STANDARD_SUPPLY.name, `127.0.0.1:${supplyPort}`);
      await expect(page.getByText('Bench,Supply,3,1', { exact: true })).toBeVisible();
      await expect(headline(page)).toHaveText('PD18 to ground before power: is the short gone?');
      await pedal();

      let joints = 0;
      for (; joints < 80; joints++) {
        const [, net] = /^Joint \S+ of U\d+, (\S+)$/.exec(await headline(page).innerText()) ?? [];
        if (net === undefined) break;
        under.drop = board.nets[net].role === 'ground' ? 0 : (board.nets[net].diodeV ?? 0.44);
        await pedal();
      }
      expect(joints).toBeGreaterThanOrEqual(40);
      await expect(headline(page)).not.toHaveText(/reads badly$/);
      for (const ref of placed) await enterLine(page, `flat ${ref} 52 53 52 53`);

      await page.getByRole('navigation', { name: 'Steps of the proof' }).getByRole('link', { name: 'Rails' }).click();
      supply.isOn = true;
      let rails = 0;
      for (const rail of board.rails) {
        under.V = rail.expect.kind === 'bus' ? 15 : rail.expect.volts;
        await pedal();
        rails += 1;
      }
      expect(rails).toBe(11);
      await expect(page.getByRole('complementary')).toContainText(/rails? .*\s*holds?/i);
    }),
  );
});

test('a meter whose line is lost says so; a supply counts as on', async ({ page }) => {
  const supply = new Speaker(STANDARD_SUPPLY, { V: 5, Ω: 0, drop: 0 }, 'Bench,Supply,3,1');
  await page.goto(`${server.url}/jobs/32/probe`, { waitUntil: 'networkidle' });
  await servedOverTcp(supply, async (port) => {
    await connect(page, STANDARD_SUPPLY.name, `127.0.0.1:${port}`);
    await expect(page.getByText('Bench,Supply,3,1')).toBeVisible();
  });
  await expect(page.getByText('line lost: its output counts as on, switch it off there')).toBeVisible();
  await page.getByRole('button', { name: 'Take off' }).click();
  await expect(page.getByText(/The output of Bench,Supply,3,1 could not be switched off/)).toBeVisible();
});

test('a lead lists an address; another one is refused with a sentence', async ({ page }) => {
  await page.goto(`${server.url}/shop`, { waitUntil: 'networkidle' });
  await page.getByLabel(/Addresses on the network/).fill('192.0.2.7:5025');
  await page.getByRole('region', { name: 'Instruments' }).getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('Kept: 1 addresses, 0 instruments of your own.')).toBeVisible();
  await page.goto(`${server.url}/jobs/32/probe`, { waitUntil: 'networkidle' });
  await connect(page, MEASURE_METER.name, '192.0.2.9:5025');
  await expect(
    page.getByText('Expected an address that a lead has listed under Shop; 192.0.2.9:5025 is not.'),
  ).toBeVisible();
});

test.describe('under a finger', () => {
  test.use({ viewport: { width: 1024, height: 768 }, hasTouch: true, isMobile: true });

  test('a whole port is walked by taps, and no keyboard comes over the page', { tag: LONG }, async ({ page }) => {
    const under = { V: 0, Ω: 0, drop: 0.5 };
    const meter = new Speaker(MEASURE_METER, under, 'Bench,Meter,17,1', 'unit');
    await servedOverTcp(meter, async (meterPort) => {
      await page.goto(`${server.url}/jobs/31/outside?view=walk`, { waitUntil: 'networkidle' });
      await connect(page, MEASURE_METER.name, `127.0.0.1:${meterPort}`);
      await expect(page.getByText('Bench,Meter,17,1')).toBeVisible();
      const take = page.getByRole('button', { name: 'Take the reading' });
      let taken = 0;
      for (; taken < 40; taken++) {
        const before = await headline(page).innerText();
        if (before === 'Every contact of J1 reads well') break;
        under.drop = await soundHere(page);
        await take.tap();
        await expect(headline(page)).not.toHaveText(before);
        await expect(page.getByLabel('Entry line')).not.toBeFocused();
      }
      expect(taken).toBe(24);
      expect((await take.boundingBox())!.height).toBeGreaterThanOrEqual(44);
    });
  });
});
