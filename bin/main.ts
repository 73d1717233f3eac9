import type { Command } from './options';

const COMMANDS: Record<string, () => Promise<{ command: Command }>> = {
  start: () => import('./start'),
  gateway: () => import('./gateway'),
  worker: () => import('./worker'),
  migrate: () => import('./migrate'),
  fleet: () => import('./fleet'),
  forecast: () => import('./forecast'),
  why: () => import('./why'),
  airtime: () => import('./airtime'),
  check: () => import('./check'),
  diff: () => import('./diff'),
  export: async () => ({ command: (await import('./plan-commands')).exportCommand }),
  import: async () => ({ command: (await import('./plan-commands')).importCommand }),
  ics: () => import('./ics'),
  schema: () => import('./schema'),
  openapi: () => import('./openapi'),
};

async function main(): Promise<number | undefined> {
  const [name = '', ...args] = process.argv.slice(2);
  const load = COMMANDS[name];
  if (!load) {
    const lines = await Promise.all(
      Object.entries(COMMANDS).map(async ([key, get]) => `  ${key.padEnd(10)} ${(await get()).command.summary}`),
    );
    console.log(
      `Usage: lanternpost COMMAND [OPTIONS]\n\n${lines.join('\n')}\n\nlanternpost COMMAND --help tells more.`,
    );
    return name === '' || name === '--help' || name === '-h' ? 0 : 2;
  }
  const { command } = await load();
  if (args.includes('--help') || args.includes('-h')) {
    console.log(`${command.summary}\n\nUsage: lanternpost ${command.usage}`);
    return 0;
  }
  return command.run(args);
}

main()
  .then((code) => {
    if (code !== undefined) process.exitCode = code;
  })
  .catch((error: unknown) => {
    console.error(error instanceof Error ? (process.env.LANTERNPOST_LOG === 'debug' ? error : error.message) : error);
    process.exit(1);
  });
