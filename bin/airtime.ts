import { airTime, neverShown, type NeverShown, type Subject } from '@/core/forecast';
import { DAY, formatInstant } from '@/core/instant';
import { options, type Command } from './options';
import { instantOption, oneNamed, orRefuse, readPlanFile } from './plan-file';

const usage = `airtime --plan FILE|- [--booking NAME | --playlist NAME | --media NAME] [--from INSTANT] [--to INSTANT] [--json]
       Shows where and for how long a booking, playlist or file is on screen. Without one, lists everything that never shows, and why.
       Covers the next 7 days unless you give a time span.`;

const KINDS = ['booking', 'playlist', 'media'] as const;
const NOUNS = { booking: 'booking', playlist: 'playlist', media: 'file' } as const;

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      {
        plan: { type: 'string' },
        booking: { type: 'string' },
        playlist: { type: 'string' },
        media: { type: 'string' },
        from: { type: 'string' },
        to: { type: 'string' },
        json: { type: 'boolean' },
      },
      usage,
    );
    const subjects = KINDS.flatMap((kind) => (given[kind] === undefined ? [] : [{ kind, named: given[kind] }]));
    const [asked] = subjects;
    if (!given.plan || subjects.length > 1) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    const path = given.plan;
    return orRefuse(() => {
      const plan = readPlanFile(path);
      const from = given.from ? instantOption('from', given.from) : Date.now();
      const to = given.to ? instantOption('to', given.to) : from + 7 * DAY;
      if (!asked) {
        const never = neverShown(plan, from, to);
        console.log(given.json ? JSON.stringify({ never }) : never.map(neverText).join('\n') || 'All of it shows.');
        return 0;
      }
      const { kind } = asked;
      const known: readonly { readonly id: string; readonly name: string }[] = {
        ...{ booking: plan.bookings, playlist: plan.playlists, media: plan.media },
      }[kind];
      const { id } = oneNamed(kind, NOUNS[kind], known, asked.named);
      const subject: Subject = { kind, id };
      const times = airTime(plan, subject, from, to);
      if (given.json)
        console.log(JSON.stringify({ screens: times.map((one) => ({ ...one, first: formatInstant(one.first) })) }));
      else
        console.log(
          times
            .map((one) => `${one.screen}: ${hours(one.ms)}, ${one.plays} plays, first ${formatInstant(one.first)}`)
            .join('\n') || 'It shows on no screen.',
        );
      return 0;
    });
  },
};

const hours = (ms: number) => `${(ms / 3_600_000).toFixed(2)} h`;

function neverText({ subject, because, hiddenBy }: NeverShown): string {
  return `${subject.kind} ${subject.id}: ${because}${hiddenBy.length > 0 ? ` (${hiddenBy.join(', ')})` : ''}`;
}
