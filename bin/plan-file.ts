import { readFileSync } from 'node:fs';
import { Refusal, formatInstant, orThrow, parseInstant, readPlan, type Instant, type Plan } from '@/core';

/** The command can't go on: told as JSON on standard error, exit 2. */
export const cannot = (path: string, message: string) => new Refusal(422, message, [{ path, message }]);

/** The JSON document in a file, or on standard input for `-`. Throws Refusal. */
export function readJsonFile(path: string): unknown {
  let text: string;
  try {
    text = readFileSync(path === '-' ? 0 : path, 'utf8');
  } catch {
    throw cannot('', `The file ${path} can not be read: check its name.`);
  }
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw cannot('', `This is no JSON: ${error instanceof Error ? error.message : ''}`);
  }
}

/** The plan in a file. Throws Refusal with all of its mistakes. */
export function readPlanFile(path: string): Plan {
  return orThrow(readPlan(readJsonFile(path)));
}

/** An instant that an option gives. Throws Refusal. */
export function instantOption(name: string, text: string): Instant {
  const instant = parseInstant(text);
  if (instant === null) throw cannot(`/${name}`, 'Write an instant as 2026-12-01T03:45:00Z.');
  return instant;
}

/** Runs a command's work; what is refused is told, and exits 2. */
export async function orRefuse(work: () => number | Promise<number>): Promise<number> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const { problems, message } = error;
    console.error(JSON.stringify({ errors: problems.length > 0 ? problems : [{ path: '', message }] }));
    return 2;
  }
}

/** A span as people read it. */
export function spanText([from, to]: readonly [Instant, Instant]): string {
  return `${formatInstant(from).slice(0, 16)}Z to ${formatInstant(to).slice(0, 16)}Z`;
}
