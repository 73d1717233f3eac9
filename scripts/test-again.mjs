// `npm run test:again -- [--times 20] [--busy 2] e2e/planned.spec.ts [-g "on the instant"]`: runs tests again and again while other work
// slows the processor down, and says how often they passed. What fails once in twenty runs fails in every second whole run.
import { spawn, spawnSync } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';

process.chdir(join(dirname(fileURLToPath(import.meta.url)), '..'));
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    times: { type: 'string', default: '20' },
    busy: { type: 'string', default: '2' },
    grep: { type: 'string', short: 'g' },
  },
});
const [times, busy] = [Number(values.times), Number(values.busy)];
if (positionals.length === 0 || !(times >= 1) || !(busy >= 0)) {
  console.error('Name the test files, e.g. npm run test:again -- --times 20 e2e/planned.spec.ts -g "on the instant"');
  process.exit(2);
}

const isWalk = positionals.every((file) => file.startsWith('e2e/'));
const args = isWalk
  ? ['playwright', 'test', ...positionals, ...(values.grep ? ['-g', values.grep] : [])]
  : ['jest', ...positionals, ...(values.grep ? ['-t', values.grep] : [])];

/** Other work: each takes what it can of a processor, and ends with this program, or after two hours. */
const LOAD =
  'const end = Date.now() + 7_200_000, parent = process.ppid; while (Date.now() < end && process.ppid === parent);';
const load = Array.from({ length: busy }, () => spawn(process.execPath, ['-e', LOAD], { stdio: 'ignore' }));

let passed = 0;
for (let time = 1; time <= times; time++) {
  const { status } = spawnSync('npx', args, {
    stdio: ['ignore', 'inherit', 'inherit'],
    // The sample network is made once, and copied for each run.
    env: { ...process.env, LANTERNPOST_TEST_CLUSTER: '1', LANTERNPOST_KEEP_TEMPLATE: time > 1 ? '1' : '' },
  });
  if (status === 0) passed++;
  console.log(`\n${time} of ${times}: ${passed} passed, ${time - passed} failed`);
}
for (const one of load) one.kill();
process.exit(passed === times ? 0 : 1);
