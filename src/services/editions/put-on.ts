import { nameAmong, putOnOf, puttingOn } from '@/core/booking';
import { chosenPlan } from '@/core/edition';
import {
  CONTENTS,
  knownContent,
  objectIn,
  withObject,
  withPatches,
  type Booking,
  type Content,
  type Plan,
} from '@/core/plan';
import { Refusal, orThrow } from '@/core/refusal';
import { parseSelector, screensMatching, selectorOf } from '@/core/selector';
import { clocksOf, isSpan } from '@/core/when';
import { notFound } from '../errors';
import { demand, type Actor } from '../people';
import { draftWithin, editWithin, inUrgentTurn, refuseToFire } from '../plan';
import { newestInTurn, writeAside } from './aside';

/** What is put on at once. */
export interface PuttingOn {
  readonly content: Content;
  /** A selector of the screens. */
  readonly where: string;
  /** Until when, as an instant. */
  readonly until: number;
  /** On which zone's clock it is written down. */
  readonly zone: string;
  /** Whether displays in lights-out hours are switched on for it. Otherwise they stay dark. */
  readonly wake?: boolean | undefined;
}

export interface IsPutOn {
  /** The booking's id: what ends it. */
  readonly id: string;
  readonly edition: number;
  readonly screens: readonly string[];
}

/**
 * Puts a file or a playlist on screens at once and until an instant, less than a day away: as a takeover of the lowest priority, in an
 * edition of its own that is the newest one's plan and this booking alone, with the content that it needs; and in the draft, so that the
 * next publication leaves it on. It ends by itself, on players that are offline by then too. Throws 409 before the first edition, 422 for
 * what can't be put on, and where none of the screens is in an edition yet.
 */
export async function putOn(
  actor: Actor,
  { content, where, until, zone, wake = false }: PuttingOn,
  now = Date.now(),
): Promise<IsPutOn> {
  demand(actor, 'operate');
  if (!isSpan(now, until))
    throw new Refusal(422, 'Choose an end within the next 24 hours. For anything longer, make a booking in Plan.');
  return inUrgentTurn(actor.networkId, async (within) => {
    const { newest, whole } = await newestInTurn(actor, now, within);
    const screens = screensMatching(newest.plan, orThrow(parseSelector(where))).map(({ id }) => id);
    if (screens.length === 0)
      throw new Refusal(422, 'None of these screens is in an edition yet. Publish them first, then put something on.');
    const { plan: draft } = await draftWithin(actor.networkId, within);
    const { kind, id: contentId } = knownContent(content);
    const named = kind === 'input' ? { name: contentId } : objectIn(draft, kind, contentId);
    if (!named) throw notFound(CONTENTS[kind].called);
    const made = {
      ...{ content, where, created: new Date(now).toISOString(), ...puttingOn(now, until, zone) },
      ...(wake ? { wake } : {}),
      name: nameAmong(new Set(draft.bookings.map((one) => one.name)), `${named.name}, put on`),
    };
    await refuseToFire(actor, { id: '', ...made }, { plan: draft, glass: newest.plan }, within);
    const { ids, patches } = await editWithin(actor, [{ kind: 'booking', add: made }], within);
    const [id = ''] = ids;
    const booking = { kind: 'booking', id } as const;
    const after = withPatches(draft, patches);
    const alone = (plan: Plan) => chosenPlan(plan, after, [booking], { withPlaces: false }).plan;
    const aside = { made: alone, note: `Put on: ${named.name}`, shown: { id, name: named.name, screens } };
    return { id, edition: await writeAside(actor, newest, aside, { plan: after, whole }, within), screens };
  });
}

/**
 * Ends what was put on, for the screens that still show it: in the newest edition and in the draft alike. Throws 404 for what is not on,
 * and 409 where it is over already.
 */
export async function endPutOn(actor: Actor, id: string, now = Date.now()): Promise<IsPutOn> {
  demand(actor, 'operate');
  return inUrgentTurn(actor.networkId, async (within) => {
    const { newest, whole } = await newestInTurn(actor, now, within);
    const booking = objectIn(newest.plan, 'booking', id);
    const on = booking && putOnOf(booking);
    if (!booking || !on) throw notFound('booking that was put on');
    if (on.to <= now) throw new Refusal(409, `“${booking.name}” has ended by itself already.`);
    const { when } = puttingOn(on.from, Math.max(now, on.from + 1000), clocksOf(booking.when)[0] ?? 'UTC');
    const { plan: draft } = await draftWithin(actor.networkId, within);
    const { patches } = objectIn(draft, 'booking', id)
      ? await editWithin(actor, [{ kind: 'booking', id, set: { when } }], within)
      : { patches: [] };
    const ended = (plan: Plan) => {
      const there = objectIn(plan, 'booking', id);
      return there ? withObject(plan, 'booking', id, { ...there, when } satisfies Booking) : plan;
    };
    const aside = { made: ended, note: `Ended: ${booking.name}` };
    const screens = screensMatching(newest.plan, selectorOf(booking.where)).map((screen) => screen.id);
    const after = { plan: withPatches(draft, patches), whole };
    return { id, edition: await writeAside(actor, newest, aside, after, within), screens };
  });
}
