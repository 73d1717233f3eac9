import { writeFileSync } from 'node:fs';
import { playerApiDescription } from '@/protocol/app';
import { options, type Command } from './options';

const usage = 'openapi [--out FILE]';

export const command: Command = {
  usage,
  async run(args) {
    const { out } = options(args, { out: { type: 'string', default: 'docs/openapi.json' } }, usage);
    writeFileSync(out, `${JSON.stringify(playerApiDescription(), null, 2)}\n`);
    console.log(`Written: ${out}`);
    return 0;
  },
};
