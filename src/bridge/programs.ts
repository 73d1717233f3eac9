import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { delimiter, join } from 'node:path';

/** What the bridge uses of its machine: Debian's programs and the kernel's files. Tests have a machine of their own. */
export interface Machine {
  /** Whether a program is installed. */
  has(program: string): boolean;
  /** Runs a program, and gives what it writes. Throws if it fails or takes too long. */
  run(program: string, args: readonly string[]): Promise<Buffer>;
  /** The text of a file; null if there is none, or it can't be read. */
  read(path: string): Promise<string | null>;
  exists(path: string): boolean;
}

/** A display's own bus is slow, and a program that waits for a display that is gone never ends. */
const PATIENCE_MS = 10_000;
const MOST_BYTES = 2 ** 25;

export const thisMachine: Machine = {
  has: (program) => (process.env.PATH ?? '').split(delimiter).some((folder) => existsSync(join(folder, program))),
  run: (program, args) =>
    new Promise((done, failed) => {
      execFile(
        program,
        [...args],
        { encoding: 'buffer', timeout: PATIENCE_MS, maxBuffer: MOST_BYTES },
        (error, output) => (error ? failed(error) : done(output)),
      );
    }),
  read: (path) => readFile(path, 'utf8').catch(() => null),
  exists: existsSync,
};
