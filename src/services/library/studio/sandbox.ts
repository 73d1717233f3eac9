import { execFile, spawn, spawnSync, type ChildProcess, type SpawnOptions } from 'node:child_process';
import { promisify } from 'node:util';

/**
 * Programs that read files of strangers: each in a process of its own, whose memory and processor time end somewhere, without network,
 * and with nothing of this process's environment. One file's failure is never another's.
 */

export interface Limits {
  readonly memoryBytes: number;
  readonly cpuSeconds: number;
  /** The largest file that may be written, in bytes. */
  readonly fileBytes: number;
}

const LIMITS: Limits = { memoryBytes: 4 * 2 ** 30, cpuSeconds: 3600, fileBytes: 16 * 2 ** 30 };

/** How a process is cut off the network here: as root, else in a user's own namespace; not at all where the system forbids it. */
let cutOff: readonly string[] | null = null;
function withoutNetwork(): readonly string[] {
  cutOff ??=
    [
      ['unshare', '--net', '--'],
      ['unshare', '--map-root-user', '--net', '--'],
    ].find(
      ([program = '', ...args]) =>
        spawnSync(/* turbopackIgnore: true */ program, [...args, 'true'], { stdio: 'ignore' }).status === 0,
    ) ?? [];
  return cutOff;
}

/** What is run, and with what words. */
function confined(program: string, args: readonly string[], limits: Partial<Limits>): [string, string[]] {
  const { memoryBytes, cpuSeconds, fileBytes } = { ...LIMITS, ...limits };
  return [
    'prlimit',
    [
      ...[`--as=${memoryBytes}`, `--cpu=${cpuSeconds}`, `--fsize=${fileBytes}`, '--core=0', '--'],
      ...[...withoutNetwork(), program, ...args],
    ],
  ];
}

const environment = (): NodeJS.ProcessEnv => ({
  ...{ NODE_ENV: process.env.NODE_ENV, PATH: process.env.PATH, HOME: process.env.HOME, LANG: 'C.UTF-8' },
  ...(process.env.TMPDIR === undefined ? {} : { TMPDIR: process.env.TMPDIR }),
});

const run = promisify(execFile);
const WITHIN_MS = 60_000;

/** Runs a program to its end, within a minute unless said otherwise. Throws where it fails. */
export function runTool(
  program: string,
  args: readonly string[],
  {
    withinMs = WITHIN_MS,
    cwd,
    ...limits
  }: Partial<Limits> & { readonly withinMs?: number; readonly cwd?: string } = {},
): Promise<{ stdout: string; stderr: string }> {
  const [command, all] = confined(program, args, limits);
  return run(/* turbopackIgnore: true */ command, all, {
    ...{ timeout: withinMs, killSignal: 'SIGKILL', maxBuffer: 16 * 2 ** 20, env: environment() },
    ...(cwd === undefined ? {} : { cwd }),
  });
}

/** Starts a program that goes on. */
export function startTool(
  program: string,
  args: readonly string[],
  stdio: NonNullable<SpawnOptions['stdio']>,
  limits: Partial<Limits> = {},
): ChildProcess {
  const [command, all] = confined(program, args, limits);
  return spawn(/* turbopackIgnore: true */ command, all, { stdio, env: environment() });
}
