import { writeFileSync } from 'node:fs';
import { planJsonSchema } from '@/core/plan';
import { options, type Command } from './options';

const usage = 'schema [--out FILE]';

export const command: Command = {
  usage,
  async run(args) {
    const { out } = options(args, { out: { type: 'string', default: 'docs/plan.schema.json' } }, usage);
    writeFileSync(out, `${JSON.stringify(planJsonSchema(), null, 2)}\n`);
    console.log(`Written: ${out}`);
    return 0;
  },
};
