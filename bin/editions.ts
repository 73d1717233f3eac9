import { options, type Command } from './options';
import { orRefuse } from './plan-file';
import { SERVER_OPTIONS, ServerClient, serverOf } from './server-client';

const usage = `editions --server URL
       Lists what was published, the newest first, as a JSON array. Each edition has: number, publishedAt, person, note, again (the edition
       that was published again), whole (false if some changes were left out), touched (how many screens it changed).
       The key needs the right to publish. The personal key is read from LANTERNPOST_KEY, or given as --key. Create one under People.`;

export const command: Command = {
  usage,
  run: (args) =>
    orRefuse(async () => {
      const client = new ServerClient(...serverOf(options(args, SERVER_OPTIONS, usage)));
      console.log(JSON.stringify(await client.ask('/api/editions')));
      return 0;
    }),
};
