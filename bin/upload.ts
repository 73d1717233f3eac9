import { LibraryClient, type Sent } from './library-client';
import { optionsAndNames, type Command } from './options';
import { cannot, orRefuse } from './plan-file';

const usage = `upload FILES… --server URL [--tags TAG,TAG] [--json]
       Sends files into the library by a personal key, which stands in LANTERNPOST_KEY (or --key): made under People. Waits until
       each is in, and tells what became of it; exits 1 where one was refused.
       --tags   for all of them
       --json   one object a line: file, became (in, known, refused), said`;

/** So many are on their way at once. */
const AT_ONCE = 3;

export const SERVER_OPTIONS = {
  server: { type: 'string' },
  key: { type: 'string' },
  tags: { type: 'string' },
} as const;

/** The client that options speak of. Throws Refusal where one is missing. */
export function clientOf(given: { readonly server?: string; readonly key?: string }, patient: boolean): LibraryClient {
  const key = given.key ?? process.env.LANTERNPOST_KEY;
  if (!given.server || !URL.canParse(given.server))
    throw cannot('/server', 'Name the server by its address, as --server https://lamps.example.');
  if (!key) throw cannot('/key', 'A personal key is needed: make one under People, and give it as LANTERNPOST_KEY.');
  return new LibraryClient(given.server, key, patient);
}

export const tagsIn = (text: string | undefined): string[] =>
  (text ?? '').split(',').flatMap((tag) => (tag.trim() === '' ? [] : [tag.trim()]));

/** What became of a file, in one line. */
export const line = ({ file, became, said }: Sent): string => {
  switch (became) {
    case 'in':
      return `${file}: in the library as "${said}"`;
    case 'known':
      return `${file}: the library has it already, as "${said}"`;
    case 'refused':
      return `${file}: ${said}`;
  }
};

export const command: Command = {
  usage,
  async run(args) {
    const { values: given, positionals: files } = optionsAndNames(
      args,
      { ...SERVER_OPTIONS, json: { type: 'boolean' } },
      usage,
    );
    if (files.length === 0) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    return orRefuse(async () => {
      const client = clientOf(given, false);
      await client.check();
      const batch = client.newBatch();
      const tags = tagsIn(given.tags);
      const results: Sent[] = [];
      const queue = [...files];
      const work = async () => {
        for (let file = queue.shift(); file !== undefined; file = queue.shift()) {
          const sent = await client.send(file, batch);
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
