import { chromium } from '@playwright/test';
import { BROWSER } from '../../e2e/browser';
import { bundledForBrowser } from '../bundled';
import { note, section } from '../print';

/** 1 MiB, every algorithm, ranges from 64 to 64 bytes, in a worker of a real browser. */
export async function benchChecksumsInBrowser(): Promise<void> {
  section('Checksums by their values in the browser’s worker: 1 MiB, every algorithm');
  const browser = await chromium.launch(BROWSER.launchOptions);
  try {
    const page = await browser.newPage();
    await page.goto('about:blank');
    const tookMs = await page.evaluate(
      (source) =>
        new Promise<number[]>((resolve) => {
          const worker = new Worker(URL.createObjectURL(new Blob([source], { type: 'text/javascript' })));
          worker.onmessage = ({ data }) => resolve(data as number[]);
          worker.postMessage(null);
        }),
      bundledForBrowser('checksum/browser.worker.ts'),
    );
    const [one, two] = tookMs.map((ms) => (ms / 1000).toFixed(1));
    note(`one image ${one} s (wanted at most 10), two images ${two} s`);
  } finally {
    await browser.close();
  }
}
