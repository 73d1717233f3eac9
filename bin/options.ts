import { parseArgs, type ParseArgsConfig } from 'node:util';

/** A command: its usage, and its work. Returns the exit code; undefined keeps the process running. */
export interface Command {
  readonly usage: string;
  run(args: string[]): Promise<number | undefined>;
}

type Known = NonNullable<ParseArgsConfig['options']>;

/** Prints the error with the usage, and exits 2. */
function parsed<C extends ParseArgsConfig>(config: C, usage: string) {
  try {
    return parseArgs(config);
  } catch (error) {
    console.error(`${error instanceof Error ? error.message : String(error)}\nUsage: lanternpost ${usage}`);
    process.exit(2);
  }
}

/** Reads a command's options. A wrong one is printed with the usage, and exits 2. */
export const options = <T extends Known>(args: string[], known: T, usage: string) =>
  parsed({ args, options: known, strict: true }, usage).values;

/** The same for a command that names files too, or folders. */
export const optionsAndNames = <T extends Known>(args: string[], known: T, usage: string) =>
  parsed({ args, options: known, strict: true, allowPositionals: true }, usage);
