import { nearestOf } from '@/core/nearest';
import { databaseWords } from './database-words';
import type { Command } from './options';

/** What each command does in one line; what it needs is loaded when it is called. */
const COMMANDS: Record<string, { readonly summary: string; load(): Promise<{ command: Command }> }> = {
  start: {
    summary: 'Start everything: database, web, gateway, worker; with --demo the sample network and its players',
    load: () => import('./start'),
  },
  web: { summary: 'Serve the interface and the player protocol (needs DATABASE_URL)', load: () => import('./web') },
  think: { summary: 'What web runs beside itself: compiling and forecasting', load: () => import('./think') },
  gateway: {
    summary: 'Serve the player protocol and the player page (needs DATABASE_URL)',
    load: () => import('./gateway'),
  },
  worker: { summary: 'Run background jobs (needs DATABASE_URL)', load: () => import('./worker') },
  migrate: { summary: 'Bring the database at DATABASE_URL to the current schema', load: () => import('./migrate') },
  kiosk: {
    summary: 'Make a Debian box a player that starts by itself',
    load: () => import('./kiosk'),
  },
  bridge: {
    summary: 'Beside a kiosk browser: lets its player control this device',
    load: () => import('./bridge'),
  },
  fleet: { summary: 'Run simulated players that speak the real protocol', load: () => import('./fleet') },
  forecast: {
    summary: 'Print what a screen of a plan file shows in a range of time, as JSON',
    load: () => import('./forecast'),
  },
  why: { summary: 'Why a screen of a plan file shows what it shows at an instant', load: () => import('./why') },
  airtime: {
    summary: 'Where and how long a booking, playlist or file shows; what never does',
    load: () => import('./airtime'),
  },
  when: { summary: 'Read a booking’s time written in words', load: () => import('./when') },
  check: {
    summary: 'Find clashes, gaps, hidden bookings and other problems in a plan file',
    load: () => import('./check'),
  },
  diff: { summary: 'How two plan files differ in what shows, screen by screen', load: () => import('./diff') },
  export: {
    summary: 'Write a network’s plan as a plan file',
    load: async () => ({ command: (await import('./plan-commands')).exportCommand }),
  },
  import: {
    summary: 'Make a network’s draft equal to a plan file',
    load: async () => ({ command: (await import('./plan-commands')).importCommand }),
  },
  person: {
    summary: 'A network’s people: list them, invite, reset a password, remove',
    load: async () => ({ command: (await import('./people-commands')).personCommand }),
  },
  network: {
    summary: 'The networks of this server: list them, add one, limit a library’s size',
    load: async () => ({ command: (await import('./people-commands')).networkCommand }),
  },
  ics: { summary: 'Bookings of a plan file as iCalendar, and back', load: () => import('./ics') },
  upload: { summary: 'Send files into the library of a server, by a personal key', load: () => import('./upload') },
  watch: {
    summary: 'Send each new file of a folder into the library of a server, by a personal key',
    load: () => import('./watch'),
  },
  editions: {
    summary: 'List what a server has published, the newest first, by a personal key',
    load: () => import('./editions'),
  },
  preflight: {
    summary:
      'What a plan file, or a server’s draft, would change on the screens, and its new problems, by a personal key',
    load: () => import('./preflight'),
  },
  publish: {
    summary: 'Publish the unpublished changes of a server, or a plan file, by a personal key',
    load: () => import('./publish'),
  },
  command: {
    summary: 'Send a command to players, e.g. identify, restart or volume, by a personal key',
    load: () => import('./command'),
  },
  backup: { summary: 'Write the database and all stored files into a folder', load: () => import('./backup') },
  restore: { summary: 'Put a backup into an empty data folder and database', load: () => import('./restore') },
  files: { summary: 'Check, clean up, or pair the stored files of a server', load: () => import('./files') },
  playlist: { summary: 'A playlist of a plan file as M3U8 or XSPF', load: () => import('./playlist') },
  smil: { summary: 'What a screen of a plan file shows on a day, as SMIL 3.0', load: () => import('./smil') },
  schema: { summary: 'Write the JSON Schema of plan files (docs/plan.schema.json)', load: () => import('./schema') },
  openapi: {
    summary: 'Write the player protocol’s OpenAPI 3.1 description (docs/openapi.json)',
    load: () => import('./openapi'),
  },
};

async function main(): Promise<number | undefined> {
  const [name = '', ...args] = process.argv.slice(2);
  const found = COMMANDS[name];
  if (!found) {
    const isAsked = name === '' || name === '--help' || name === '-h';
    const nearest = nearestOf(name, Object.keys(COMMANDS));
    if (!isAsked)
      console.error(
        `There’s no command “${name}”.${nearest === null ? '' : ` Did you mean “${nearest}”?`} Type lanternpost --help for the list.`,
      );
    if (!isAsked) return 2;
    const lines = Object.entries(COMMANDS).map(([key, { summary }]) => `  ${key.padEnd(10)} ${summary}`);
    console.log(
      `Usage: lanternpost COMMAND [OPTIONS]\n\n${lines.join('\n')}\n\nType lanternpost COMMAND --help for its options.`,
    );
    return 0;
  }
  const { command } = await found.load();
  if (args.includes('--help') || args.includes('-h')) {
    console.log(`${found.summary}\n\nUsage: lanternpost ${command.usage}`);
    return 0;
  }
  return command.run(args);
}

// The reader of our output has closed it, as `head` does. That isn't an error.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(0);
  throw error;
});

main()
  .then((code) => {
    if (code !== undefined) process.exitCode = code;
  })
  .catch((error: unknown) => {
    const said = databaseWords(error) ?? (error instanceof Error ? error.message : String(error));
    console.error(process.env.LANTERNPOST_LOG === 'debug' ? error : said);
    process.exit(1);
  });
