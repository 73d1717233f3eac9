import { join } from 'node:path';
import { SimulatedPlayer, type Character, type DeviceFault } from '@/fleet';
import { placeOf } from '@/core/walls';
import { SESSION_COOKIE } from '@/services/people/session-cookie';
import { options, type Command } from './options';

const usage = `fleet --server URL [--players N [--site ID | --enrol KEY] | --network] [--email E --password P] [--state FOLDER]
       --players N    N players that show their codes; with a login they are paired with screens that have none
       --site ID      with a login: add screens to this site where there are too few
       --network      one player for each screen of the network, and each display of a wall: most are steady, a few have a fault (needs a login)
       --enrol KEY    the players wait in the tray, with this enrolment key
       --state        keep the players’ tokens and programs in this folder, so they survive a restart
       The login may also come as LANTERNPOST_EMAIL and LANTERNPOST_PASSWORD, or as an open session, LANTERNPOST_SESSION.`;

/** The demo's odd ones out; every other screen's player is steady. */
const CHARACTERS: Record<string, Character> = {
  'ms-kivikko-deck': 'slow line',
  'skerrow-staff': 'goes dark',
  'kaldavik-lanes': 'wrong clock',
};
/** Whose devices have a fault. */
const FAULTS: Record<string, DeviceFault> = {
  'port-annick-hall': 'no brightness',
  'ternholm-door': 'restart fails',
  'skerrow-kiosk': 'wrong input',
};

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      {
        server: { type: 'string' },
        players: { type: 'string' },
        network: { type: 'boolean' },
        email: { type: 'string' },
        password: { type: 'string' },
        state: { type: 'string' },
        site: { type: 'string' },
        enrol: { type: 'string' },
      },
      usage,
    );
    const count = Number(given.players ?? 0);
    if (!given.server || (!given.network && !(Number.isInteger(count) && count > 0 && count <= 5000))) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    const server = given.server.replace(/\/$/, '');
    const email = given.email ?? process.env.LANTERNPOST_EMAIL;
    const password = given.password ?? process.env.LANTERNPOST_PASSWORD;
    const session = process.env.LANTERNPOST_SESSION;
    const operator = session
      ? Operator.of(server, session)
      : email && password
        ? await Operator.signIn(server, email, password)
        : null;
    if (given.network && !operator) throw new Error('Pairing needs a login. Add --email and --password.');
    const screens = operator && !given.enrol ? await operator.places() : [];
    const free: { id: string; state: string }[] = screens.filter(
      (screen) => given.network || screen.state === 'unpaired',
    );
    if (operator && !given.network && !given.enrol && free.length < count) {
      if (!given.site)
        throw new Error(
          `The network has ${free.length} screens without a player. Add --site to make more, or ask for fewer players.`,
        );
      const added = await operator.addScreens(given.site, count - free.length);
      free.push(...added.map((id) => ({ id, state: 'unpaired' })));
    }
    const names = given.network
      ? free.map((screen) => screen.id)
      : Array.from({ length: count }, (_, i) => free[i]?.id ?? `player-${i + 1}`);
    const players = names.map(
      (name) =>
        new SimulatedPlayer({
          server,
          character: given.network ? CHARACTERS[name] : undefined,
          fault: given.network ? FAULTS[name] : undefined,
          statePath: given.state ? join(given.state, `${name.replace('/', '-')}.json`) : undefined,
          enrolment: given.enrol ? { key: given.enrol, serial: name, software: 'simulated player' } : undefined,
          onCode: (code) => (operator ? void operator.pair(name, code) : console.log(`${name} shows ${code}`)),
        }),
    );
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.once(signal, () => {
        players.forEach((player) => player.stop());
        process.exit(0);
      });
    console.log(`${players.length} simulated players at ${server}`);
    await Promise.all(players.map((player) => player.run()));
    return 0;
  },
};

const RETRY_MS = 1000;

/** What a person would do in the interface, by its routes. */
class Operator {
  private queue: { screen: string; code: string }[] = [];

  private constructor(
    private readonly server: string,
    private readonly cookie: string,
  ) {}

  static of(server: string, session: string): Operator {
    return new Operator(server, `${SESSION_COOKIE}=${session}`);
  }

  static async signIn(server: string, email: string, password: string): Promise<Operator> {
    const response = await fetch(`${server}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email, password }),
    });
    if (!response.ok) {
      const told = (await response.json().catch(() => null)) as { title?: string } | null;
      throw new Error(
        told?.title ??
          `${server} answered ${response.status} instead of a login. Set --server to the interface’s address, not the gateway’s.`,
      );
    }
    return new Operator(
      server,
      response.headers
        .getSetCookie()
        .map((cookie) => cookie.split(';')[0])
        .join('; '),
    );
  }

  /** Where players can be: screens, and the displays of walls. */
  async places(): Promise<{ id: string; state: string }[]> {
    const response = await fetch(`${this.server}/api/statuses`, { headers: { cookie: this.cookie } });
    const statuses = (await response.json()) as {
      id: string;
      state: string;
      parts?: { number: number; state: string }[];
    }[];
    return statuses.flatMap(({ id, state, parts }) =>
      parts ? parts.map((part) => ({ id: placeOf(id, part.number), state: part.state })) : [{ id, state }],
    );
  }

  async addScreens(site: string, count: number): Promise<string[]> {
    const from = Date.now().toString(36);
    const screens = Array.from({ length: count }, (_, i) => ({
      name: `Load ${from} ${i + 1}`,
      width: 1920,
      height: 1080,
      tags: ['load'],
    }));
    const response = await fetch(`${this.server}/api/screens`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie: this.cookie },
      body: JSON.stringify({ site, screens }),
    });
    const body = (await response.json()) as { ids: string[]; title?: string };
    if (!response.ok) throw new Error(body.title ?? `The server answered ${response.status}.`);
    return body.ids;
  }

  /** Gathers codes for a moment, and types them all at once. */
  async pair(screen: string, code: string): Promise<void> {
    this.queue.push({ screen, code });
    if (this.queue.length > 1) return;
    await new Promise((resolve) => setTimeout(resolve, 300));
    const list = this.queue;
    this.queue = [];
    const response = await fetch(`${this.server}/api/screens/pair`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie: this.cookie },
      body: JSON.stringify(list),
    }).catch(() => null);
    if (!response || response.status >= 500) {
      // The server is away for a while: the players still show these codes, and new ones once they have run out.
      setTimeout(() => list.forEach((one) => void this.pair(one.screen, one.code)), RETRY_MS);
      return;
    }
    if (!response.ok) return console.error(`Pairing was refused (${response.status})`);
    for (const { screen: id, error } of (await response.json()) as { screen: string; error: string | null }[])
      if (error) console.error(`${id}: ${error}`);
  }
}
