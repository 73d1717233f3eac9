import { readFileSync } from 'node:fs';
import { formatInstant, parseInstant, type Instant } from '@/core/instant';
import { nearestOf } from '@/core/nearest';
import { readPlan, type Plan } from '@/core/plan';
import { Refusal, orThrow } from '@/core/refusal';

/** The command can't go on: told as JSON on standard error, exit 2. */
export const cannot = (path: string, message: string) => new Refusal(422, message, [{ path, message }]);

/** The JSON document in a file, or on standard input for `-`. Throws Refusal. */
export function readJsonFile(path: string): unknown {
  let text: string;
  try {
    text = readFileSync(path === '-' ? 0 : path, 'utf8');
  } catch {
    throw cannot('', `The file ${path} can’t be read. Check its name.`);
  }
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw cannot('', `This isn’t JSON: ${error instanceof Error ? error.message : ''}`);
  }
}

/** The plan in a file. Throws Refusal with all of its mistakes. */
export function readPlanFile(path: string): Plan {
  return orThrow(readPlan(readJsonFile(path)));
}

/**
 * The thing of a plan that an option names, by its id or by its name in any case. Throws Refusal where there is none, with the nearest, and where
 * several have the name.
 */
export function oneNamed<T extends { readonly id: string; readonly name: string }>(
  option: string,
  noun: string,
  list: readonly T[],
  text: string,
): T {
  const byId = list.find(({ id }) => id === text);
  if (byId) return byId;
  const named = list.filter(({ name }) => name.toLowerCase() === text.trim().toLowerCase());
  const [first, second] = named;
  if (first && !second) return first;
  if (first)
    throw cannot(
      `/${option}`,
      `Several ${noun}s are called “${first.name}”. Name one by its id: ${named.map(({ id }) => id).join(', ')}.`,
    );
  const nearest = nearestOf(
    text,
    list.flatMap(({ id, name }) => [id, name]),
  );
  throw cannot(
    `/${option}`,
    `The plan has no ${noun} “${text}”.${nearest === null ? '' : ` Did you mean “${nearest}”?`}`,
  );
}

/** An instant that an option gives. Throws Refusal. */
export function instantOption(name: string, text: string): Instant {
  const instant = parseInstant(text);
  if (instant === null) throw cannot(`/${name}`, 'Write a time like 2026-12-01T03:45:00Z.');
  return instant;
}

/** Runs a command's work. Errors are printed, and exit 2. */
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
