import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { BROWSER } from '../../e2e/browser';
import { BenchServer } from '../../e2e/server';
import { browserBytes } from '../browser-memory';
import { note, ratio, section } from '../print';
import { WANTED_BYTES, writeCapture } from './capture';

const SAMPLE_MEMORY_MS = 150;

/** The same 200 MB capture through the real interface: a worker in the browser, its time, its memory, its progress. */
export async function benchCaptureInBrowser(): Promise<void> {
  section('CC capture of 200 MB in the browser’s worker: decoding against reading the file');
  const folder = mkdtempSync(path.join(tmpdir(), 'unisolda-bench-'));
  const file = path.join(folder, 'capture.csv');
  writeCapture(file, WANTED_BYTES);
  const server = new BenchServer(3219);
  await server.start();
  const browser = await chromium.launch(BROWSER.launchOptions);
  try {
    const page = await browser.newPage();
    const reading = await readingSeconds(page, file);
    await page.goto(`${server.url}/jobs/31/outside?view=talk`, { waitUntil: 'networkidle' });
    const before = browserBytes();
    let most = before;
    const sampler = setInterval(() => (most = Math.max(most, browserBytes())), SAMPLE_MEMORY_MS);
    const start = performance.now();
    await page.getByLabel('Load a capture').setInputFiles(file);
    await page.getByText(/^Decoding [1-9]\d? %$/).waitFor();
    const firstProgress = (performance.now() - start) / 1000;
    await page.getByRole('region', { name: 'The conversation' }).waitFor({ timeout: 120_000 });
    const decoding = (performance.now() - start) / 1000;
    clearInterval(sampler);
    note(
      `decoded and shown after ${decoding.toFixed(1)} s (wanted within 20 s); first progress after ${firstProgress.toFixed(1)} s`,
    );
    note(`memory of all browser processes grew by at most ${((most - before) / 1e6).toFixed(0)} MB`);
    ratio('decoding / reading', decoding / reading, 'for comparison: the same file streamed in a worker undecoded');
  } finally {
    await browser.close();
    await server.stop();
    rmSync(folder, { recursive: true });
  }
}

/** Seconds to stream the file in a worker of a bare page. */
async function readingSeconds(page: Page, file: string): Promise<number> {
  await page.setContent('<input type="file" id="pick">');
  await page.locator('#pick').setInputFiles(file);
  return page.evaluate(async () => {
    const picked = document.querySelector<HTMLInputElement>('#pick')!.files![0];
    const code = `onmessage = async ({ data }) => {
      const pieces = data.stream().getReader();
      let bytes = 0;
      for (let p = await pieces.read(); !p.done; p = await pieces.read()) bytes += p.value.length;
      postMessage(bytes);
    };`;
    const worker = new Worker(URL.createObjectURL(new Blob([code], { type: 'text/javascript' })));
    const start = performance.now();
    await new Promise((resolve) => {
      worker.onmessage = resolve;
      worker.postMessage(picked);
    });
    return (performance.now() - start) / 1000;
  });
}
