import { LibraryClient, type Sent } from './library-client';
import { optionsAndNames, type Command } from './options';
import { orRefuse } from './plan-file';
import { SERVER_OPTIONS, serverOf } from './server-client';

const usage = `upload FILES… --server URL [--tags TAG,TAG] [--json]
       Sends files to the library. Waits until each is processed, and prints whether it was added. Exits 1 if a file was refused.
       The personal key is read from LANTERNPOST_KEY, or given as --key. Create one under People.
       --tags   tags for all of these files
       --json   one object a line: file, became (in, known, refused), said`;

/** So many are on their way at once. */
const AT_ONCE = 3;

/** The library of the server that the options name. Throws Refusal if either is missing. */
export const libraryOf = (given: Parameters<typeof serverOf>[0], patient: boolean): LibraryClient =>
  new LibraryClient(...serverOf(given), patient);

export const tagsIn = (text: string | undefined): string[] =>
  (text ?? '').split(',').flatMap((tag) => (tag.trim() === '' ? [] : [tag.trim()]));

/** What became of a file, in one line. */
export const line = ({ file, became, said }: Sent): string => {
  switch (became) {
    case 'in':
      return `${file}: in the library as “${said}”`;
    case 'known':
      return `${file}: the library has it already, as “${said}”`;
    case 'refused':
      return `${file}: ${said}`;
  }
};

export const command: Command = {
  usage,
  async run(args) {
    const { values: given, positionals: files } = optionsAndNames(
      args,
      { ...SERVER_OPTIONS, tags: { type: 'string' }, json: { type: 'boolean' } },
      usage,
    );
    if (files.length === 0) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    return orRefuse(async () => {
      const client = libraryOf(given, false);
      await client.check();
      const batch = client.newBatch();
      const tags = tagsIn(given.tags);
      const results: Sent[] = [];
      const queue = [...files];
      const work = async () => {
        for (let file = queue.shift(); file !== undefined; file = queue.shift()) {
          const sent = await client.sendFile(file, batch);
          results.push(sent);
          const told = given.json ? JSON.stringify(sent) : line(sent);
          if (sent.became === 'refused' && !given.json) console.error(told);
          else console.log(told);
        }
      };
      await Promise.all(Array.from({ length: AT_ONCE }, work));
      if (tags.length > 0 && results.some(({ became }) => became !== 'refused')) await client.describe(batch, tags);
      return results.some(({ became }) => became === 'refused') ? 1 : 0;
    });
  },
};
