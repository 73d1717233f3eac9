import { writeFileSync } from 'node:fs';
import { planFile, readPlan } from '@/core/plan';
import { orThrow } from '@/core/refusal';
import { draftPlan, importPlan } from '@/services/plan';
import { options, type Command } from './options';
import { readJsonFile } from './plan-file';
import { actorFor, withDatabase } from './with-database';

const exportUsage = 'export [--network ID] [--out FILE]   (without --out it goes to standard output)';

export const exportCommand: Command = {
  usage: exportUsage,
  async run(args) {
    const { network, out } = options(args, { network: { type: 'string' }, out: { type: 'string' } }, exportUsage);
    return withDatabase(async () => {
      const { plan } = await draftPlan(await actorFor(network));
      const text = `${JSON.stringify(orThrow(readPlan(planFile(plan))), null, 2)}\n`;
      if (out) writeFileSync(out, text);
      else process.stdout.write(text);
      return 0;
    });
  },
};

const importUsage = `import --plan FILE|- [--network ID]
       Makes the network’s draft equal to the plan file. Whatever isn’t in the file is removed. Nothing reaches the screens until you publish.`;

export const importCommand: Command = {
  usage: importUsage,
  async run(args) {
    const { network, plan } = options(args, { network: { type: 'string' }, plan: { type: 'string' } }, importUsage);
    if (!plan) {
      console.error(`Usage: lanternpost ${importUsage}`);
      return 2;
    }
    return withDatabase(async () => {
      const { changes } = await importPlan(await actorFor(network), readJsonFile(plan));
      console.log(
        changes.length === 1
          ? '1 change. It is a draft until it is published.'
          : `${changes.length} changes. They are a draft until they are published.`,
      );
      return 0;
    });
  },
};
