import {
  dateOfLocalTime,
  describeWhen,
  isZone,
  readWhen,
  readingsOf,
  startOfDate,
  toLocalTime,
  zoneTable,
  type PhraseContext,
  type When,
} from '@/core/when';
import { options, type Command } from './options';
import { cannot, instantOption, orRefuse, readPlanFile } from './plan-file';

const usage = `when PHRASE [--at INSTANT] [--zone ZONE] [--plan FILE|-]
       Reads a time in words, as the field When of a booking does: "weekdays 05:30-10:00 until 28 Feb". Prints {"when", "said"}, and under
       "or" other possible meanings. If it can’t be read, prints {"problem"} and exits 1. “today” and “now” are taken from --at and --zone
       (now, and UTC, unless you give them). With a plan file, the names of its calendars and sites can be used.`;

export const command: Command = {
  usage,
  async run(args) {
    const phrase = args[0]?.startsWith('--') === false ? args[0] : undefined;
    const given = options(
      phrase === undefined ? args : args.slice(1),
      { at: { type: 'string' }, zone: { type: 'string' }, plan: { type: 'string' } },
      usage,
    );
    if (phrase === undefined) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    return orRefuse(() => {
      const zone = given.zone ?? 'UTC';
      if (!isZone(zone)) throw cannot('/zone', `“${zone}” isn’t a time zone. Write its IANA name, like Europe/Oslo.`);
      const plan = given.plan === undefined ? null : readPlanFile(given.plan);
      const wall = toLocalTime(zoneTable(zone), given.at === undefined ? Date.now() : instantOption('at', given.at));
      const today = dateOfLocalTime(wall);
      const context: PhraseContext = {
        today,
        time: wall - startOfDate(today),
        calendars: plan?.calendars ?? [],
        zones: [...new Set([zone, ...(plan?.sites ?? []).map((site) => site.timeZone)])],
      };
      const read = readWhen(phrase, context);
      if (!read.ok) {
        console.log(JSON.stringify({ problem: read.message }));
        return 1;
      }
      const told = (when: When) => ({ when, said: describeWhen(when) });
      const others = readingsOf(phrase, context).slice(1).map(told);
      console.log(JSON.stringify({ ...told(read.value), ...(others.length > 0 ? { or: others } : {}) }));
      return 0;
    });
  },
};
