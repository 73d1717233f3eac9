import { execFileSync } from 'node:child_process';

/** The process id of a child by its program; 0 while there is none. */
export function childOf(parent: number | string, program: string): number {
  const lines = execFileSync('ps', ['-o', 'pid=,ppid=,args=', '-A'], { encoding: 'utf8' }).split('\n');
  const fields = lines.map((line) => line.trim().split(/\s+/));
  const found = fields.find(([, ppid, ...args]) => ppid === String(parent) && args.join(' ').includes(program));
  return Number(found?.[0] ?? 0);
}
