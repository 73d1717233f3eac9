import { DAY, formatInstant } from '@/core/instant';
import { findings, type Finding } from '@/core/preflight';
import { options, type Command } from './options';
import { instantOption, orRefuse, readPlanFile, spanText } from './plan-file';

const usage = `check --plan FILE|- [--from INSTANT] [--to INSTANT] [--json]
       Covers the next 28 days unless you give a time span. Exits 1 if a finding is an error, and 2 if the plan can’t be read.`;

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      { plan: { type: 'string' }, from: { type: 'string' }, to: { type: 'string' }, json: { type: 'boolean' } },
      usage,
    );
    if (!given.plan) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    const path = given.plan;
    return orRefuse(() => {
      const from = given.from ? instantOption('from', given.from) : Date.now();
      const to = given.to ? instantOption('to', given.to) : from + 28 * DAY;
      const found = findings(readPlanFile(path), from, to, Math.min(from, Date.now()));
      if (given.json) console.log(JSON.stringify({ findings: found.map(documentOf) }));
      else console.log(found.length === 0 ? 'Nothing found.' : found.map(textOf).join('\n\n'));
      return found.some((one) => one.severity === 'error') ? 1 : 0;
    });
  },
};

const documentOf = ({ times: _, ...one }: Finding) => ({ ...one, span: one.span && one.span.map(formatInstant) });

function textOf({ kind, severity, sentence, advice, span, screens }: Finding): string {
  const where =
    screens.length > 0
      ? `\n  on ${screens.slice(0, 8).join(', ')}${screens.length > 8 ? ` and ${screens.length - 8} more` : ''}`
      : '';
  return `${severity}: ${kind}\n  ${sentence}${span ? `\n  first ${spanText(span)}` : ''}${where}\n  ${advice}`;
}
