import type { Transaction } from 'sequelize';
import { ObjectRow, PairingRow, PlayerRow, publish, rows, transaction } from '@/database';
import { notFound } from '../errors';
import { Refusal } from '@/core/refusal';
import { demand, giveBackAttempt, limitAttempts, placeOf, newToken, tokenHash, type Actor } from '../people';
import { newUserCode, readCode, showCode } from './codes';

/** Device authorization after RFC 8628, for players. */

/** Ends the players of screens: their tokens, and in all processes their streams. */
async function endPlayers(networkId: string, screenIds: readonly string[], within: Transaction): Promise<void> {
  const ended = await PlayerRow.findAll({ where: { screenId: [...screenIds] }, transaction: within });
  if (ended.length === 0) return;
  await PlayerRow.destroy({ where: { id: ended.map(({ id }) => id) }, transaction: within });
  for (const { id } of ended) await publish({ kind: 'player', network: networkId, player: id }, within);
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
}

/** A code for a player to show. The device code is its secret; only its hash is stored. */
export async function startPairing(address: string): Promise<PairingStart> {
  await limitAttempts(`pairing:${placeOf(address)}`, REQUESTS.most, REQUESTS.seconds);
  await rows('DELETE FROM pairings WHERE expires_at < now()');
  const { token, hash } = newToken();
  for (;;) {
    const userCode = newUserCode();
    const taken = await PairingRow.findOne({ where: { userCode } });
    if (taken) continue;
    await PairingRow.create({ deviceHash: hash, userCode, expiresAt: new Date(Date.now() + VALID_SECONDS * 1000) });
    return { deviceCode: token, userCode: showCode(userCode), expiresIn: VALID_SECONDS, interval: POLL_SECONDS };
  }
}

/**
 * A player's token once its code was typed. `pending` before that, `expired` when the code is over. Until the code's time is
 * over each call gives a new token in place of the last, so that an answer lost on the way costs nothing.
 */
export async function collectToken(deviceCode: string): Promise<{ token: string } | 'pending' | 'expired'> {
  return transaction(async (within) => {
    const pairing = await PairingRow.findOne({
      where: { deviceHash: tokenHash(deviceCode) },
      transaction: within,
      lock: within.LOCK.UPDATE,
    });
    if (!pairing || pairing.expiresAt.getTime() < Date.now()) return 'expired';
    if (!pairing.screenId) return 'pending';
    const screen = await ObjectRow.findByPk(pairing.screenId, { transaction: within });
    if (!screen) return 'expired';
    const { token, hash } = newToken();
    await endPlayers(screen.networkId, [screen.id], within);
    await PlayerRow.create(
      { networkId: screen.networkId, screenId: screen.id, tokenHash: hash },
      { transaction: within },
    );
    await publish({ kind: 'players', network: screen.networkId }, within);
    return { token };
  });
}

/**
 * Pairs the player that shows `code` with a screen, in place of an earlier player. Said twice it is as said once. Throws 404, 422 or 429.
 */
export async function pairScreen(actor: Actor, screenId: string, code: string, address: string): Promise<void> {
  demand(actor, 'operate');
  const screen = await ObjectRow.findOne({ where: { networkId: actor.networkId, kind: 'screen', slug: screenId } });
  if (!screen) throw notFound('screen');
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
      if (pairing.screenId === screen.id) return true;
      if (pairing.screenId) return false;
      await PairingRow.destroy({ where: { screenId: screen.id }, transaction: within });
      await pairing.update({ screenId: screen.id }, { transaction: within });
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

/** Takes a screen's player away: its token ends at once. Throws 404 where there is none. */
export async function unpairScreen(actor: Actor, screenId: string): Promise<void> {
  demand(actor, 'operate');
  await transaction(async (within) => {
    const screen = await ObjectRow.findOne({
      where: { networkId: actor.networkId, kind: 'screen', slug: screenId },
      transaction: within,
    });
    const player = screen && (await PlayerRow.findOne({ where: { screenId: screen.id }, transaction: within }));
    if (!player) throw notFound('player');
    await PairingRow.destroy({ where: { screenId: player.screenId }, transaction: within });
    await endPlayers(actor.networkId, [player.screenId], within);
    await publish({ kind: 'players', network: actor.networkId }, within);
  });
}
