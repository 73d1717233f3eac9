import { compileEdition, diffPlans } from '@/core/edition';
import { misfits, newMisfits } from '@/core/forecast';
import { DAY, formatInstant } from '@/core/instant';
import { emptyPlan, readPlan, type Plan } from '@/core/plan';
import { findings, newFindings } from '@/core/preflight';
import { orThrow, type Problem } from '@/core/refusal';
import { options, type Command } from './options';
import { orRefuse, readPlanFile } from './plan-file';
import { SERVER_OPTIONS, ServerClient, serverOf } from './server-client';

const usage = `preflight --server URL [--plan FILE] [--days 7]
       Says what a plan file ("-" for standard input), or the server’s unpublished changes, would change on the screens in the coming days,
       and which problems they would add. Prints one JSON object:
         edition    the newest edition; null if nothing was published yet
         screens    how many screens look different
         groups     screens that change alike, with from, to, before and after
         findings   new problems: kind, severity, sentence, screens
         misfits    pictures that don’t fit the size or shape of a screen: media, fit, file, size, standing, screens
         known      how many problems were there before
         problems   why it can’t be published
       Exits 1 if it can’t be published, or a new problem is an error. The personal key is read from LANTERNPOST_KEY, or given as --key. Create one under People.`;

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
      const { edition, base } = await newestOf(client);
      const found = preflight(base, given.plan ? readPlanFile(given.plan) : await waitingOn(client), Date.now(), days);
      console.log(JSON.stringify({ edition, ...found }));
      return found.problems.length > 0 || found.findings.some(({ severity }) => severity === 'error') ? 1 : 0;
    }),
};

/** What waits on a server, as a plan. */
export const waitingOn = async (client: ServerClient): Promise<Plan> =>
  orThrow(readPlan(await client.ask('/api/plan')));

/** The newest edition of a server: its number, null before the first, and its plan. */
async function newestOf(client: ServerClient): Promise<{ edition: number | null; base: Plan }> {
  const [newest] = (await client.ask('/api/editions')) as readonly { readonly number: number }[];
  if (!newest) return { edition: null, base: emptyPlan('') };
  const { plan } = (await client.ask(`/api/editions/${newest.number}`)) as { readonly plan: Plan };
  return { edition: newest.number, base: plan };
}

/** How far ahead it is looked before something is published, in days: as far as under Publish. */
const AHEAD_DAYS = 7;

/** The errors that a plan would bring against a server's newest edition, by their sentences. */
export async function errorsBroughtBy(client: ServerClient, plan: Plan): Promise<readonly string[]> {
  const { base } = await newestOf(client);
  return newOf(base, plan, Date.now(), AHEAD_DAYS)
    .fresh.filter(({ severity }) => severity === 'error')
    .map(({ sentence }) => sentence);
}

/** What is worth knowing of a plan in the days from an instant on, and what of it another did not have. */
function newOf(base: Plan, plan: Plan, now: number, days: number) {
  const [from, to] = [now, now + days * DAY];
  const after = findings(plan, from, to, now);
  return { after, fresh: newFindings(findings(base, from, to, now), after) };
}

const everywhere = ({ screens }: Plan) => new Set(screens.map(({ id }) => id));

/** What a plan changes on the screens, and makes worse, against another in the days from an instant on. */
export function preflight(base: Plan, plan: Plan, now: number, days: number) {
  const groups = diffPlans(base, plan, now, now + days * DAY);
  const { after, fresh } = newOf(base, plan, now, days);
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
