import { readdirSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

/** These specs share an instance, because none of them changes what another one looks at: a start takes long on few processors. */
const TOGETHER: Record<string, readonly string[]> = {
  looks: ['access', 'small-windows'],
  doors: ['keys', 'refusals', 'secrets'],
  rights: ['people', 'publish-by-key'],
  lists: ['choosing', 'loops', 'nothing-lost'],
  changes: ['arrival', 'docket'],
  over: ['cues', 'layouts', 'put-on', 'screen', 'takeovers'],
  files: ['many-files', 'versions'],
  heaps: ['acts', 'folder', 'large-library'],
  instants: ['pilot', 'planned'],
  falls: ['broken-off', 'killed'],
};
const LONGEST_FIRST =
  'looks lists plan-in-time instants over doors falls heaps from-box-to-lit rights sending restore changes files'.split(
    ' ',
  );

const shared = new Set(Object.values(TOGETHER).flat());
const all = readdirSync('e2e').flatMap((file) => /^(.+)\.spec\.ts$/.exec(file)?.[1] ?? []);
const projects = [
  ...Object.entries(TOGETHER),
  ...all.filter((name) => !shared.has(name)).map((name) => [name, [name]] as const),
].sort(([a], [b]) => rank(a) - rank(b));

function rank(name: string): number {
  const at = LONGEST_FIRST.indexOf(name);
  return at < 0 ? LONGEST_FIRST.length : at;
}

/** The real interface in Debian's Chromium, against the production build: each project on an instance of its own (e2e/support/test.ts). */
export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  workers: 2,
  // Workers, and so instances, are never shared between projects. A second worker would start an instance of its own for the
  // same project. The longest begin first.
  projects: projects.map(([name, specs]) => ({ name, workers: 1, testMatch: specs.map((spec) => `${spec}.spec.ts`) })),
  fullyParallel: false,
  // As long as a slow machine under load may take: what is right does not wait for it.
  timeout: 240_000,
  expect: { timeout: 120_000 },
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
