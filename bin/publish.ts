import { options, type Command } from './options';
import { cannot, orRefuse, readPlanFile } from './plan-file';
import { readSiteTime } from '@/core/edition';
import { parseInstant } from '@/core/instant';
import { planFile } from '@/core/plan';
import { errorsBroughtBy, waitingOn } from './preflight';
import { SERVER_OPTIONS, ServerClient, serverOf } from './server-client';

const usage = `publish --server URL [--plan FILE] [--note TEXT] [--at WHEN] [--despite-errors]
       Publishes all unpublished changes on the server. With a plan file ("-" for standard input), the draft is first made equal to the file:
       unpublished changes that aren’t in the file are removed. Prints one JSON object:
         edition    its number; null if there was nothing to publish, or it is planned for later
         changes    how many changes the file made
         screens    how many screens it changes
         planned    with --at: when it goes out on the last site
       --at 2026-12-01T05:30:00Z plans it for that moment; --at 2026-12-01T06:00 for 06:00 on the clock of each site.
       Exits 1 and changes nothing if it adds errors within the next 7 days (see preflight); --despite-errors publishes anyway.
       Exits 2 and publishes nothing if someone changes the plan in the meantime, or it can’t be published.
       The personal key is read from LANTERNPOST_KEY, or given as --key. Create one under People.`;

interface Waiting {
  readonly change: number;
  readonly entries: readonly unknown[];
  readonly screens: readonly string[];
}

/** When an edition is to go out: an instant, or a time on each site's clock. Throws for what is neither. */
function goesOut(text: string): number | { readonly siteTime: string } {
  const instant = parseInstant(text);
  if (instant !== null) return instant;
  const siteTime = /T\d\d:\d\d$/.test(text) ? `${text}:00` : text;
  if (readSiteTime(siteTime) !== null) return { siteTime };
  throw cannot(
    '/at',
    `“${text}” isn’t a time. Write it like 2026-12-01T05:30:00Z, or like 2026-12-01T06:00 for the clocks at each site.`,
  );
}

export const command: Command = {
  usage,
  run: (args) =>
    orRefuse(async () => {
      const given = options(
        args,
        {
          ...SERVER_OPTIONS,
          ...{ plan: { type: 'string' }, note: { type: 'string' }, at: { type: 'string' } },
          'despite-errors': { type: 'boolean' },
        },
        usage,
      );
      const client = new ServerClient(...serverOf(given));
      // Read before anything is sent: what is wrong changes nothing.
      const at = given.at === undefined ? null : goesOut(given.at);
      const plan = given.plan ? readPlanFile(given.plan) : null;
      const errors = given['despite-errors'] ? [] : await errorsBroughtBy(client, plan ?? (await waitingOn(client)));
      if (errors.length > 0) {
        console.error(JSON.stringify({ errors: errors.map((message) => ({ path: '', message })) }));
        return 1;
      }
      const { changes } = plan
        ? ((await client.send('PUT', '/api/plan', planFile(plan))) as { readonly changes: number })
        : { changes: 0 };
      const { change, entries, screens } = (await client.ask('/api/docket')) as Waiting;
      if (entries.length === 0 && screens.length === 0) {
        console.log(JSON.stringify({ edition: null, changes, screens: 0 }));
        return 0;
      }
      const { note } = given;
      if (at !== null) {
        const planned = (await client.send('POST', '/api/planned', { basedOn: change, note, at })) as {
          readonly at: string;
        };
        console.log(JSON.stringify({ edition: null, planned: planned.at, changes, screens: screens.length }));
        return 0;
      }
      const { number } = (await client.send('POST', '/api/editions', { basedOn: change, note })) as {
        readonly number: number;
      };
      console.log(JSON.stringify({ edition: number, changes, screens: screens.length }));
      return 0;
    }),
};
