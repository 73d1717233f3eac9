import type { Transaction } from 'sequelize';
import { ObjectRow, PairingRow, PlayerRow, publish, rows, transaction } from '@/database';
import { readPlace } from '@/core/walls';
import { notFound } from '../errors';
import { Refusal } from '@/core/refusal';
import { demand, giveBackAttempt, limitAttempts, placeOf, newToken, tokenHash, type Actor } from '../people';
import { newUserCode, readCode, showCode } from './codes';
import { noteWaiting, startEnrolment, type Enrolling } from './enrolment';
import { namedPlace, readyPart } from './places';

/** Device authorization after RFC 8628, for players. */

/** Ends the players of a screen, or that of one of its displays: their tokens, and in all processes their streams. Returns how many. */
async function endPlayers(networkId: string, screenId: string, part: number | null, within: Transaction) {
  const where = part === null ? { screenId } : { screenId, part };
  const ended = await PlayerRow.findAll({ where, transaction: within });
  await PlayerRow.destroy({ where: { id: ended.map(({ id }) => id) }, transaction: within });
  for (const { id } of ended) await publish({ kind: 'player', network: networkId, player: id }, within);
  return ended.length;
}

const VALID_SECONDS = 15 * 60;
const POLL_SECONDS = 2;
const GUESSES = { most: 20, seconds: 600 };
const REQUESTS = { most: 1200, seconds: 600 };

export interface PairingStart {
  readonly deviceCode: string;
  readonly userCode: string;
  readonly expiresIn: number;
  readonly interval: number;
  /** Of a player that waits in a tray: what it shows large. */
  readonly number?: number;
}

/**
 * A code for a player to show. The device code is its secret; only its hash is stored. With an enrolment key the player waits in its network's
 * tray too (`startEnrolment`). `was` is the token that it had before: if its screen was removed and comes back, so does this player.
 */
export async function startPairing(address: string, enrolling?: Enrolling, was?: string): Promise<PairingStart> {
  await limitAttempts(`pairing:${placeOf(address)}`, REQUESTS.most, REQUESTS.seconds);
  await rows('DELETE FROM pairings WHERE expires_at < now()');
  const wasHash = was === undefined ? null : tokenHash(was);
  if (enrolling) {
    const started = await startEnrolment(enrolling, address);
    await PairingRow.update({ wasHash }, { where: { deviceHash: tokenHash(started.deviceCode) } });
    return started;
  }
  const { token, hash } = newToken();
  for (;;) {
    const userCode = newUserCode();
    const taken = await PairingRow.findOne({ where: { userCode } });
    if (taken) continue;
    await PairingRow.create({
      deviceHash: hash,
      userCode,
      wasHash,
      expiresAt: new Date(Date.now() + VALID_SECONDS * 1000),
    });
    return { deviceCode: token, userCode: showCode(userCode), expiresIn: VALID_SECONDS, interval: POLL_SECONDS };
  }
}

/**
 * A player's token once its code was typed. `pending` before that, `expired` when the code is over. Until the code's time is
 * over each call gives a new token in place of the last, so that an answer lost on the way costs nothing.
 */
export async function collectToken(deviceCode: string): Promise<{ token: string } | 'pending' | 'expired'> {
  await noteWaiting(deviceCode);
  return transaction(async (within) => {
    const pairing = await PairingRow.findOne({
      where: { deviceHash: tokenHash(deviceCode) },
      transaction: within,
      lock: within.LOCK.UPDATE,
    });
    if (!pairing || pairing.expiresAt.getTime() < Date.now()) return 'expired';
    const before = await playerBefore(pairing.wasHash, within);
    const { screenId, part } = pairing.screenId
      ? pairing
      : { screenId: before?.screenId ?? null, part: before?.part ?? 1 };
    if (!screenId) return 'pending';
    const screen = await ObjectRow.findByPk(screenId, { transaction: within });
    if (!screen) return 'expired';
    const { token, hash } = newToken();
    // It has been given a screen, so it is no longer waited for where it was.
    if (before && (before.screenId !== screenId || before.part !== part))
      await endPlayers(before.networkId, before.screenId, before.part, within);
    await rows('DELETE FROM removed_players WHERE token_hash = $1', [pairing.wasHash], within);
    await pairing.update({ screenId, part }, { transaction: within });
    await endPlayers(screen.networkId, screen.id, part, within);
    await PlayerRow.create(
      { networkId: screen.networkId, screenId: screen.id, part, tokenHash: hash },
      { transaction: within },
    );
    await publish({ kind: 'players', network: screen.networkId }, within);
    return { token };
  });
}

/** The player of a token that is good again: its screen was removed and came back. */
async function playerBefore(wasHash: string | null, within: Transaction): Promise<PlayerRow | null> {
  return wasHash === null ? null : PlayerRow.findOne({ where: { tokenHash: wasHash }, transaction: within });
}

/**
 * Pairs the player that shows `code` with a place (a screen, or "wall/2": a display of a wall), in place of an earlier player. Said twice it is as
 * said once. Throws 404, 422 or 429.
 */
export async function pairScreen(actor: Actor, place: string, code: string, address: string): Promise<void> {
  demand(actor, 'operate');
  const named = await namedPlace(actor.networkId, place);
  const { screen } = named;
  // Counted before the code is looked at: who has guessed too often does not learn whether the next guess is right.
  const counted = [`guess:${actor.personId ?? ''}`, `guess:${placeOf(address)}`];
  for (const key of counted) await limitAttempts(key, GUESSES.most, GUESSES.seconds);
  const userCode = readCode(code);
  const paired =
    userCode !== null &&
    (await transaction(async (within) => {
      const pairing = await PairingRow.findOne({ where: { userCode }, transaction: within, lock: within.LOCK.UPDATE });
      if (!pairing || pairing.expiresAt.getTime() < Date.now()) return false;
      // Said again, since the answer was lost on the way.
      if (pairing.screenId === screen.id && (named.part === null || pairing.part === named.part)) return true;
      // It waits in another network's tray.
      if (pairing.networkId && pairing.networkId !== screen.networkId) return false;
      if (pairing.screenId) return false;
      const part = await readyPart(named, within);
      await PairingRow.destroy({ where: { screenId: screen.id, part }, transaction: within });
      // The code of one that waits in a tray lasts for days, and is over now as any other's soon is.
      const over = new Date(Math.min(pairing.expiresAt.getTime(), Date.now() + VALID_SECONDS * 1000));
      await pairing.update({ screenId: screen.id, part, expiresAt: over }, { transaction: within });
      return true;
    }));
  if (!paired)
    throw new Refusal(
      422,
      'No player shows this code now. Read it again from the screen. A code works for 15 minutes.',
      [{ path: '/code', message: 'No player shows this code now.' }],
    );
  for (const key of counted) await giveBackAttempt(key);
}

/** One of a list: the code that a player shows, and its place: a screen, or a display of a wall. */
export interface Pair {
  readonly screen: string;
  readonly code: string;
}

/** Pairs many players, one after the other. Each stands alone: says of each what was wrong; null if it was paired. */
export async function pairScreens(
  actor: Actor,
  list: readonly Pair[],
  address: string,
): Promise<(Pair & { readonly error: string | null })[]> {
  demand(actor, 'operate');
  const results: (Pair & { readonly error: string | null })[] = [];
  for (const one of list) {
    const error = await pairScreen(actor, one.screen, one.code, address).then(
      () => null,
      (reason: unknown) => {
        if (reason instanceof Refusal) return reason.message;
        throw reason;
      },
    );
    results.push({ ...one, error });
  }
  return results;
}

/** Takes the player of a place away, or all players of a wall: their tokens end at once. Throws 404 if there is none. */
export async function unpairScreen(actor: Actor, place: string): Promise<void> {
  demand(actor, 'operate');
  await transaction(async (within) => {
    const { screen: id, part } = readPlace(place);
    const screen = await ObjectRow.findOne({
      where: { networkId: actor.networkId, kind: 'screen', slug: id },
      transaction: within,
    });
    const ended = screen ? await endPlayers(actor.networkId, screen.id, part, within) : 0;
    if (!screen || ended === 0) throw notFound('player');
    const ofPlace = part === null ? { screenId: screen.id } : { screenId: screen.id, part };
    await PairingRow.destroy({ where: ofPlace, transaction: within });
    await publish({ kind: 'players', network: actor.networkId }, within);
  });
}
