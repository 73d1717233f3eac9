import { execFile, spawn, spawnSync, type ChildProcess, type SpawnOptions } from 'node:child_process';
import { copyFile, link, mkdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { config } from '@/config';
import { absent, incomingPath } from '../store';

/**
 * Programs that read files of strangers: each in a process of its own, whose memory and processor time end somewhere, without network,
 * and with nothing of this process's environment. A program sees the one file that it reads in an otherwise empty folder, and where the
 * system allows it nothing else of our data: so a file that names other files, by whatever path, gets nothing from them.
 */

export interface Limits {
  readonly memoryBytes: number;
  readonly cpuSeconds: number;
  /** The largest file that may be written, in bytes. */
  readonly fileBytes: number;
}

const LIMITS: Limits = { memoryBytes: 4 * 2 ** 30, cpuSeconds: 3600, fileBytes: 16 * 2 ** 30 };

/** What the file that a program reads is called in its folder. */
export const SENT = 'sent';

/** Where the folder appears to the program: over the place where programs keep temporary files, which so is its own too. */
const PLACE = '/tmp';

/** Makes $1 the folder at $2, and hides our data folder $3; then runs the rest of its words there. */
const ENTER = `mount --bind "$1" ${PLACE} && cd ${PLACE} && { [ ! -d "$2" ] || mount -t tmpfs none "$2"; } && shift 2 && exec "$@"`;
const entering = (room: string, hidden: string) => ['sh', '-c', ENTER, 'sh', room, hidden];

/** The first of some ways that work here: what root may, what a user may in a namespace of their own, or what is left. */
const firstThatRuns = (ways: readonly (readonly string[])[], then: readonly string[]): readonly string[] =>
  ways.find(
    ([program = '', ...args]) =>
      spawnSync(/* turbopackIgnore: true */ program, [...args, ...then], { stdio: 'ignore' }).status === 0,
  ) ?? [];

/** How a process is cut off from the network here; not at all where the system forbids it. */
let cutOff: readonly string[] | null = null;
const withoutNetwork = () =>
  (cutOff ??= firstThatRuns(
    [
      ['unshare', '--net', '--'],
      ['unshare', '--map-root-user', '--net', '--'],
    ],
    ['true'],
  ));

/** The same for a process that sees a folder of its own; empty where the system forbids that. */
let enclosed: readonly string[] | null = null;
const enclosing = () =>
  (enclosed ??= firstThatRuns(
    [
      ['unshare', '--net', '--mount', '--'],
      ['unshare', '--map-root-user', '--net', '--mount', '--'],
    ],
    [...entering('/var', '/nowhere'), 'true'],
  ));

/** What is run, and with what words. */
function confined(
  program: string,
  args: readonly string[],
  limits: Partial<Limits>,
  room: string | null = null,
): [string, string[]] {
  const { memoryBytes, cpuSeconds, fileBytes } = { ...LIMITS, ...limits };
  const apart = room === null ? [] : enclosing();
  const way = room !== null && apart.length > 0 ? [...apart, ...entering(room, config().dataFolder)] : withoutNetwork();
  return [
    'nice',
    [
      ...['-n', String(config().filePriority), 'prlimit'],
      ...[`--as=${memoryBytes}`, `--cpu=${cpuSeconds}`, `--fsize=${fileBytes}`, '--core=0', '--'],
      ...[...way, program, ...args],
    ],
  ];
}

const environment = (): NodeJS.ProcessEnv => ({
  ...{ NODE_ENV: process.env.NODE_ENV, PATH: process.env.PATH, HOME: process.env.HOME, LANG: 'C.UTF-8' },
  ...(process.env.TMPDIR === undefined ? {} : { TMPDIR: process.env.TMPDIR }),
});
const environmentOfRoom = (): NodeJS.ProcessEnv => ({ ...environment(), HOME: '.', TMPDIR: '.' });

/** What a program is given to read, and where what it makes is to be moved once it ended well: by its name in the folder. */
export interface Given {
  /** Path of the file that it finds as `SENT`. */
  readonly reads: string;
  readonly makes?: { readonly name: string; readonly to: string };
}

/** Makes a folder with the one file in it, lets `work` use it, and removes it. */
export async function inRoom<T>({ reads, makes }: Given, work: (room: string) => Promise<T>): Promise<T> {
  const room = await incomingPath();
  await mkdir(room, { mode: 0o700 });
  try {
    await link(reads, join(room, SENT)).catch(() => copyFile(reads, join(room, SENT)));
    const result = await work(room);
    // A program that failed has made nothing: its caller knows from how it ended.
    if (makes) await rename(join(room, makes.name), makes.to).catch(absent(undefined));
    return result;
  } finally {
    await rm(room, { recursive: true, force: true });
  }
}

const run = promisify(execFile);
const WITHIN_MS = 60_000;

/** Runs a program on a file that was sent to us, for at most a minute unless given otherwise. Throws if it fails. */
export function runTool(
  program: string,
  args: readonly string[],
  { reads, makes, withinMs = WITHIN_MS, ...limits }: Partial<Limits> & Given & { readonly withinMs?: number },
): Promise<{ stdout: string; stderr: string }> {
  return inRoom({ reads, ...(makes ? { makes } : {}) }, (room) => {
    const [command, all] = confined(program, args, limits, room);
    return run(/* turbopackIgnore: true */ command, all, {
      ...{ timeout: withinMs, killSignal: 'SIGKILL', maxBuffer: 16 * 2 ** 20, env: environmentOfRoom(), cwd: room },
    });
  });
}

/** Starts a program that keeps running, in a folder of its own if there is one. */
export function startTool(
  program: string,
  args: readonly string[],
  stdio: NonNullable<SpawnOptions['stdio']>,
  { room, ...limits }: Partial<Limits> & { readonly room?: string } = {},
): ChildProcess {
  const [command, all] = confined(program, args, limits, room ?? null);
  return spawn(/* turbopackIgnore: true */ command, all, {
    ...{ stdio, env: room === undefined ? environment() : environmentOfRoom() },
    ...(room === undefined ? {} : { cwd: room }),
  });
}
