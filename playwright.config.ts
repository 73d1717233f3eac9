import { readdirSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

const LONGEST_FIRST = ['folder', 'plan-in-time', 'from-box-to-lit', 'access'];
const SPECS = readdirSync('e2e')
  .flatMap((file) => /^(.+)\.spec\.ts$/.exec(file)?.[1] ?? [])
  .sort((a, b) => rank(a) - rank(b));

function rank(name: string): number {
  const at = LONGEST_FIRST.indexOf(name);
  return at < 0 ? LONGEST_FIRST.length : at;
}

/** The real interface in Debian's Chromium, against the production build: each spec on an instance of its own (e2e/support/test.ts). */
export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  workers: 2,
  // A project a spec: workers, and so instances, are never shared between them. The longest begin first.
  projects: SPECS.map((name) => ({ name, testMatch: `${name}.spec.ts` })),
  fullyParallel: false,
  // As long as a slow machine under load may take: what is right does not wait for it.
  timeout: 240_000,
  expect: { timeout: 60_000 },
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
