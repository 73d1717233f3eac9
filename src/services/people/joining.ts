import { Refusal } from '@/core/refusal';
import type { Role } from '@/core/roles';
import { InvitationRow, PersonRow, rows, transaction } from '@/database';
import { hashPassword, verifyPassword } from './hashing';
import { readInput } from './input';
import { forgetAttempts, limitAttempts, placeOf } from './limits';
import { joinSchema, passwordChangeSchema } from './schemas';
import type { Actor } from './actor';
import { endSessions, openSession, type OpenSession, type Origin } from './sessions';
import { tokenHash } from './tokens';
import { record } from './trail';

/** What a link is for, as shown to the person who opens it. */
export interface Offer {
  readonly network: string;
  readonly name: string;
  readonly email: string;
  readonly reset: boolean;
  /** What the person will be; null where the link sets a password. */
  readonly role: Role | null;
}

const TRIES = { most: 30, seconds: 300 };
const WRONG_PASSWORDS = { most: 10, seconds: 300 };

const noLink = () => new Refusal(404, 'This link was used, withdrawn, or is too old. Ask for another.');

/** What a link is for. Throws 404 if it no longer works. */
export async function offerOf(token: string, from: Origin): Promise<Offer> {
  const [found] = await rows<Offer>(
    `SELECT n.name AS network, i.name, i.email, i.person_id IS NOT NULL AS reset, i.role FROM invitations i
     JOIN plan_objects n ON n.network_id = i.network_id AND n.kind = 'network'
     WHERE i.token_hash = $1 AND i.expires_at > now()`,
    [tokenHash(token)],
  );
  if (!found) {
    // Only wrong links count: a person who has a link isn't guessing.
    await limitAttempts(`join:${placeOf(from.address)}`, TRIES.most, TRIES.seconds);
    throw noLink();
  }
  return found;
}

/**
 * Uses a link, once: makes the person, or sets the person's password and ends what was open under the old one. Logs in. Throws 404
 * if the link no longer works, 409 if the address already belongs to a person on this server, 422 by the fields.
 */
export async function join(token: string, input: unknown, from: Origin): Promise<OpenSession> {
  await offerOf(token, from);
  const { name, password } = readInput(joinSchema, input);
  const passwordHash = await hashPassword(password);
  return transaction(async (within) => {
    const link = await InvitationRow.findOne({
      where: { tokenHash: tokenHash(token) },
      transaction: within,
      lock: within.LOCK.UPDATE,
    });
    if (!link || link.expiresAt.getTime() <= Date.now()) throw noLink();
    await link.destroy({ transaction: within });
    const { networkId, email } = link;
    const { personId, address } = { personId: link.personId, address: from.address };
    if (personId) {
      await PersonRow.update({ passwordHash, samplePassword: false }, { where: { id: personId }, transaction: within });
      await endSessions(personId, within);
      // Whoever lost the password may have lost more: programs get new keys.
      await rows('DELETE FROM personal_keys WHERE person_id = $1', [personId], within);
      await record({ networkId, personId, act: 'password-set', address }, within);
      return openSession(personId, from, within);
    }
    if ((await PersonRow.count({ where: { email }, transaction: within })) > 0)
      throw new Refusal(
        409,
        `${email} already belongs to someone on this server. Ask for an invitation to another address.`,
      );
    const role = link.role ?? 'viewer';
    const made = await PersonRow.create({ networkId, email, name, passwordHash, role }, { transaction: within });
    await record({ networkId, personId: made.id, act: 'joined', address }, within);
    return openSession(made.id, from, within);
  });
}

/**
 * Changes one's own password; all sessions but that of `token` end. Throws 403 where the present password is another, 429 after too many
 * tries, 422 by the fields.
 */
export async function changePassword(actor: Actor, input: unknown, token: string): Promise<void> {
  const { current, password } = readInput(passwordChangeSchema, input);
  const key = `password:${actor.personId}`;
  await limitAttempts(key, WRONG_PASSWORDS.most, WRONG_PASSWORDS.seconds);
  const person = await PersonRow.findByPk(actor.personId ?? '', { rejectOnEmpty: true });
  if (!(await verifyPassword(person.passwordHash ?? '', current)))
    throw new Refusal(403, 'This isn’t your present password. Type it again.', [
      { path: '/current', message: 'This isn’t your present password.' },
    ]);
  const passwordHash = await hashPassword(password);
  await forgetAttempts(key);
  await transaction(async (within) => {
    // It was changed in another window first: the present password that was typed is no longer valid.
    const [changed] = await PersonRow.update(
      { passwordHash, samplePassword: false },
      { where: { id: person.id, passwordHash: person.passwordHash }, transaction: within },
    );
    if (changed === 0) throw new Refusal(409, 'Your password was changed in another window. Log in again.');
    await endSessions(person.id, within, token);
    await record({ ...actor, act: 'password-changed' }, within);
  });
}

/** Forgets links that are too old to work. */
export async function clearInvitations(): Promise<void> {
  await rows('DELETE FROM invitations WHERE expires_at < now()');
}
