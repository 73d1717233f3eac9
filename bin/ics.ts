import { DAY, formatInstant } from '@/core/instant';
import { matches, parseSelector, screenTerms, selectorOf } from '@/core/selector';
import { dateOfLocalTime, toLocalTime, zoneTable } from '@/core/when';
import { bookingsOf, readCalendar, writeCalendar } from '@/core/formats/icalendar';
import { readFileSync } from 'node:fs';
import { options, type Command } from './options';
import { cannot, oneNamed, orRefuse, readPlanFile } from './plan-file';

const usage = `ics --plan FILE|- [--where SELECTOR] [--site ID]
       lanternpost ics --plan FILE|- --read FILE.ics [--where SELECTOR] [--content playlist:ID|media:ID] [--site-clock]
       Writes a plan file’s bookings as iCalendar. --where takes only those on the selector’s screens; --site uses that site’s clock and
       opening hours. With --read, it prints the events of a calendar file as bookings, in JSON. Lines that can’t be read are listed
       on standard error, and it exits 1.`;

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      {
        plan: { type: 'string' },
        where: { type: 'string' },
        site: { type: 'string' },
        read: { type: 'string' },
        content: { type: 'string' },
        'site-clock': { type: 'boolean' },
      },
      usage,
    );
    if (!given.plan) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    const path = given.plan;
    return orRefuse(() => {
      const where = given.where ?? 'all';
      const selector = parseSelector(where);
      if (!selector.ok) throw cannot('/where', selector.message);
      return given.read === undefined ? write(path, where, given.site) : read(path, given.read, where, given);
    });
  },
};

function write(path: string, where: string, siteId: string | undefined): number {
  const plan = readPlanFile(path);
  const site = siteId === undefined ? undefined : oneNamed('site', 'site', plan.sites, siteId);
  const siteTags = new Map(plan.sites.map((one) => [one.id, one.tags]));
  const terms = plan.screens.map((screen) => screenTerms(screen, siteTags.get(screen.site)));
  const chosen = terms.filter((one) => matches(selectorOf(where), one));
  const bookings = plan.bookings.filter(
    (booking) => where === 'all' || chosen.some((one) => matches(selectorOf(booking.where), one)),
  );
  const now = Date.now();
  const from = dateOfLocalTime(toLocalTime(zoneTable(site?.timeZone ?? 'UTC'), now));
  process.stdout.write(
    writeCalendar(plan, bookings, {
      name: plan.network.name,
      from,
      stamp: now - (now % DAY),
      ...(site ? { site } : {}),
    }),
  );
  return 0;
}

function read(
  path: string,
  file: string,
  where: string,
  given: { content?: string | undefined; 'site-clock'?: boolean | undefined },
): number {
  const plan = readPlanFile(path);
  const match = /^(playlist|media):(\S+)$/.exec(given.content ?? `playlist:${plan.playlists[0]?.id ?? ''}`);
  if (!match?.[2]) throw cannot('/content', 'Add what to show: --content playlist:ID or media:ID.');
  const content = match[1] === 'media' ? { media: match[2] } : { playlist: match[2] };
  const { events, problems } = readCalendar(readFileSync(file === '-' ? 0 : file, 'utf8'));
  const patches = bookingsOf(plan, events, {
    content,
    where,
    siteClock: given['site-clock'] ?? false,
    created: formatInstant(Date.now()),
  });
  console.log(JSON.stringify({ bookings: patches.flatMap((one) => ('add' in one ? [one.add] : [])) }, null, 2));
  for (const { line, message } of problems) console.error(`line ${line}: ${message}`);
  return problems.length > 0 ? 1 : 0;
}
