import { readFileSync } from 'node:fs';
import { formatInstant, parseInstant, readPlan, type Instant, type Plan, type Problem } from '@/core';

/** The command can't go on: told as JSON on standard error, exit 2. */
export class Refused extends Error {
  constructor(readonly errors: readonly Problem[]) {
    super(JSON.stringify({ errors }));
  }
}

/** The JSON document in a file, or on standard input for `-`. Throws Refused. */
export function readJsonFile(path: string): unknown {
  let text: string;
  try {
    text = readFileSync(path === '-' ? 0 : path, 'utf8');
  } catch {
    throw new Refused([{ path: '', message: `The file ${path} can not be read: check its name.` }]);
  }
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw new Refused([{ path: '', message: `This is no JSON: ${error instanceof Error ? error.message : ''}` }]);
  }
}

/** The plan in a file. Throws Refused with all of its mistakes. */
export function readPlanFile(path: string): Plan {
  const read = readPlan(readJsonFile(path));
  if (!read.ok) throw new Refused(read.problems);
  return read.value;
}

/** An instant that an option gives. Throws Refused. */
export function instantOption(name: string, text: string): Instant {
  const instant = parseInstant(text);
  if (instant === null) throw new Refused([{ path: `/${name}`, message: 'Write an instant as 2026-12-01T03:45:00Z.' }]);
  return instant;
}

/** Runs a command's work; what is refused is told, and exits 2. */
export async function orRefuse(work: () => number | Promise<number>): Promise<number> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    console.error(error.message);
    return 2;
  }
}

/** A span as people read it. */
export function spanText([from, to]: readonly [Instant, Instant]): string {
  return `${formatInstant(from).slice(0, 16)}Z to ${formatInstant(to).slice(0, 16)}Z`;
}
