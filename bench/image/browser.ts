import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { BROWSER } from '../../e2e/browser';
import { BenchServer } from '../../e2e/server';
import { seededRandom } from '../../src/core/math';
import { note, section } from '../print';

const BYTES = 64 * 2 ** 20;
const PORT = 3240;

/** Code-like content with erased ends of every MiB. */
function image(): Uint8Array {
  const bytes = new Uint8Array(BYTES);
  let state = 1;
  for (let i = 0; i < BYTES; i++) {
    state = (Math.imul(state, 1664525) + 1013904223) | 0;
    bytes[i] = i % 2 ** 20 > 900_000 ? 0xff : state >>> 24;
  }
  return bytes;
}

const KINDS: Readonly<Record<string, (a: Uint8Array) => Uint8Array>> = {
  'some 5,000 bytes differ': (a) => {
    const random = seededRandom(3);
    const b = Uint8Array.from(a);
    for (let k = 0; k < 5000; k++) b[Math.floor(random() * BYTES)] ^= 1;
    return b;
  },
  'moved by 16 bytes from 10 MB on': (a) => Uint8Array.from(a).copyWithin(10_000_016, 10_000_000),
  'nothing alike': (a) => Uint8Array.from(a, (b, i) => (b ^ (i >>> 3) ^ 0xa5) & 0xff),
};

/** Two images of 64 MiB opened, hashed, compared and shown, and the bytes scrolled, in the production build. */
export async function benchImagesInBrowser(): Promise<void> {
  section('Two images of 64 MiB in the production build: opened, hashed, compared, shown');
  const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-bench-'));
  const server = new BenchServer(PORT);
  const browser = await chromium.launch(BROWSER.launchOptions);
  try {
    await server.start();
    const first = image();
    const at = (name: string): string => path.join(folder, name);
    writeFileSync(at('first.bin'), first);
    for (const [words, make] of Object.entries(KINDS)) {
      writeFileSync(at('second.bin'), make(first));
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await page.goto(`${server.url}/library/images?family=none`, { waitUntil: 'networkidle' });
      await page.getByLabel('Look at a file').setInputFiles(at('first.bin'));
      await page.getByText('One image: first.bin').waitFor();
      const shownMs = await shownAfter(page, at('second.bin'));
      const inWorker = await page.getByText(/^64 MiB in [\d.]+ s$/).innerText();
      note(`${words}: ${(shownMs / 1000).toFixed(2)} s until it is shown (wanted 3); in the worker ${inWorker}`);
      note(`  scrolled 300 systems: longest gap between frames ${(await longestFrameMs(page)).toFixed(0)} ms`);
      await page.close();
    }
  } finally {
    await browser.close();
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** From the file's choice until the headline tells what differs and the browser has drawn it. */
async function shownAfter(page: Page, file: string): Promise<number> {
  const heading = page.getByRole('heading', { level: 1 });
  await page.evaluate(() => {
    const told = window as unknown as { shownAt?: Promise<number>; startedAt?: number };
    document.addEventListener('change', () => (told.startedAt = performance.now()), { capture: true, once: true });
    told.shownAt = new Promise((resolve) => {
      const look = new MutationObserver(() => {
        if (!/differs? from the first/.test(document.querySelector('h1')?.textContent ?? '')) return;
        look.disconnect();
        requestAnimationFrame(() => requestAnimationFrame(() => resolve(performance.now())));
      });
      look.observe(document.body, { subtree: true, childList: true, characterData: true });
    });
  });
  await page.getByLabel('Add a file').setInputFiles(file);
  await heading.filter({ hasText: /from the first/ }).waitFor({ timeout: 60_000 });
  return page.evaluate(async () => {
    const told = window as unknown as { shownAt: Promise<number>; startedAt: number };
    return (await told.shownAt) - told.startedAt;
  });
}

/** Wheels through the bytes, one turn a frame, from the middle of the image. */
async function longestFrameMs(page: Page): Promise<number> {
  await page.getByLabel('Go to an offset').fill('2000000');
  await page.keyboard.press('Enter');
  return page.evaluate(async () => {
    const score = document.querySelector('[aria-label^="Bytes from"]')!;
    let [longest, last] = [0, performance.now()];
    for (let k = 0; k < 100; k++) {
      score.dispatchEvent(new WheelEvent('wheel', { deltaY: 100, bubbles: true, cancelable: true }));
      await new Promise(requestAnimationFrame);
      const now = performance.now();
      longest = Math.max(longest, now - last);
      last = now;
    }
    return longest;
  });
}
