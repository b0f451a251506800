import { defineConfig } from '@playwright/test';
import { BROWSER } from './e2e/browser';

/** The production build in Debian's Chromium; each file starts a server of its own on a database of its own. */
export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // Views are computed beside the thread that answers: two at a time use both cores.
  workers: 2,
  // What needs its second try is listed as flaky: it passes, and is to be mended.
  retries: 1,
  // Long enough for a busy machine: no test is about time.
  timeout: 300_000,
  expect: { timeout: 30_000 },
  reporter: [['list']],
  use: { ...BROWSER, viewport: { width: 1280, height: 800 } },
});
