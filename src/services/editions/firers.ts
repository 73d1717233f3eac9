import { objectIn, type Booking } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { ROLE, type Role } from '@/core/roles';
import { publish, rows } from '@/database';
import { notFound } from '../errors';
import { demand, record, type Actor } from '../people';
import { guardsOf, inTurn, loadPlan, refuseToFire, takeTurn } from '../plan';
import { type Firing, firings } from './firings';

/** Who may fire which takeover. */

/** What a page knows of takeovers besides the plan. */
export interface Takeovers {
  /** The takeovers that are prepared in the draft: a program fires one by its id. */
  readonly prepared: readonly Pick<Booking, 'id' | 'name'>[];
  readonly firings: readonly Firing[];
  /** Who alone may fire which takeover, by the booking's id: ids of people. Of others everybody may whose role may. */
  readonly firers: Readonly<Record<string, readonly string[]>>;
}

export async function takeovers(actor: Actor): Promise<Takeovers> {
  const guards = await guardsOf(actor.networkId);
  const prepared = await rows<{ id: string; name: string }>(
    `SELECT slug AS id, name FROM plan_objects WHERE network_id = $1 AND kind = 'booking'
       AND document->'takeover' = 'true' AND document->'onHold' = 'true' ORDER BY name`,
    [actor.networkId],
  );
  return {
    prepared,
    firings: await firings(actor),
    firers: Object.fromEntries([...guards].map(([booking, people]) => [booking, people.map(({ id }) => id)])),
  };
}

/**
 * Sets who may fire, drill and clear a takeover, by their ids; an empty list lets everybody whose role allows it. Only a person who may fire it now, or an owner, may set this.
 * Throws 403 for anybody else, 404 for no takeover, 422 for people whom the network does not have, or whose role fires nothing.
 */
export async function setFirers(actor: Actor, id: string, people: readonly string[]): Promise<void> {
  if (!actor.may.includes('people')) demand(actor, 'operate');
  const { networkId } = actor;
  await inTurn(networkId, async (within) => {
    await takeTurn(networkId, within);
    const draft = await loadPlan(networkId, within);
    const booking = objectIn(draft, 'booking', id);
    if (!booking?.takeover) throw notFound('takeover');
    if (!actor.may.includes('people')) await refuseToFire(actor, booking, { plan: draft }, within);
    await rows('DELETE FROM takeover_people WHERE network_id = $1 AND booking = $2', [networkId, id], within);
    const wanted = [...new Set(people)];
    const set = await rows<{ name: string; role: Role }>(
      `WITH chosen AS (SELECT id, name, role FROM people WHERE network_id = $1 AND removed_at IS NULL AND id = ANY($3::uuid[])),
         written AS (INSERT INTO takeover_people (network_id, booking, person_id) SELECT $1, $2, id FROM chosen)
       SELECT name, role FROM chosen ORDER BY name`,
      [networkId, id, wanted],
      within,
    );
    if (set.length !== wanted.length)
      throw new Refusal(422, 'One of these people is no longer here. Reload the page, then choose again.');
    const unfit = set.find(({ role }) => !ROLE[role].may.includes('operate'));
    if (unfit)
      throw new Refusal(
        422,
        `${unfit.name} can’t activate takeovers as ${ROLE[unfit.role].name.toLowerCase()}. Choose another person, or change their role first.`,
      );
    await record({ ...actor, act: 'firers-set', about: booking.name }, within);
    await publish({ kind: 'edition', network: networkId }, within);
  });
}
