import { defineConfig } from '@playwright/test';
import { BROWSER } from './e2e/browser';

/** The production build in Debian's Chromium; each file starts a server of its own on a database of its own. */
export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // Each file has a server and a database of its own: two of them fill two cores.
  workers: 2,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [['list']],
  use: { ...BROWSER, viewport: { width: 1280, height: 800 } },
});
