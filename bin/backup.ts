import { readdir, writeFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { config } from '@/config';
import { rows } from '@/database';
import { copyOut, privateFolder } from '@/services/library';
import { optionsAndNames, type Command } from './options';
import { cannot } from './plan-file';
import { postgresTool } from './postgres-tools';
import { withDatabase } from './with-database';

const usage = `backup FOLDER
       Writes the database and all stored files into a new folder. Works while Lanternpost runs.
       Environment: DATABASE_URL and LANTERNPOST_DATA, as for start. Exits 1 if a file is damaged or missing.`;

/** What a backup's folder holds. The last file is written when everything else is there. */
export const DUMP = 'database.dump';
export const FILES = 'files';
export const COMPLETE = 'backup.json';

export interface Backup {
  readonly format: 'lanternpost/backup';
  readonly madeAt: string;
  readonly files: number;
}

const listed = async () => (await rows<{ sha256: string }>('SELECT sha256 FROM files')).map(({ sha256 }) => sha256);

export const command: Command = {
  usage,
  async run(args) {
    const { positionals } = optionsAndNames(args, {}, usage);
    const [name] = positionals;
    if (name === undefined || positionals.length > 1) {
      console.error(`Name the folder that the backup goes into.\nUsage: lanternpost ${usage}`);
      return 2;
    }
    const folder = resolve(name);
    return withDatabase(async () => {
      const inside = await readdir(folder).catch(() => []);
      if (inside.length > 0) throw cannot('', `${folder} isn’t empty. Name a new folder.`);
      await privateFolder(join(folder, FILES));
      const madeAt = new Date().toISOString();
      // Files may come and go while the database is written: whatever it lists is asked for before and after.
      const before = await listed();
      await postgresTool('pg_dump', config().databaseUrl, [
        ...[
          '--format=custom',
          '--no-owner',
          '--no-privileges',
          '--no-comments',
          '--exclude-table-data=glimpses',
          `--file=${join(folder, DUMP)}`,
        ],
      ]);
      const wanted = [...new Set([...before, ...(await listed())])].sort();
      const missing: string[] = [];
      for (const sha256 of wanted) if (!(await copyOut(sha256, join(folder, FILES, sha256)))) missing.push(sha256);
      const complete: Backup = { format: 'lanternpost/backup', madeAt, files: wanted.length - missing.length };
      await writeFile(join(folder, COMPLETE), `${JSON.stringify(complete, null, 2)}\n`, { mode: 0o600 });
      console.log(`Backup of ${madeAt}: the database and ${complete.files} files, in ${folder}`);
      for (const sha256 of missing) console.error(`Damaged or missing in the store, so not in the backup: ${sha256}`);
      return missing.length > 0 ? 1 : 0;
    });
  },
};
