import type { Transaction } from 'sequelize';
import { guardedIn, newlyGuarded } from '@/core/edition';
import { contentKey, objectIn, type Booking, type Plan } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { ROLE, ROLES } from '@/core/roles';
import { rows } from '@/database';
import type { Actor } from '../people';
import { loadObjects, type Write } from './objects';

/**
 * Takeovers that only some people may fire, and every way around that: changing what was prepared, firing or putting on a copy of it, publishing it
 * without "on hold". Each of these asks here.
 */

interface Who {
  readonly id: string;
  readonly name: string;
}

/** Who may fire a takeover, by the booking's id, where that was said. */
export type Guards = ReadonlyMap<string, readonly Who[]>;

const WHO_OPERATE = ROLES.filter((role) => ROLE[role].may.includes('operate'));

/**
 * All guards of a network. People who have left, or whose role can't fire takeovers, don't count. If no one remains, owners may fire: a
 * takeover that was guarded never opens to everybody by itself.
 */
export async function guardsOf(networkId: string, within?: Transaction): Promise<Guards> {
  const found = await rows<Who & { booking: string; counts: boolean }>(
    `SELECT t.booking, p.id, p.name, p.removed_at IS NULL AND p.role = ANY($2) AS counts FROM takeover_people t
     JOIN people p ON p.id = t.person_id WHERE t.network_id = $1 ORDER BY p.name, p.id`,
    [networkId, WHO_OPERATE],
    within,
  );
  const guards = new Map<string, Who[]>();
  for (const { booking, id, name, counts } of found) {
    const list = guards.get(booking) ?? [];
    if (counts) list.push({ id, name });
    guards.set(booking, list);
  }
  if (![...guards.values()].some((list) => list.length === 0)) return guards;
  const owners = await rows<Who>(
    "SELECT id, name FROM people WHERE network_id = $1 AND role = 'owner' AND removed_at IS NULL ORDER BY name, id",
    [networkId],
    within,
  );
  return new Map([...guards].map(([booking, list]) => [booking, list.length > 0 ? list : owners]));
}

/** Those of some guards that do not let the actor through: none for the command line, which whoever runs the server has. */
const against = (guards: Guards, { personId }: Actor): string[] =>
  personId === null ? [] : [...guards].flatMap(([id, list]) => (list.some((who) => who.id === personId) ? [] : [id]));

const namesOf = (list: readonly Who[] = []): string => list.map(({ name }) => name).join(' or ');

/** Throws 403 where only others may fire a booking of a plan, or what it shows. `glass` is the plan that screens show now, where there is one. */
export async function refuseToFire(
  actor: Actor,
  booking: Booking,
  { plan, glass }: { readonly plan: Plan; readonly glass?: Plan },
  within: Transaction,
): Promise<void> {
  const guards = await guardsOf(actor.networkId, within);
  const [first] = guardedIn(plan, booking, against(guards, actor), glass ? [glass] : []);
  if (first === undefined) return;
  const what = objectIn(plan, 'booking', first)?.name ?? booking.name;
  throw new Refusal(403, `Only ${namesOf(guards.get(first))} may do this with “${what}”. Ask them.`);
}

/** Throws 403 where an edit changes a takeover that only others may fire, or makes another one of what it shows. */
export async function refuseGuarded(actor: Actor, writes: readonly Write[], within: Transaction): Promise<void> {
  const bookings = writes.filter((one) => one.kind === 'booking');
  if (bookings.length === 0 || actor.personId === null) return;
  const guards = await guardsOf(actor.networkId, within);
  const closed = against(guards, actor);
  if (closed.length === 0) return;
  const keys = closed.map((id) => ({ kind: 'booking', id }) as const);
  const known = [...(await loadObjects(actor.networkId, keys, within)).values()] as Booking[];
  for (const { id, before, after } of bookings) {
    const takeovers = [before, after].filter((one): one is Booking => (one as Booking | null)?.takeover === true);
    const first = known.find(
      (guarded) =>
        guarded.id === id || takeovers.some(({ content }) => contentKey(content) === contentKey(guarded.content)),
    );
    if (!first) continue;
    const who = namesOf(guards.get(first.id));
    throw new Refusal(
      403,
      first.id === id
        ? `Only ${who} may activate “${first.name}”, so you can’t change it. Ask them to.`
        : `Only ${who} may show this as a takeover, because it is what “${first.name}” shows. Ask them.`,
    );
  }
}

/** Throws 403 where a plan that is about to go out puts a takeover on the screens that only others may fire. */
export async function refuseToSend(
  actor: Actor,
  { before, after }: { readonly before: Plan; readonly after: Plan },
  within: Transaction,
): Promise<void> {
  const guards = await guardsOf(actor.networkId, within);
  const [first] = newlyGuarded(before, after, against(guards, actor));
  if (!first) return;
  throw new Refusal(
    403,
    `“${first.booking.name}” would go out with this, and only ${namesOf(guards.get(first.under[0] ?? ''))} may show it as a takeover. Leave it out, or ask them to publish.`,
  );
}
