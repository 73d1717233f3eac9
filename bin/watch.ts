import { watch } from 'chokidar';
import { mkdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { basename, join, relative, resolve } from 'node:path';
import { optionsAndNames, type Command } from './options';
import { cannot, orRefuse } from './plan-file';
import { SERVER_OPTIONS } from './server-client';
import { libraryOf, line, tagsIn } from './upload';

const usage = `watch FOLDER --server URL [--tags TAG,TAG] [--state FILE]
       Sends every file of a folder to the library, and every file that is added later, until you stop it. If the connection breaks, it
       waits and goes on. A file that changes becomes a new version of the one in the library. What was sent is kept in
       FOLDER/.lanternpost/sent.json, or in the state file. The personal key is read from LANTERNPOST_KEY, or given as --key. Create one under People.`;

/** A file is whole when it has not grown for so long. */
const STILL_MS = 1000;

/** What was refused for another reason than itself is sent again after so long. */
const AGAIN_MS = 60_000;

/** What was sent: its size and time, so that what changed since is sent again, and its id in the library, whose new version that is. */
interface SentBefore {
  readonly mark: string;
  readonly media?: string | undefined;
}

/** What was sent, by its path in the folder. */
class Remembered {
  private readonly known: Record<string, SentBefore>;

  constructor(private readonly path: string) {
    this.known = read(path);
  }

  of = (name: string): SentBefore | undefined => this.known[name];

  add(name: string, sent: SentBefore): void {
    this.known[name] = sent;
    mkdirSync(resolve(this.path, '..'), { recursive: true });
    // Whole or not at all, whenever this is ended.
    writeFileSync(`${this.path}.new`, JSON.stringify(this.known, null, 1));
    renameSync(`${this.path}.new`, this.path);
  }
}

function read(path: string): Record<string, SentBefore> {
  try {
    const known = JSON.parse(readFileSync(path, 'utf8')) as Record<string, SentBefore | string>;
    return Object.fromEntries(
      Object.entries(known).map(([name, sent]) => [name, typeof sent === 'string' ? { mark: sent } : sent]),
    );
  } catch {
    return {};
  }
}

const isFolder = (path: string) => statSync(path, { throwIfNoEntry: false })?.isDirectory() ?? false;

export const command: Command = {
  usage,
  async run(args) {
    const { values: given, positionals } = optionsAndNames(
      args,
      { ...SERVER_OPTIONS, tags: { type: 'string' }, state: { type: 'string' } },
      usage,
    );
    const [folder] = positionals;
    if (folder === undefined || positionals.length > 1) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    const failed = await orRefuse(async () => {
      if (!isFolder(folder)) throw cannot('', `There’s no folder ${folder}. Check its name.`);
      const client = libraryOf(given, true);
      await client.check();
      const sent = new Remembered(given.state ?? join(folder, '.lanternpost', 'sent.json'));
      const tags = tagsIn(given.tags);
      // One after the other, in the order in which they came.
      let turn = Promise.resolve();
      const take = (path: string) => {
        turn = turn
          .then(async () => {
            const stats = statSync(path, { throwIfNoEntry: false });
            if (!stats || isOver) return;
            const [name, mark] = [relative(folder, path), `${stats.size} ${stats.mtimeMs}`];
            const before = sent.of(name);
            if (before?.mark === mark) return;
            const batch = client.newBatch();
            const version = before?.media === undefined ? null : await client.sendFile(path, batch, before.media);
            // What it was is no longer in the library: then it is a new file.
            const result = version === null || version.status === 404 ? await client.sendFile(path, batch) : version;
            if (result.status === 401 || result.status === 403) return endedKey(result.said);
            if (result.became !== 'refused' && tags.length > 0) await client.describe(batch, tags);
            // What was refused for another reason than itself, as a full library, is sent again later.
            if (result.became !== 'refused' || result.final)
              sent.add(name, { mark, media: result.media ?? before?.media });
            else setTimeout(() => take(path), AGAIN_MS);
            (result.became === 'refused' ? console.error : console.log)(line({ ...result, file: name }));
          })
          .catch((error: unknown) =>
            console.error(`${path}: ${error instanceof Error ? error.message : String(error)}`),
          );
      };
      /** The key has ended, so nothing more can be sent: this is said once, and the watch ends. */
      let isOver = false;
      const endedKey = (said: string) => {
        isOver = true;
        console.error(said);
        void watcher.close().then(() => process.exit(1));
      };
      const watcher = watch(folder, {
        ignored: (path) => path !== folder && basename(path).startsWith('.'),
        awaitWriteFinish: { stabilityThreshold: STILL_MS, pollInterval: 100 },
      });
      watcher.on('add', take).on('change', take);
      await new Promise<void>((ready) => watcher.once('ready', () => ready()));
      console.log(`Watching ${folder}. New files are sent to the library of ${given.server}.`);
      for (const signal of ['SIGINT', 'SIGTERM'] as const)
        process.once(signal, () => void watcher.close().then(() => process.exit(0)));
      return 0;
    });
    return failed === 0 ? undefined : failed;
  },
};
