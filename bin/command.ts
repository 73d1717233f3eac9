import { COMMAND_KINDS } from '@/core/commands';
import { readDuration } from '@/core/plan';
import type { Sent, SentCommand } from '@/services/commands';
import { optionsAndNames, type Command } from './options';
import { cannot, orRefuse } from './plan-file';
import { SERVER_OPTIONS, ServerClient, serverOf } from './server-client';

const usage = `command KIND --server URL --where SELECTOR [--percent N | --degrees N | --input ID] [--keep 10m] [--spread 1h] [--wait]
       Sends a command to the players of screens. KIND is one of:
       ${COMMAND_KINDS.join(', ')}.
       --where S      the screens: a tag, a site, screen:ID, or a selector such as “hall and not staff”
       --percent N    with volume and brightness: 0 to 100
       --degrees N    with turn: 0, 90, 180 or 270
       --input ID     with input: the display’s input, such as hdmi-1, or player for its own
       --keep D       how long it is kept for screens that are offline; 10 minutes unless you say more, 7 days at most
       --spread D     one screen after the other over this time, so that they aren’t all out of sight at once
       --wait         waits until each screen has an outcome, or the command has expired
       Prints one JSON object: command (its id, and a state for each screen) and withoutPlayer (screens that have no player).
       With --wait, exits 1 if it failed on a screen, or a screen was offline for too long. The key needs the right to send commands.
       The personal key is read from LANTERNPOST_KEY, or given as --key. Create one under People.`;

const ASK_EVERY_MS = 500;

/** A duration in milliseconds, as people write it. Throws for what is none. */
function readMs(option: string, text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  const read = readDuration(text);
  if (!read.ok) throw cannot(`/${option}`, read.message);
  return read.value;
}

/** A whole number of an option. Throws for what is none. */
function readWhole(option: string, text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  if (!/^\d{1,3}$/.test(text))
    throw cannot(`/${option}`, `“${text}” isn’t a whole number. Write it like --${option} 90.`);
  return Number(text);
}

export const command: Command = {
  usage,
  run: (args) =>
    orRefuse(async () => {
      const { values: given, positionals } = optionsAndNames(
        args,
        {
          ...SERVER_OPTIONS,
          ...{ where: { type: 'string' }, percent: { type: 'string' }, degrees: { type: 'string' } },
          ...{
            input: { type: 'string' },
            keep: { type: 'string' },
            spread: { type: 'string' },
            wait: { type: 'boolean', default: false },
          },
        },
        usage,
      );
      const [kind] = positionals;
      if (kind === undefined || positionals.length > 1)
        throw cannot('/kind', `Name one command: ${COMMAND_KINDS.join(', ')}.`);
      const client = new ServerClient(...serverOf(given));
      const sent = (await client.send('POST', '/api/commands', {
        ...{ kind, where: given.where, percent: readWhole('percent', given.percent) },
        ...{ degrees: readWhole('degrees', given.degrees), input: given.input, keptMs: readMs('keep', given.keep) },
        spreadMs: readMs('spread', given.spread),
      })) as Sent;
      const command = given.wait ? await waitFor(client, sent.command) : sent.command;
      console.log(JSON.stringify({ ...sent, command }));
      return command.screens.some(({ state }) => state === 'failed' || state === 'late') ? 1 : 0;
    }),
};

/** Asks until no screen has anything left to do. */
async function waitFor(client: ServerClient, { id }: SentCommand): Promise<SentCommand> {
  for (;;) {
    const now = (await client.ask(`/api/commands/${id}`)) as SentCommand;
    if (now.screens.every(({ state }) => state !== 'waiting' && state !== 'received')) return now;
    await new Promise((later) => setTimeout(later, ASK_EVERY_MS));
  }
}
