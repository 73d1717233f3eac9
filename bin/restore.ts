import { existsSync } from 'node:fs';
import { mkdir, readFile, readdir, rm, writeFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { startCluster } from '../scripts/cluster.mjs';
import { config } from '@/config';
import { closeDatabase, closeQueue, rows } from '@/database';
import { acceptPairing, closeFolders, copyIn } from '@/services/library';
import { COMPLETE, DUMP, FILES } from './backup';
import { prepareDatabase } from './migrate';
import { holdFolder } from './only-one';
import { optionsAndNames, type Command } from './options';
import { postgresTool } from './postgres-tools';

const usage = `restore FOLDER
       Puts a backup into an empty data folder (LANTERNPOST_DATA, or data) and its database: the folder’s own, or the empty one at
       DATABASE_URL. Stop Lanternpost first. Exits 1 if the backup lacks a file.`;

/** A file that is in the data folder until the restore has ended: `start` refuses a folder whose restore broke off. */
export const RESTORING = 'restoring';

/** Folders of a data folder that a restore fills: it does not write over what is there. */
const FILLED = ['media', 'postgres'];

export const command: Command = {
  usage,
  async run(args) {
    const { positionals } = optionsAndNames(args, {}, usage);
    const [name] = positionals;
    if (name === undefined || positionals.length > 1) {
      console.error(`Name the backup’s folder.\nUsage: lanternpost ${usage}`);
      return 2;
    }
    const backup = resolve(name);
    if (!existsSync(join(backup, COMPLETE)))
      throw new Error(
        `${backup} isn’t a complete backup: it has no ${COMPLETE}. Name a folder that \`lanternpost backup\` has written.`,
      );
    const data = resolve(process.env.LANTERNPOST_DATA ?? 'data');
    process.env.LANTERNPOST_DATA = data;
    await mkdir(data, { recursive: true });
    await holdFolder(data);
    for (const folder of FILLED)
      if ((await readdir(join(data, folder)).catch(() => [])).length > 0)
        throw new Error(
          `${data} already has a folder “${folder}”. Move it away, or name another folder in LANTERNPOST_DATA.`,
        );
    await writeFile(join(data, RESTORING), '');
    const cluster = process.env.DATABASE_URL ? null : await startCluster(join(data, 'postgres'));
    try {
      process.env.DATABASE_URL ||= cluster?.url;
      const [taken] = await rows<{ found: string | null }>(`SELECT to_regclass('public.networks')::text AS found`);
      if (taken?.found) throw new Error('The database at DATABASE_URL isn’t empty. Name an empty one.');
      await postgresTool('pg_restore', config().databaseUrl, [
        ...['--no-owner', '--no-privileges', '--exit-on-error', '--single-transaction'],
        ...[`--dbname=${new URL(config().databaseUrl).pathname.slice(1)}`, join(backup, DUMP)],
      ]);
      await closeFolders();
      const missing: string[] = [];
      const listed = await rows<{ sha256: string }>('SELECT sha256 FROM files ORDER BY sha256');
      for (const { sha256 } of listed) if (!(await copyIn(join(backup, FILES, sha256), sha256))) missing.push(sha256);
      await prepareDatabase();
      await acceptPairing();
      await rm(join(data, RESTORING));
      const { madeAt } = JSON.parse(await readFile(join(backup, COMPLETE), 'utf8')) as { madeAt: string };
      console.log(
        `Restored the backup of ${madeAt}: the database and ${listed.length - missing.length} files, into ${data}`,
      );
      for (const sha256 of missing) console.error(`Missing or damaged in the backup: ${sha256}`);
      if (missing.length > 0)
        console.error('Start Lanternpost, then upload these files again: the library names them.');
      return missing.length > 0 ? 1 : 0;
    } finally {
      await closeQueue();
      await closeDatabase();
      cluster?.stop();
    }
  },
};
