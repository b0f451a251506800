import { chromium } from '@playwright/test';
import { BROWSER } from '../../e2e/browser';
import { bundledForBrowser } from '../bundled';
import { note, section } from '../print';
import type { LookReply } from './browser.worker';

/** A picture of 12 megapixels with 400 balls in a worker of a real browser, from the file to the verdict. */
export async function benchBallsInBrowser(): Promise<void> {
  section('Ball inspection in the browser’s worker: 12 megapixels, 400 balls');
  const code = bundledForBrowser('inspect/browser.worker.ts');
  const browser = await chromium.launch(BROWSER.launchOptions);
  try {
    const page = await browser.newPage();
    await page.goto('about:blank');
    const { megapixels, tookMs, missing } = await page.evaluate(
      (source) =>
        new Promise<LookReply>((resolve) => {
          const worker = new Worker(URL.createObjectURL(new Blob([source], { type: 'text/javascript' })));
          worker.onmessage = ({ data }) => resolve(data as LookReply);
          worker.postMessage(null);
        }),
      code,
    );
    const [first, ...others] = tookMs.map((ms) => (ms / 1000).toFixed(2));
    note(`${megapixels.toFixed(1)} megapixels: ${first} s at first, then ${others.join(', ')} s (wanted 2 s)`);
    note(`missing balls told: ${missing[0]}, there: ${missing[1]}`);
  } finally {
    await browser.close();
  }
}
