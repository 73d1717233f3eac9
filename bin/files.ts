import { TRASH_DAYS, acceptPairing, checkFiles, checkPairing, cleanUp } from '@/services/library';
import { optionsAndNames, type Command } from './options';
import { withDatabase } from './with-database';

const usage = `files check | clean [--all] | pair
       check   read every stored file and compare it with its hash; exits 1 if one is damaged or missing
       clean   move files that nothing needs to the trash, where they stay for ${TRASH_DAYS} days; --all even if they are many
       pair    accept that the media folder and the database belong together as they are now: after you restored one of them
       Environment: DATABASE_URL and LANTERNPOST_DATA, as for start`;

async function check(): Promise<number> {
  const pairing = await checkPairing();
  if (pairing.kind === 'apart') console.error(pairing.why);
  const { files, damaged } = await checkFiles(new Date(), {
    tell: (n) => n % 1000 === 0 && console.error(`${n} files checked`),
  });
  for (const sha256 of damaged) console.log(`Damaged or missing: ${sha256}`);
  console.log(`${files} files checked, ${damaged.length} damaged or missing.`);
  return damaged.length > 0 || pairing.kind === 'apart' ? 1 : 0;
}

async function clean(all: boolean): Promise<number> {
  const pairing = await checkPairing();
  if (pairing.kind === 'apart') {
    console.error(pairing.why);
    return 1;
  }
  const { files, left } = await cleanUp(new Date(), { all });
  console.log(`${files} files moved to the trash.`);
  if (left > 0) console.log(`${left} files that the database does not know were left: add --all to move them too.`);
  return 0;
}

export const command: Command = {
  usage,
  async run(args) {
    const { positionals, values } = optionsAndNames(args, { all: { type: 'boolean', default: false } }, usage);
    const [what] = positionals;
    if (positionals.length !== 1 || (what !== 'check' && what !== 'clean' && what !== 'pair')) {
      console.error(`Say what to do with the files.\nUsage: lanternpost ${usage}`);
      return 2;
    }
    return withDatabase(async () => {
      if (what === 'check') return check();
      if (what === 'clean') return clean(values.all);
      await acceptPairing();
      console.log('The media folder and the database are paired.');
      return 0;
    });
  },
};
