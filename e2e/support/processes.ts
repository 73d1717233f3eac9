import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { server } from './session';

/** The process id of a child by its program; 0 while there is none. */
export function childOf(parent: number | string, program: string): number {
  const lines = execFileSync('ps', ['-o', 'pid=,ppid=,args=', '-A'], { encoding: 'utf8' }).split('\n');
  const fields = lines.map((line) => line.trim().split(/\s+/));
  const found = fields.find(([, ppid, ...args]) => ppid === String(parent) && args.join(' ').includes(program));
  return Number(found?.[0] ?? 0);
}

const ours = (program: string) => childOf(process.env.LANTERNPOST_PID ?? '', `lanternpost.mjs ${program}`);

/** The processes that the instance runs now, by their ids; beside the web server one compiles, and one does what is urgent. */
export const webPid = () => ours('web');
export const gatewayPid = () => ours('gateway');
export const workerPid = () => ours('worker');
export const thinkPid = () => childOf(webPid(), 'lanternpost.mjs think usual');
export const urgentPid = () => childOf(webPid(), 'lanternpost.mjs think urgent');

/** What PostgreSQL writes of itself: its process first, its port as the fourth; nothing while it is away. */
export function postmasterFile(): string[] {
  try {
    return readFileSync(join(process.env.LANTERNPOST_E2E_DATA ?? '', 'postgres/postmaster.pid'), 'utf8').split('\n');
  } catch {
    return [];
  }
}

/** Sends a signal, also to a process that has just ended by itself. */
function signal(pid: number, name: 'SIGSTOP' | 'SIGKILL'): void {
  try {
    process.kill(pid, name);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ESRCH') throw error;
  }
}

/** Kills PostgreSQL hard, with all that it runs, as a cut of power does: one alone could still end what it was about. */
export function killPostgres(): void {
  const postmaster = Number(postmasterFile()[0]);
  // Stopped first: from here on it starts nothing new, and none sees another end.
  process.kill(postmaster, 'SIGSTOP');
  const lines = execFileSync('ps', ['-o', 'pid=,ppid=', '-A'], { encoding: 'utf8' }).split('\n');
  const children = lines.flatMap((line) => {
    const [pid, parent] = line.trim().split(/\s+/).map(Number);
    return pid && parent === postmaster ? [pid] : [];
  });
  for (const pid of children) signal(pid, 'SIGSTOP');
  for (const pid of [postmaster, ...children]) signal(pid, 'SIGKILL');
}

/** Until the web server answers, from what is in the database. */
export async function answersAgain(page: Page): Promise<void> {
  await expect
    .poll(
      () =>
        page.request.get(server('/api/planned'), { timeout: 2000 }).then(
          (response) => response.status(),
          () => 0,
        ),
      { timeout: 60_000 },
    )
    .toBe(200);
}
