import { defineConfig } from '@playwright/test';
import { BROWSER } from './e2e/browser';

/** The production build in Debian's Chromium; each file starts a server of its own on a database of its own. */
export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.spec.ts',
  // A browser and its server fill two cores: two workers were slower than one (measured).
  workers: 1,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [['list']],
  use: { ...BROWSER, viewport: { width: 1280, height: 800 } },
});
