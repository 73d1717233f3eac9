import { diffPlans, type Shown } from '@/core/edition';
import { DAY, formatInstant } from '@/core/instant';
import { options, type Command } from './options';
import { instantOption, orRefuse, readPlanFile, spanText } from './plan-file';

const usage = `diff --before FILE --after FILE [--from INSTANT] [--to INSTANT] [--json]
       Covers the next 7 days unless you give a time span. Exits 1 if the plans show something different, and 0 if they don’t.`;

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      {
        before: { type: 'string' },
        after: { type: 'string' },
        from: { type: 'string' },
        to: { type: 'string' },
        json: { type: 'boolean' },
      },
      usage,
    );
    const { before, after } = given;
    if (!before || !after) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    return orRefuse(() => {
      const from = given.from ? instantOption('from', given.from) : Date.now();
      const to = given.to ? instantOption('to', given.to) : from + 7 * DAY;
      const groups = diffPlans(readPlanFile(before), readPlanFile(after), from, to);
      if (given.json) {
        const written = groups.map(({ screens, differences }) => ({
          screens,
          differences: differences.map((one) => ({ ...one, from: formatInstant(one.from), to: formatInstant(one.to) })),
        }));
        console.log(JSON.stringify({ groups: written }));
      } else if (groups.length === 0) console.log('Every screen shows the same.');
      else
        for (const { screens, differences } of groups)
          console.log(
            [
              screens.join(', '),
              ...differences.map(
                (one) => `  ${spanText([one.from, one.to])}  ${between(words(one.before), words(one.after))}`,
              ),
            ].join('\n'),
          );
      return groups.length === 0 ? 0 : 1;
    });
  },
};

/** What was, and what will be; the same files may come at other times, look otherwise, or sound. */
const between = (before: string, after: string) =>
  before === after ? `${after}, with different items` : `${before} → ${after}`;

function words(shown: Shown | null): string {
  if (!shown) return 'no such screen';
  return [shown.source, shown.id, shown.media.length > 0 ? `(${shown.media.join(', ')})` : '']
    .filter((part) => part !== null && part !== '')
    .join(' ');
}
