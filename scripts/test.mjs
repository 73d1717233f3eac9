// `npm test`: sets up what is missing, runs everything, and ends with the sum. Goes on after a failure, so that one run tells all.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { faultRows, passedTests, untold } from './faults.mjs';
import { setUp } from './setup.mjs';

process.chdir(join(dirname(fileURLToPath(import.meta.url)), '..'));
setUp();
const reports = 'test-results/reports';
process.env.LANTERNPOST_TEST_CLUSTER = '1';
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports, { recursive: true });

let passed = 0;
let failed = 0;
/** Names of the tests that passed: read after each run, since the next one clears the folder. */
const names = new Set();

function run(title, command, args, environment = {}) {
  console.log(`\n── ${title}`);
  const { status } = spawnSync(command, args, {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...environment },
  });
  return status === 0;
}

/** A check that is one thing: it passes or fails. */
function check(title, command, ...args) {
  if (run(title, command, args)) passed++;
  else failed++;
}

/** A run of many tests: counted from its report. A run that broke without one counts as a failure. */
function suite(title, command, args, report, count, environment = {}) {
  const path = join(reports, report);
  const good = run(title, command, args(path), environment);
  const [ok, bad] = existsSync(path) ? count(JSON.parse(readFileSync(path, 'utf8'))) : [0, 0];
  for (const name of passedTests(reports)) names.add(name);
  passed += ok;
  failed += bad || (good ? 0 : 1);
}

check('Types', 'npx', 'tsc', '--noEmit');
check('Lint and import rules', 'npx', 'eslint', '.');
check('Format', 'npx', 'prettier', '--check', '--log-level', 'warn', '.');
check('Dependencies', 'npx', 'knip');
const jestCount = ({ numPassedTests, numFailedTests, numRuntimeErrorTestSuites }) => [
  numPassedTests,
  numFailedTests + numRuntimeErrorTestSuites,
];
const jestArgs = (path) => ['jest', '--json', `--outputFile=${path}`];
suite('Core, services and processes (Jest)', 'npx', jestArgs, 'jest.json', jestCount);
const playwrightCount = ({ stats }) => [stats.expected + stats.flaky, stats.unexpected + stats.skipped];
/** What looks at each frame has the machine for itself. */
const ALONE = ['glass.spec.ts'];
const specs = readdirSync('e2e').filter((file) => file.endsWith('.spec.ts'));
const browsers = (title, files) =>
  suite(
    title,
    'npx',
    () => ['playwright', 'test', ...files.map((file) => `e2e/${file}`)],
    'playwright.json',
    playwrightCount,
    {
      LANTERNPOST_REPORT: join(reports, 'playwright.json'),
    },
  );
browsers(
  'The real interface (Playwright)',
  specs.filter((file) => !ALONE.includes(file)),
);
browsers('Frame by frame (Playwright)', ALONE);

console.log('\n── Faults and bad inputs (docs/faults.md)');
const untried = untold(faultRows(readFileSync('docs/faults.md', 'utf8')), names);
for (const { fault, test } of untried) console.log(`"${fault}" is told there, and was not tried by: ${test}`);
if (untried.length === 0) passed++;
else failed++;

console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
