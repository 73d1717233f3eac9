import { parseDate } from '@/core/when';
import { writeSmil } from '@/core/formats/playlists';
import { options, type Command } from './options';
import { cannot, oneNamed, orRefuse, readPlanFile } from './plan-file';

const usage = `smil --plan FILE|- --screen NAME --date YYYY-MM-DD
       Writes what a screen shows on one day, midnight to midnight on its site’s clock, as SMIL 3.0.`;

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      { plan: { type: 'string' }, screen: { type: 'string' }, date: { type: 'string' } },
      usage,
    );
    const { plan: path, screen, date } = given;
    if (!path || !screen || !date) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    return orRefuse(() => {
      const day = parseDate(date);
      if (day === null) throw cannot('/date', 'Write a date that exists as YYYY-MM-DD.');
      const plan = readPlanFile(path);
      process.stdout.write(writeSmil(plan, oneNamed('screen', 'screen', plan.screens, screen).id, day));
      return 0;
    });
  },
};
