import { options, type Command } from './options';
import { orRefuse } from './plan-file';
import { SERVER_OPTIONS, ServerClient, serverOf } from './server-client';

const usage = `editions --server URL
       What was published, the newest first, as a JSON array: number, publishedAt, person, note, again (the edition that it was once more),
       whole (false: some of what waited was left out), touched (how many screens got another program). The personal key, with the right
       to publish, stands in LANTERNPOST_KEY (or --key): made under People.`;

export const command: Command = {
  usage,
  run: (args) =>
    orRefuse(async () => {
      const client = new ServerClient(...serverOf(options(args, SERVER_OPTIONS, usage)));
      console.log(JSON.stringify(await client.ask('/api/editions')));
      return 0;
    }),
};
