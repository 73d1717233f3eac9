// `npm test`: sets up what is missing, runs everything, and ends with the sum. Goes on after a failure, so that one run tells all.
// `npm run test:long` (`--long`) tries properties with all their random cases, and frames for five minutes.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { faultRows, passedTests, untold } from './faults.mjs';
import { setUp } from './setup.mjs';

process.chdir(join(dirname(fileURLToPath(import.meta.url)), '..'));
setUp();
const reports = 'test-results/reports';
process.env.LANTERNPOST_TEST_CLUSTER = '1';
// Nobody works here but the tests, and these wait for the files.
process.env.LANTERNPOST_FILE_PRIORITY = '0';
if (process.argv.includes('--long')) {
  process.env.PROPERTY_TIMES ??= '1';
  process.env.GLASS_SECONDS ??= '300';
}
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports, { recursive: true });

let passed = 0;
let failed = 0;
/** Names of the tests that passed: read after each run, since the next one clears the folder. */
const names = new Set();

async function run(title, command, args, environment = {}) {
  console.log(`\n── ${title}`);
  const child = spawn(command, args, {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...environment },
  });
  return (await new Promise((done) => child.once('close', done))) === 0;
}

/** What looks at the text alone: one thing each, which passes or fails. */
const CHECKS = [
  ['Types', 'tsc', '--noEmit'],
  ['Lint and import rules', 'eslint', '.'],
  ['Format', 'prettier', '--check', '--log-level', 'warn', '.'],
  ['Dependencies', 'knip'],
];

/**
 * Runs the checks one after the other, beside what waits for databases, processes and browsers: they get what that leaves of the processors.
 * What they say comes out when all are through.
 */
async function runChecks() {
  const results = [];
  for (const [title, ...command] of CHECKS) {
    const child = spawn('nice', ['-n', '19', 'npx', ...command], { stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => (said += chunk));
    const status = await new Promise((done) => child.once('close', done));
    results.push({ title, said, good: status === 0 });
  }
  for (const { title, said, good } of results) {
    console.log(`\n── ${title}: ${good ? 'passed' : 'failed'}\n${said}`);
    if (good) passed++;
    else failed++;
  }
}

/** A run of many tests: counted from its report. A run that broke without one counts as a failure. */
async function suite(title, command, args, report, count, environment = {}) {
  const path = join(reports, report);
  const good = await run(title, command, args(path), environment);
  const [ok, bad] = existsSync(path) ? count(JSON.parse(readFileSync(path, 'utf8'))) : [0, 0];
  for (const name of passedTests(reports)) names.add(name);
  passed += ok;
  failed += bad || (good ? 0 : 1);
}

const jestCount = ({ numPassedTests, numFailedTests, numRuntimeErrorTestSuites }) => [
  numPassedTests,
  numFailedTests + numRuntimeErrorTestSuites,
];
const jestArgs = (path) => ['jest', '--json', `--outputFile=${path}`];
const checks = runChecks();
const template = run('The sample network, for the walks', 'npx', ['tsx', 'e2e/support/make-template.ts']);
await suite('Core, services and processes (Jest)', 'npx', jestArgs, 'jest.json', jestCount);
const playwrightCount = ({ stats }) => [stats.expected + stats.flaky, stats.unexpected + stats.skipped];
/** What looks at each frame has the machine for itself. */
const ALONE = ['glass.spec.ts'];
const specs = readdirSync('e2e').filter((file) => file.endsWith('.spec.ts'));
const browsers = (title, files, environment = {}) =>
  suite(
    title,
    'npx',
    () => ['playwright', 'test', ...files.map((file) => `e2e/${file}`)],
    'playwright.json',
    playwrightCount,
    {
      LANTERNPOST_REPORT: join(reports, 'playwright.json'),
      ...environment,
    },
  );
// Where it could not be made beside Jest, the walks make it, or say why they can't.
const kept = { LANTERNPOST_KEEP_TEMPLATE: (await template) ? '1' : '' };
await browsers(
  'The real interface (Playwright)',
  specs.filter((file) => !ALONE.includes(file)),
  kept,
);
await checks;
await browsers('Frame by frame (Playwright)', ALONE, kept);

console.log('\n── Faults and bad inputs (docs/faults.md)');
const untried = untold(faultRows(readFileSync('docs/faults.md', 'utf8')), names);
for (const { fault, test } of untried) console.log(`"${fault}" is told there, and was not tried by: ${test}`);
if (untried.length === 0) passed++;
else failed++;

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
