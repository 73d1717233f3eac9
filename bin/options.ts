import { parseArgs, type ParseArgsConfig } from 'node:util';

/** A command: its usage, and its work. Returns the exit code; undefined keeps the process running. */
export interface Command {
  readonly usage: string;
  run(args: string[]): Promise<number | undefined>;
}

/** The same for a command that names files too, or folders. */
export function optionsAndNames<T extends NonNullable<ParseArgsConfig['options']>>(
  args: string[],
  known: T,
  usage: string,
) {
  try {
    return parseArgs({ args, options: known, strict: true, allowPositionals: true });
  } catch (error) {
    console.error(`${error instanceof Error ? error.message : String(error)}\nUsage: lanternpost ${usage}`);
    process.exit(2);
  }
}

/** Reads a command's options; a wrong one is told with the usage, and exits 2. */
export function options<T extends NonNullable<ParseArgsConfig['options']>>(args: string[], known: T, usage: string) {
  try {
    return parseArgs({ args, options: known, strict: true }).values;
  } catch (error) {
    console.error(`${error instanceof Error ? error.message : String(error)}\nUsage: lanternpost ${usage}`);
    process.exit(2);
  }
}
