import { defineConfig } from '@playwright/test';
import { BROWSER } from './e2e/browser';

/** Renews docs/screenshots; needs a build. */
export default defineConfig({
  testDir: 'e2e',
  testMatch: '*.shots.ts',
  workers: 1,
  timeout: 180_000,
  reporter: [['list']],
  use: { ...BROWSER, viewport: { width: 1280, height: 800 } },
});
