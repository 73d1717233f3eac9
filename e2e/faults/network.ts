import { createHash, randomBytes } from 'node:crypto';
import { crc32, deflateSync } from 'node:zlib';
import { SimulatedPlayer } from '@/fleet';
import { callOffPlanned, pilotEdition, plannedEditions, publishEdition, publishPlanned } from '@/services/editions';
import { addPerson, type Actor } from '@/services/people';
import { createNetwork, draftPlan, edit, lastChange } from '@/services/plan';
import { pairScreen } from '@/services/screens';

/** One network under load: what was confirmed to it is kept here, and asked for at the end. */

const SCREENS = 12;

export interface Confirmed {
  /** The last name of each playlist that was confirmed, and those that were tried after it. */
  readonly names: Map<string, { last: string; tried: string[] }>;
  readonly screens: Set<string>;
  readonly uploads: Map<string, string>;
  readonly editions: Set<number>;
  /** Notes of editions that wait or are out: each exists once, whatever was killed, unless a person tried to cancel it. */
  readonly notes: Set<string>;
  /** Whether the takeover is in force; null where the last attempt was not answered. */
  fired: boolean | null;
  /** Whether a takeover is being activated or cleared at this moment: the order of two at once is unknown. */
  firing: boolean;
}

export interface Loaded {
  readonly actor: Actor;
  readonly mark: string;
  readonly person: { readonly email: string; readonly password: string };
  readonly confirmed: Confirmed;
  readonly players: readonly SimulatedPlayer[];
}

/** Makes a network of some screens, published, with a player for each; they are shared out over the servers. */
export async function newLoaded(mark: string, servers: readonly string[]): Promise<Loaded> {
  const password = `a password of ${mark}`;
  const person = { email: `${mark}@example.org`, password };
  const actor = await addPerson(await createNetwork({ name: mark, slug: mark }), { name: mark, ...person });
  const screens = Array.from({ length: SCREENS }, (_, i) => `${mark}-${i}`);
  await edit(actor, [
    { kind: 'site', id: 'quay', add: { name: `${mark} quay`, timeZone: 'Europe/Oslo' } },
    ...screens.map((id) => ({
      ...{ kind: 'screen' as const, id },
      add: { name: id, site: 'quay', width: 1920, height: 1080, tags: [mark] },
    })),
    ...[0, 1, 2].map((i) => ({
      kind: 'playlist' as const,
      id: `list-${i}`,
      add: { name: `${mark} ${i} 0`, items: [] },
    })),
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  // Each from an address of its own, as far as the limits of guesses are concerned.
  const players = screens.map(
    (id, i) =>
      new SimulatedPlayer({
        server: servers[i % servers.length] ?? '',
        onCode: (code) => void pairScreen(actor, id, code, `${mark} ${i}`).catch(() => undefined),
      }),
  );
  return {
    ...{ actor, mark, person, players },
    confirmed: {
      names: new Map(),
      screens: new Set(screens),
      uploads: new Map(),
      editions: new Set([1]),
      notes: new Set(),
      fired: false,
      firing: false,
    },
  };
}

type Doing = (network: Loaded, server: string, cookie: string) => Promise<void>;
let count = 0;

/** What people do, each confirmed or not. A failed act isn't a fault: nothing was promised. */
export const DOINGS = {
  async rename({ actor, mark, confirmed }) {
    const id = `list-${Math.floor(Math.random() * 3)}`;
    const name = `${mark} ${id.at(-1)} ${++count}`;
    const known = confirmed.names.get(id) ?? { last: '', tried: [] };
    confirmed.names.set(id, known);
    known.tried.push(name);
    await edit(actor, [{ kind: 'playlist', id, set: { name } }]);
    known.last = name;
    known.tried.splice(0, known.tried.indexOf(name) + 1);
  },
  async publish({ actor, confirmed }) {
    const { number } = await publishEdition(actor, await lastChange(actor.networkId));
    confirmed.editions.add(number);
  },
  async screens({ mark, confirmed }, server, cookie) {
    const screens = [{ name: `${mark} more ${++count}`, width: 100, height: 100, tags: [mark] }];
    const body = await sent(`${server}/api/screens`, cookie, JSON.stringify({ site: 'quay', screens }));
    for (const id of (body as { ids: string[] }).ids) confirmed.screens.add(id);
  },
  async upload({ mark, confirmed }, server, cookie) {
    const bytes = noisePng();
    const name = `${mark}-${++count}.png`;
    await sent(`${server}/api/uploads?name=${name}`, cookie, bytes);
    confirmed.uploads.set(name.replace('.png', ''), createHash('sha256').update(bytes).digest('hex'));
  },
  /** Screens get other programs: without that there is nothing to publish. */
  async darken({ actor, mark }) {
    const window: [string, string] = [`02:${String(10 + (++count % 50))}`, '04:00'];
    const ids = [0, 1, 2, 3].map((i) => `${mark}-${(count + i * 3) % SCREENS}`);
    await edit(
      actor,
      ids.map((id) => ({ kind: 'screen' as const, id, set: { lightsOut: [{ windows: [window] }] } })),
    );
  },
  async plan({ actor, confirmed }, server, cookie) {
    const note = `plan ${++count}`;
    const basedOn = await lastChange(actor.networkId);
    await sent(`${server}/api/planned`, cookie, JSON.stringify({ basedOn, note, at: Date.now() + 8000 }));
    confirmed.notes.add(note);
  },
  async pilot({ actor, mark, confirmed }) {
    const note = `pilot ${++count}`;
    const pilot = { where: `screen:${mark}-${count % SCREENS}`, minutes: 1 };
    await pilotEdition(actor, await lastChange(actor.networkId), pilot, { note });
    confirmed.notes.add(note);
  },
  /** What waits is called off, or published early. */
  async decide({ actor, confirmed }) {
    const [first] = await plannedEditions(actor);
    if (!first) return;
    if (Math.random() < 0.5) return void confirmed.editions.add((await publishPlanned(actor, first.id)).number);
    confirmed.notes.delete(first.note ?? '');
    await callOffPlanned(actor, first.id);
  },
  async fire({ actor, mark, confirmed }, server, cookie) {
    const { plan } = await draftPlan(actor);
    const [file] = plan.media;
    if (!file) return;
    if (!plan.bookings.some(({ id }) => id === 'gale')) {
      const gale = { name: `${mark} gale`, content: { media: file.id }, where: mark, priority: 5 as const };
      const add = { ...gale, takeover: true, onHold: true, created: '2026-01-01T00:00:00Z', when: {} };
      return void (await edit(actor, [{ kind: 'booking', id: 'gale', add }]));
    }
    const what = Math.random() < 0.5 ? 'fire' : 'all-clear';
    if (confirmed.firing) return;
    confirmed.firing = true;
    confirmed.fired = null;
    try {
      await sent(`${server}/api/takeovers/gale/${what}`, cookie, '{}');
      confirmed.fired = what === 'fire';
    } finally {
      confirmed.firing = false;
    }
  },
} satisfies Readonly<Record<string, Doing>>;

async function sent(url: string, cookie: string, body: string | Uint8Array<ArrayBuffer>): Promise<unknown> {
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': typeof body === 'string' ? 'application/json' : 'application/octet-stream', cookie },
    body,
    signal: AbortSignal.timeout(20_000),
  });
  if (!response.ok) throw new Error(`${response.status}`);
  return response.json();
}

/** A small picture that no other is like. */
function noisePng(size = 24): Uint8Array<ArrayBuffer> {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([length, body, sum]);
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(size, 0);
  header.writeUInt32BE(size, 4);
  header.set([8, 2], 8);
  const rows = Buffer.concat(
    Array.from({ length: size }, () => Buffer.concat([Buffer.from([0]), randomBytes(size * 3)])),
  );
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Uint8Array.from(
    Buffer.concat([signature, chunk('IHDR', header), chunk('IDAT', deflateSync(rows)), chunk('IEND', Buffer.alloc(0))]),
  );
}
