import { parseDate } from '@/core';
import { writeSmil } from '@/core/formats/playlists';
import { options, type Command } from './options';
import { cannot, orRefuse, readPlanFile } from './plan-file';

const usage = `smil --plan FILE|- --screen ID --date YYYY-MM-DD
       Writes what a screen of a plan file shows on a day, on the clock of its site, as SMIL 3.0.`;

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
      if (!plan.screens.some((one) => one.id === screen))
        throw cannot('/screen', `There is no screen "${screen}" in the plan.`);
      process.stdout.write(writeSmil(plan, screen, day));
      return 0;
    });
  },
};
