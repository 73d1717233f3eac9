import { writeFileSync } from 'node:fs';
import { NetworkRow, closeDatabase } from '@/database';
import { orThrow, planFile, readPlan } from '@/core';
import type { Actor } from '@/services/people';
import { draftPlan, importPlan } from '@/services/plan';
import { options, type Command } from './options';
import { cannot, orRefuse, readJsonFile } from './plan-file';

/** The network that a command works on: the named one, or the only one. Throws Refusal. */
async function actorFor(slug: string | undefined): Promise<Actor> {
  const networks = await NetworkRow.findAll({ where: slug ? { slug } : {} });
  const [network] = networks;
  if (!network) throw cannot('/network', `There is no network ${slug ?? ''} in this database.`);
  if (networks.length > 1)
    throw cannot('/network', `Name one with --network: ${networks.map((one) => one.slug).join(', ')}.`);
  return { networkId: network.id, personId: null, name: 'the command line' };
}

async function withDatabase(work: () => Promise<number>): Promise<number> {
  try {
    return await orRefuse(work);
  } finally {
    await closeDatabase();
  }
}

const exportUsage =
  'export [--network ID] [--out FILE]   (needs DATABASE_URL; without --out it goes to standard output)';

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

const importUsage = `import --plan FILE|- [--network ID]   (needs DATABASE_URL)
       Makes the network's draft equal to the plan file, as changes that the docket counts; what is not in the file is removed.`;

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
      console.log(`${changes.length} changes. They are a draft until they are published.`);
      return 0;
    });
  },
};
