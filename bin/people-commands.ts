import { ROLES } from '@/core/roles';
import { PersonRow } from '@/database';
import {
  foundNetwork,
  invite,
  networks,
  offerReset,
  people,
  removePerson,
  setRole,
  type Actor,
  type GivenLink,
} from '@/services/people';
import { libraryRoom, limitLibrary } from '@/services/library';
import { options, type Command } from './options';
import { cannot } from './plan-file';
import { COMMAND_LINE, actorFor, withDatabase } from './with-database';

const URL_USAGE = `--url is where people reach this server (default: LANTERNPOST_URL, or http://127.0.0.1:4170)`;

/** Tells a link, once: only the hash of its secret is stored. */
function tellLink({ token, expiresAt }: GivenLink, url: string | undefined, what: string): void {
  const base = (url ?? process.env.LANTERNPOST_URL ?? 'http://127.0.0.1:4170').replace(/\/$/, '');
  console.log(`${what}, once, until ${expiresAt}:\n${base}/join#${token}`);
}

const personUsage = `person list [--network ID]
       lanternpost person add --name NAME --email E --role ROLE [--network ID] [--url URL]   an invitation link for a new person
       lanternpost person role EMAIL ROLE                                        gives them another role: ${ROLES.join(', ')}
       lanternpost person reset EMAIL [--url URL]                                a link that sets a new password
       lanternpost person remove EMAIL
       ${URL_USAGE}`;

export const personCommand: Command = {
  usage: personUsage,
  async run([verb = '', ...args]) {
    const email = args[0]?.startsWith('-') === false ? args.shift() : undefined;
    const role = verb === 'role' && args[0]?.startsWith('-') === false ? args.shift() : undefined;
    const known = {
      network: { type: 'string' },
      name: { type: 'string' },
      email: { type: 'string' },
      role: { type: 'string' },
      url: { type: 'string' },
    } as const;
    const given = options(args, known, personUsage);
    const named = email?.toLowerCase();
    switch (verb) {
      case 'list':
        return withDatabase(async () => {
          for (const one of await people(await actorFor(given.network)))
            console.log([one.email, one.name, one.role, `${one.sessions} open`].join('\t'));
          return 0;
        });
      case 'add':
        return withDatabase(async () => {
          const actor = await actorFor(given.network);
          tellLink(
            await invite(actor, { name: given.name, email: given.email, role: given.role }),
            given.url,
            'The person who opens this link joins the network',
          );
          return 0;
        });
      case 'role':
        if (!named || role === undefined) break;
        return withDatabase(async () => {
          const { actor, id } = await personBy(named);
          await setRole(actor, id, role);
          console.log(`${named} is ${role} now.`);
          return 0;
        });
      case 'reset':
      case 'remove':
        if (!named) break;
        return withDatabase(async () => {
          const { actor, id } = await personBy(named);
          if (verb === 'reset') tellLink(await offerReset(actor, id), given.url, 'This sets a new password');
          else {
            await removePerson(actor, id);
            console.log(`${named} is removed.`);
          }
          return 0;
        });
    }
    console.error(`Usage: lanternpost ${personUsage}`);
    return 2;
  },
};

async function personBy(email: string): Promise<{ readonly actor: Actor; readonly id: string }> {
  const person = await PersonRow.findOne({ where: { email } });
  if (!person) throw cannot('', `Nobody has the address ${email}. Type lanternpost person list to see everyone.`);
  return { actor: { ...COMMAND_LINE, networkId: person.networkId }, id: person.id };
}

const networkUsage = `network list
       lanternpost network add NAME --name PERSON --email E [--url URL]   adds a network, and prints a link for its first person
       lanternpost network limit ID [--gigabytes N] [--files N]           sets how much its library may hold; without options, shows it
       ${URL_USAGE}`;

export const networkCommand: Command = {
  usage: networkUsage,
  async run([verb = '', ...args]) {
    const title = args[0]?.startsWith('-') === false ? args.shift() : undefined;
    const given = options(
      args,
      {
        ...{ name: { type: 'string' }, email: { type: 'string' }, url: { type: 'string' } },
        ...{ gigabytes: { type: 'string' }, files: { type: 'string' } },
      },
      networkUsage,
    );
    if (verb === 'limit' && title)
      return withDatabase(async () => {
        const actor = await actorFor(title);
        await limitLibrary(actor, { gigabytes: given.gigabytes, files: given.files });
        const { bytes, mostBytes, files, mostFiles } = await libraryRoom(actor);
        console.log(`${title}: ${(bytes / 1e9).toFixed(1)} of ${mostBytes / 1e9} GB, ${files} of ${mostFiles} files`);
        return 0;
      });
    if (verb === 'list')
      return withDatabase(async () => {
        for (const one of await networks()) console.log([one.slug, one.name, `${one.people} people`].join('\t'));
        return 0;
      });
    if (verb === 'add' && title)
      return withDatabase(async () => {
        const { slug, link } = await foundNetwork(
          { network: title, name: given.name, email: given.email },
          COMMAND_LINE,
        );
        tellLink(
          link,
          given.url,
          `The network ${slug} is ready. The person who opens this link becomes its first owner`,
        );
        return 0;
      });
    console.error(`Usage: lanternpost ${networkUsage}`);
    return 2;
  },
};
