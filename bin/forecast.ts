import { createReadStream, readFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { readFirings } from '@/core/cues';
import { forecast, forecastDocument, screenProgram } from '@/core/forecast';
import { parseInstant } from '@/core/instant';
import { pointer, readPlan } from '@/core/plan';
import type { Problem } from '@/core/refusal';
import { options, type Command } from './options';

interface Request {
  readonly plan: unknown;
  readonly screen: unknown;
  readonly from: unknown;
  readonly to: unknown;
  readonly plays?: unknown;
  readonly firings?: unknown;
}

/** Answers one forecast request, or says everything that is wrong with it. */
export function answer(request: Request): object {
  const read = readPlan(request.plan);
  const errors: Problem[] = read.ok ? [] : [...read.problems];
  const instant = (key: 'from' | 'to') => {
    const value = request[key];
    const parsed = typeof value === 'string' ? parseInstant(value) : null;
    if (parsed === null) errors.push({ path: pointer([key]), message: 'Write a time like 2026-12-01T03:45:00Z.' });
    return parsed ?? 0;
  };
  const [from, to] = [instant('from'), instant('to')];
  if (errors.length === 0 && to < from)
    errors.push({ path: '/to', message: 'The end must not come before the start.' });
  const { screen } = request;
  const firings = readFirings(request.firings ?? [], ['firings']);
  if (!firings.ok) errors.push(...firings.problems);
  const known = read.ok && read.value.screens.some((one) => one.id === screen);
  if (read.ok && !known) errors.push({ path: '/screen', message: `The plan has no screen “${String(screen)}”.` });
  if (errors.length > 0 || !read.ok || !firings.ok || typeof screen !== 'string') return { errors };
  const plays = request.plays === true;
  const program = screenProgram(read.value, screen, firings.value);
  return forecastDocument(screen, forecast(program, from, to, { plays }), plays);
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    return new SyntaxError(`This isn’t JSON: ${error instanceof Error ? error.message : ''}`);
  }
}

/** What a file says as JSON, `-` being standard input; an Error with a sentence where it can't be read. */
function readJson(path: string): unknown {
  try {
    return parse(readFileSync(path === '-' ? 0 : path, 'utf8'));
  } catch {
    return new Error(`The file ${path} can’t be read. Check its name.`);
  }
}

const usage =
  'forecast --plan FILE|- --screen ID --from INSTANT --to INSTANT [--plays] [--firings FILE]\n       lanternpost forecast --plan - --batch   (one request a line)';

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      {
        plan: { type: 'string' },
        screen: { type: 'string' },
        from: { type: 'string' },
        to: { type: 'string' },
        plays: { type: 'boolean' },
        firings: { type: 'string' },
        batch: { type: 'boolean' },
      },
      usage,
    );
    if (given.batch) return batch(given.plan ?? '-');
    if (!given.plan || !given.screen || !given.from || !given.to) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    const plan = readJson(given.plan);
    const firings = given.firings === undefined ? [] : readJson(given.firings);
    const wrong = [plan, firings].find((one) => one instanceof Error);
    const result =
      wrong instanceof Error
        ? { errors: [{ path: '', message: wrong.message }] }
        : answer({ plan, screen: given.screen, from: given.from, to: given.to, plays: given.plays, firings });
    if ('errors' in result) {
      console.error(JSON.stringify(result));
      return 2;
    }
    console.log(JSON.stringify(result));
    return 0;
  },
};

async function batch(path: string): Promise<number> {
  const input = path === '-' ? process.stdin : createReadStream(path);
  for await (const line of createInterface({ input, crlfDelay: Infinity })) {
    if (line.trim() === '') continue;
    const request = parse(line);
    const result =
      request instanceof SyntaxError
        ? { errors: [{ path: '', message: request.message }] }
        : answer(
            typeof request === 'object' && request !== null
              ? (request as Request)
              : { plan: null, screen: null, from: null, to: null },
          );
    if (!process.stdout.write(`${JSON.stringify(result)}\n`))
      await new Promise((resolve) => process.stdout.once('drain', resolve));
  }
  return 0;
}
