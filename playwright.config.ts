import { defineConfig } from '@playwright/test';

/** The real interface in Debian's Chromium, against the production build with the sample network (e2e/support/instance.ts). */
export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  workers: 1,
  fullyParallel: false,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  globalSetup: './e2e/support/instance.ts',
  reporter: process.env.LANTERNPOST_REPORT
    ? [['list'], ['json', { outputFile: process.env.LANTERNPOST_REPORT }]]
    : [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Oslo',
    colorScheme: 'light',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
