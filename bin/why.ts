import { why } from '@/core/forecast';
import { formatInstant } from '@/core/instant';
import { options, type Command } from './options';
import { readFirings } from '@/core/cues';
import { orThrow } from '@/core/refusal';
import { instantOption, oneNamed, orRefuse, readJsonFile, readPlanFile } from './plan-file';

const usage = 'why --plan FILE|- --screen NAME --at INSTANT [--firings FILE] [--json]';

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      {
        ...{ plan: { type: 'string' }, screen: { type: 'string' }, at: { type: 'string' } },
        ...{ firings: { type: 'string' }, json: { type: 'boolean' } },
      },
      usage,
    );
    const { plan: path, screen, at } = given;
    if (!path || !screen || !at) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    return orRefuse(() => {
      const plan = readPlanFile(path);
      const { id } = oneNamed('screen', 'screen', plan.screens, screen);
      const firings = given.firings === undefined ? [] : orThrow(readFirings(readJsonFile(given.firings)));
      const { sentence, reasons, over } = why(plan, id, instantOption('at', at), firings);
      const above = over.map((one) => ({ ...one, until: one.until === null ? null : formatInstant(one.until) }));
      const written = reasons.map((one) => ({ ...one, until: one.until === null ? null : formatInstant(one.until) }));
      console.log(
        given.json
          ? JSON.stringify({ sentence, reasons: written, ...(over.length > 0 ? { over: above } : {}) })
          : sentence,
      );
      return 0;
    });
  },
};
