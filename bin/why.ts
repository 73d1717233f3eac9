import { formatInstant, why } from '@/core';
import { options, type Command } from './options';
import { cannot, instantOption, orRefuse, readPlanFile } from './plan-file';

const usage = 'why --plan FILE|- --screen ID --at INSTANT [--json]';

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      { plan: { type: 'string' }, screen: { type: 'string' }, at: { type: 'string' }, json: { type: 'boolean' } },
      usage,
    );
    const { plan: path, screen, at } = given;
    if (!path || !screen || !at) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    return orRefuse(() => {
      const plan = readPlanFile(path);
      if (!plan.screens.some((one) => one.id === screen))
        throw cannot('/screen', `There is no screen "${screen}" in the plan.`);
      const { sentence, reasons } = why(plan, screen, instantOption('at', at));
      const written = reasons.map((one) => ({ ...one, until: one.until === null ? null : formatInstant(one.until) }));
      console.log(given.json ? JSON.stringify({ sentence, reasons: written }) : sentence);
      return 0;
    });
  },
};
