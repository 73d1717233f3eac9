import {
  DAY,
  compileEdition,
  diffPlans,
  emptyPlan,
  findings,
  formatInstant,
  misfits,
  newFindings,
  newMisfits,
  orThrow,
  readPlan,
  type Plan,
  type Problem,
} from '@/core';
import { options, type Command } from './options';
import { orRefuse, readPlanFile } from './plan-file';
import { SERVER_OPTIONS, ServerClient, serverOf } from './server-client';

const usage = `preflight --server URL [--plan FILE] [--days 7]
       What the plan in a file ("-": standard input), or what waits on the server where none is given, would change on the screens and make
       worse against the newest edition, in the days to come. One JSON object: edition (the newest; null before the first), screens
       (how many look different), groups (those that change alike, with from, to, before and after), findings (what is new:
       kind, severity, sentence, screens), misfits (pictures that are new to screens of another size or shape: media, fit, file, size,
       standing, screens), known (how many were there before), problems (what can't be published). Exits 1 where something
       can't be published or a new finding is an error. The key stands in LANTERNPOST_KEY (or --key).`;

/** Longer is a year's plan, and takes its time. */
const MOST_DAYS = 92;

export const command: Command = {
  usage,
  run: (args) =>
    orRefuse(async () => {
      const given = options(args, { ...SERVER_OPTIONS, plan: { type: 'string' }, days: { type: 'string' } }, usage);
      const days = Number(given.days ?? 7);
      if (!Number.isInteger(days) || days < 1 || days > MOST_DAYS) {
        console.error(`--days is a whole number from 1 to ${MOST_DAYS}.\nUsage: lanternpost ${usage}`);
        return 2;
      }
      const client = new ServerClient(...serverOf(given));
      const [newest] = (await client.ask('/api/editions')) as readonly { readonly number: number }[];
      const base = newest
        ? ((await client.ask(`/api/editions/${newest.number}`)) as { readonly plan: Plan }).plan
        : emptyPlan('');
      const plan = given.plan ? readPlanFile(given.plan) : orThrow(readPlan(await client.ask('/api/plan')));
      const found = preflight(base, plan, Date.now(), days);
      console.log(JSON.stringify({ edition: newest?.number ?? null, ...found }));
      return found.problems.length > 0 || found.findings.some(({ severity }) => severity === 'error') ? 1 : 0;
    }),
};

const everywhere = ({ screens }: Plan) => new Set(screens.map(({ id }) => id));

/** What a plan changes on the screens, and makes worse, against another in the days from an instant on. */
export function preflight(base: Plan, plan: Plan, now: number, days: number) {
  const [from, to] = [now, now + days * DAY];
  const groups = diffPlans(base, plan, from, to);
  const after = findings(plan, from, to, now);
  const fresh = newFindings(findings(base, from, to, now), after);
  const compiled = compileEdition(plan);
  const problems: readonly Problem[] = compiled.ok ? [] : compiled.problems;
  return {
    screens: new Set(groups.flatMap((group) => group.screens)).size,
    groups: groups.map(({ screens, differences }) => ({
      screens,
      differences: differences.map((one) => ({ ...one, from: formatInstant(one.from), to: formatInstant(one.to) })),
    })),
    findings: fresh.map(({ kind, severity, sentence, about, screens }) => ({
      kind,
      severity,
      sentence,
      about,
      screens,
    })),
    misfits: newMisfits(misfits(base, everywhere(base)), misfits(plan, everywhere(plan))),
    known: after.length - fresh.length,
    problems,
  };
}
