import { execFile, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Family } from './family';
import { holdFolder } from './only-one';

jest.setTimeout(60_000);

const folder = mkdtempSync(join(tmpdir(), 'lanternpost-family-'));
const families: Family[] = [];
const family = (silentSeconds: number, endWithinMs?: number) => {
  const made = new Family(silentSeconds, endWithinMs);
  families.push(made);
  return made;
};
beforeEach(() => jest.spyOn(console, 'error').mockImplementation(() => undefined));
afterEach(async () => {
  await Promise.all(families.splice(0).map((one) => one.stop()));
  jest.restoreAllMocks();
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A program that writes its process id into a file, and then does as it is told. */
const program = (file: string, then: string) => [
  '-e',
  `require('fs').appendFileSync(${JSON.stringify(file)}, process.pid + '\\n'); ${then}`,
];
const pids = (file: string) => {
  try {
    return readFileSync(file, 'utf8').trim().split('\n').map(Number);
  } catch {
    return [];
  }
};
const runs = (pid: number) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

async function until(look: () => boolean): Promise<void> {
  for (let tries = 0; tries < 400; tries++) {
    if (look()) return;
    await new Promise((done) => setTimeout(done, 50));
  }
  throw new Error('it never came to hold');
}

test('what ends by itself is started again, in the environment as it is by then; what is to end stays so', async () => {
  const file = join(folder, 'ends');
  const one = family(30);
  process.env.LANTERNPOST_TEST_WORD = 'before';
  const then = `require('fs').appendFileSync(${JSON.stringify(`${file}.words`)}, process.env.LANTERNPOST_TEST_WORD + ' '); setTimeout(() => undefined, 60000)`;
  one.start('worker', program(file, then));
  await until(() => pids(file).length === 1);
  process.env.LANTERNPOST_TEST_WORD = 'after';
  one.restart();
  await until(() => pids(file).length === 2);
  await until(() => readFileSync(`${file}.words`, 'utf8') === 'before after ');
  await one.stop();
  expect(pids(file).map(runs)).toEqual([false, false]);
  one.start('worker', program(file, ''));
  expect(pids(file)).toHaveLength(2);
});

test('asked to start again, all do: what ends well too, and what does not end by itself', async () => {
  const [fleet, deaf] = [join(folder, 'fleet'), join(folder, 'deaf')];
  const one = family(30, 300);
  one.start('fleet', program(fleet, "process.on('SIGTERM', () => process.exit(0)); setInterval(() => undefined, 100)"));
  one.start('worker', program(deaf, "process.on('SIGTERM', () => undefined); setInterval(() => undefined, 100)"));
  await until(() => pids(fleet).length === 1 && pids(deaf).length === 1);
  one.restart();
  await until(() => pids(fleet).length === 2 && pids(deaf).length === 2);
  expect([pids(fleet)[0], pids(deaf)[0]].map((pid) => runs(pid ?? 0))).toEqual([false, false]);
});

test('what hangs is ended and started again; what only works on is left alone', async () => {
  const [hangs, works] = [join(folder, 'hangs'), join(folder, 'works')];
  const one = family(3);
  one.start('gateway', program(works, 'setInterval(() => undefined, 100)'));
  one.start('worker', program(hangs, 'setTimeout(() => { for (;;); }, 200)'));
  await until(() => pids(hangs).length === 2);
  expect(runs(pids(hangs)[0] ?? 0)).toBe(false);
  expect(pids(works)).toHaveLength(1);
});

test('children end with their parent, also where it is killed', async () => {
  const file = join(folder, 'orphan');
  const child = program(file, 'setInterval(() => undefined, 100)');
  const parent = spawn(process.execPath, [
    '-e',
    `require('child_process').spawn(process.execPath, ['--import', '${join(process.cwd(), 'scripts/end-with-parent.mjs')}', ...${JSON.stringify(child)}], {
       env: { ...process.env, LANTERNPOST_PARENT: String(process.pid) }, stdio: ['ignore', 'ignore', 'ignore', 'pipe'] })`,
  ]);
  await until(() => pids(file).length === 1);
  // It is in its loop by then: its pipe is open.
  await new Promise((done) => execFile(process.execPath, ['-e', ''], done));
  parent.kill('SIGKILL');
  await until(() => !runs(pids(file)[0] ?? 0));
});

test('a data folder is held by one process: another is told, and a socket that was left behind is no hindrance', async () => {
  const held = await holdFolder(folder);
  await expect(holdFolder(folder)).rejects.toThrow(`Lanternpost is already running on ${folder}.`);
  await new Promise((done) => held.close(done));
  const killed = spawn(process.execPath, [
    '-e',
    `require('net').createServer().listen(${JSON.stringify(join(folder, 'running.sock'))}, () => process.kill(process.pid, 'SIGKILL'))`,
  ]);
  await new Promise((done) => killed.once('exit', done));
  const again = await holdFolder(folder);
  await new Promise((done) => again.close(done));
});
