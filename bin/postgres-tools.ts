import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { postgresPrograms } from '../scripts/cluster.mjs';

const run = promisify(execFile);

/**
 * Runs one of PostgreSQL's own programs for a database by its address. The password is passed in the environment, because every account
 * of this machine can see a command's arguments. Throws with what the program says.
 */
export async function postgresTool(
  program: 'pg_dump' | 'pg_restore',
  url: string,
  args: readonly string[],
): Promise<void> {
  const { username, password, hostname, port, pathname, searchParams } = new URL(url);
  const folder = postgresPrograms();
  try {
    await run(folder ? join(folder, program) : program, [...args], {
      env: {
        ...process.env,
        ...{ PGUSER: decodeURIComponent(username), PGPASSWORD: decodeURIComponent(password), PGHOST: hostname },
        ...{ PGPORT: port || '5432', PGDATABASE: decodeURIComponent(pathname.slice(1)), LC_ALL: 'C.UTF-8' },
        ...(searchParams.get('sslmode') ? { PGSSLMODE: searchParams.get('sslmode') ?? '' } : {}),
      },
      maxBuffer: 16 * 2 ** 20,
    });
  } catch (error) {
    const { code, stderr = '' } = error as { code?: unknown; stderr?: string };
    if (code === 'ENOENT')
      throw new Error(`${program} is missing: install PostgreSQL’s client programs (Debian: postgresql-client).`);
    throw new Error(`${program} failed: ${stderr.trim() || String(error)}`);
  }
}
