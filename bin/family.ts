import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { dirname, resolve } from 'node:path';
import type { Duplex } from 'node:stream';

/** Simulated players: they may end by themselves. */
const PLAYERS: ReadonlySet<string> = new Set(['fleet', 'box']);
/** What these say to people on the command line is of no use here. */
const QUIET: ReadonlySet<string> = new Set(['web', ...PLAYERS]);

const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');

/** A child tells every second that it is alive; so many seconds of ours without a word, and it hangs. */
const SILENT_SECONDS = 30;
const TICK_MS = 1000;
const AGAIN_MS = 1000;
/** How long a child may take to end when it is asked to. */
const END_WITHIN_MS = 6000;

/** glibc keeps freed memory by thread: a pool for each of Node's many costs more than it gives. */
const SPARING = { MALLOC_ARENA_MAX: '2' };

interface Member {
  readonly child: ChildProcess;
  silent: number;
  /** Whether it is to start again whatever it ends with. */
  again: boolean;
}

/**
 * The processes that this one started: each is started again when it ends by itself or hangs, and all end with this one, also when
 * this one is killed (`scripts/end-with-parent.mjs`).
 */
export class Family {
  private readonly members = new Map<string, Member>();
  private stopping = false;
  private readonly watch = setInterval(() => this.look(), TICK_MS);

  constructor(
    private readonly silentSeconds = SILENT_SECONDS,
    private readonly endWithinMs = END_WITHIN_MS,
  ) {}

  /** Starts a program of Node's; its environment is that of this process, as it is at each start. */
  start(name: string, args: readonly string[], environment: Readonly<Record<string, string>> = {}): void {
    if (this.stopping) return;
    const child = spawn(process.execPath, ['--import', resolve(root, 'scripts/end-with-parent.mjs'), ...args], {
      cwd: root,
      env: {
        ...SPARING,
        ...process.env,
        NODE_ENV: 'production',
        LANTERNPOST_PARENT: String(process.pid),
        ...environment,
      },
      stdio: ['ignore', QUIET.has(name) ? 'ignore' : 'inherit', 'inherit', 'pipe'],
    });
    const member: Member = { child, silent: 0, again: false };
    this.members.set(name, member);
    const line = child.stdio[3] as Duplex;
    line.on('data', () => (member.silent = 0));
    // A broken line needs no handling: the child's exit follows.
    line.on('error', () => undefined);
    child.once('exit', (code) => {
      this.members.delete(name);
      if (this.stopping || (PLAYERS.has(name) && code === 0 && !member.again)) return;
      console.error(`${name} ended: it starts again`);
      setTimeout(() => !this.stopping && this.start(name, args, environment), AGAIN_MS);
    });
  }

  /** Has all start again, with the environment as it is now; what does not end when it is asked to is ended. */
  restart(): void {
    const members = [...this.members.values()];
    for (const member of members) {
      member.again = true;
      member.child.kill('SIGTERM');
    }
    // Children that have ended by then aren't there to receive the signal.
    setTimeout(() => members.forEach(({ child }) => child.kill('SIGKILL')), this.endWithinMs).unref();
  }

  /** Counts checks instead of measuring time: if the whole machine was suspended, no child is to blame. */
  private look(): void {
    for (const [name, member] of this.members) {
      if (++member.silent !== this.silentSeconds) continue;
      console.error(`${name} has not answered for ${this.silentSeconds} s: it is ended`);
      member.child.kill('SIGKILL');
    }
  }

  async stop(): Promise<void> {
    this.stopping = true;
    clearInterval(this.watch);
    const children = [...this.members.values()].map(({ child }) => child);
    const ended = Promise.all(children.map((child) => new Promise((done) => child.once('exit', done))));
    children.forEach((child) => child.kill('SIGTERM'));
    const late = setTimeout(() => children.forEach((child) => child.kill('SIGKILL')), this.endWithinMs);
    await ended;
    clearTimeout(late);
  }
}
