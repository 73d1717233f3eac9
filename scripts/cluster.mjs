// A private PostgreSQL server in a folder of ours, on loopback, on a port of its own. Plain Node: needed before `npm ci`.
import { execFileSync } from 'node:child_process';
import { chmodSync, chownSync, existsSync, mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { tmpdir } from 'node:os';

const ROOT = '/usr/lib/postgresql';
const asRoot = process.getuid?.() === 0;

/** Folder of the newest PostgreSQL server's programs, or null. */
export function postgresPrograms() {
  if (!existsSync(ROOT)) return null;
  const versions = readdirSync(ROOT).filter((v) => existsSync(join(ROOT, v, 'bin/postgres')));
  versions.sort((a, b) => Number(b) - Number(a));
  return versions[0] ? join(ROOT, versions[0], 'bin') : null;
}

/** `wanted` where it is free on loopback, else one that is. */
export async function freePort(wanted) {
  const attempt = (port) =>
    new Promise((resolve) => {
      const server = createServer();
      server.once('error', () => resolve(null));
      server.listen(port, '127.0.0.1', () => {
        const { port: got } = server.address();
        server.close(() => resolve(got));
      });
    });
  return (await attempt(wanted)) ?? (await attempt(0));
}

const ids = () => {
  const [, , uid, gid] = execFileSync('getent', ['passwd', 'postgres'], { encoding: 'utf8' }).split(':');
  return { uid: Number(uid), gid: Number(gid) };
};
/** PostgreSQL refuses to run as root: then it runs as Debian's postgres user. */
const identity = () => (asRoot ? ids() : {});

const canEnter = (folder) => {
  if (!asRoot) return true;
  try {
    execFileSync('test', ['-x', folder], { ...identity(), stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
};

/**
 * Starts the cluster in `folder`, making it first where there is none, and returns { url, port, stop, pid }. A cluster that
 * an earlier, killed start left running is taken over. Where the postgres user can't enter the folder (a home of root's),
 * the cluster lies under /var/tmp instead, in a folder named after the wanted one.
 */
export async function startCluster(folder, wantedPort = 54_610) {
  const programs = postgresPrograms();
  if (!programs) throw new Error('PostgreSQL is missing: install the package "postgresql".');
  mkdirSync(dirname(folder), { recursive: true });
  if (!canEnter(dirname(folder)))
    folder = join('/var/tmp', `lanternpost-${createHash('sha256').update(folder).digest('hex').slice(0, 12)}`);
  const run = (program, args) =>
    execFileSync(join(programs, program), args, {
      ...identity(),
      cwd: '/',
      stdio: ['ignore', 'pipe', 'pipe'],
      encoding: 'utf8',
      env: { ...process.env, LC_ALL: 'C.UTF-8' },
    });

  if (!existsSync(join(folder, 'PG_VERSION'))) {
    rmSync(folder, { recursive: true, force: true });
    mkdirSync(folder, { recursive: true });
    if (asRoot) chownSync(folder, ids().uid, ids().gid);
    chmodSync(folder, 0o700);
    run('initdb', [
      '-D',
      folder,
      '-U',
      'lanternpost',
      '--auth=trust',
      '--encoding=UTF8',
      '--locale=C.UTF-8',
      '--no-sync',
    ]);
  }
  const pidFile = join(folder, 'postmaster.pid');
  const running = () => {
    try {
      const [pid, , , port] = readFileSync(pidFile, 'utf8').split('\n');
      process.kill(Number(pid), 0);
      return { pid: Number(pid), port: Number(port) };
    } catch {
      return null;
    }
  };
  let server = running();
  if (!server) {
    rmSync(pidFile, { force: true });
    const port = await freePort(wantedPort);
    const log = join(folder, 'server.log');
    run('pg_ctl', [
      '-D',
      folder,
      '-w',
      '-t',
      '60',
      '-l',
      log,
      '-o',
      `-p ${port} -h 127.0.0.1 -k ${tmpdir()} -c max_connections=200`,
      'start',
    ]);
    server = running();
  }
  const url = (name) => `postgres://lanternpost@127.0.0.1:${server.port}/${name}`;
  try {
    run('createdb', ['-h', '127.0.0.1', '-p', String(server.port), '-U', 'lanternpost', 'lanternpost']);
  } catch (error) {
    if (!String(error.stderr).includes('already exists')) throw error;
  }
  return {
    url: url('lanternpost'),
    urlOf: url,
    port: server.port,
    pid: server.pid,
    folder,
    createDatabase: (name) =>
      void run('createdb', ['-h', '127.0.0.1', '-p', String(server.port), '-U', 'lanternpost', name]),
    stop: () => void run('pg_ctl', ['-D', folder, '-m', 'fast', '-w', 'stop']),
  };
}

// `node scripts/cluster.mjs FOLDER` starts one, prints its address, and leaves it running.
if (process.argv[1]?.endsWith('cluster.mjs')) {
  const cluster = await startCluster(process.argv[2]);
  console.log(cluster.url);
}
