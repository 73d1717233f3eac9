import { Refusal } from '@/core/refusal';
import type { Role } from '@/core/roles';
import { config } from '@/config';
import { PersonRow, rows, transaction } from '@/database';
import { createNetwork } from '../plan/networks';
import { slugFor } from '../plan/slug';
import { hashPassword, verifyPassword, type Lane } from './hashing';
import { readInput } from './input';
import { forgetAttempts, giveBackAttempt, limitAttempts, placeOf } from './limits';
import { firstPersonSchema, signInSchema } from './schemas';
import { actorIn, type Actor } from './actor';
import { openSession, type OpenSession, type Origin } from './sessions';
import { record } from './trail';

const SIGN_IN = { most: 10, seconds: 300 };

/** A stored hash that no password matches: an unknown address takes as long as a known one. */
let unmatched: string | undefined;
const noMatch = async () => (unmatched ??= await hashPassword('no person has this password'));

/** In which lane a password is tried, so that people who were here before don't wait behind guessers. */
async function laneOf(personId: string | undefined, from: Origin, tries: number): Promise<Lane> {
  const opened = personId
    ? await rows("SELECT 1 FROM audit_trail WHERE person_id = $1 AND act = 'signed-in' AND address = $2 LIMIT 1", [
        personId,
        from.address,
      ])
    : [];
  if (opened.length > 0) return 'known';
  return tries > 1 ? 'doubtful' : 'new';
}

/** Signs a person in. Returns the token for the cookie, once: only its hash is stored. Throws 401, or 429 after too many tries. */
export async function signIn(input: unknown, from: Origin): Promise<OpenSession> {
  const { email, password } = readInput(signInSchema, input);
  const place = `sign-in:${placeOf(from.address)}`;
  const tries = await limitAttempts(place, SIGN_IN.most * 3, SIGN_IN.seconds);
  // Counted by account and address together, so that no person can lock out another.
  const account = `${place} ${email}`;
  await limitAttempts(account, SIGN_IN.most, SIGN_IN.seconds);
  const person = await PersonRow.findOne({ where: { email } });
  const known = person?.passwordHash ?? (await noMatch());
  if (!(await verifyPassword(known, password, await laneOf(person?.id, from, tries))) || !person)
    throw new Refusal(401, 'E-mail and password don’t match. Check both and try again.');
  await Promise.all([forgetAttempts(account), giveBackAttempt(place)]);
  if (person.samplePassword && !config().demo)
    throw new Refusal(
      403,
      `This is the sample network’s password, which everybody can read. On this server run “lanternpost person reset ${email}”, and set your own with the link.`,
    );
  return transaction(async (within) => {
    const opened = await openSession(person.id, from, within);
    const { id: personId, networkId } = person;
    await record({ networkId, personId, act: 'signed-in', address: from.address }, within);
    return opened;
  });
}

const taken = () => new Refusal(409, 'There is a first person already. Log in instead.');

/** Whether there are no accounts yet. Only then the page for the first person works. */
export async function isUnclaimed(): Promise<boolean> {
  return (await PersonRow.count()) === 0;
}

/** Makes the first person and network, and signs the person in. Throws 409 once there is one, 429 after too many tries. */
export async function claim(input: unknown, from: Origin): Promise<OpenSession> {
  await limitAttempts(`claim:${placeOf(from.address)}`, SIGN_IN.most * 3, SIGN_IN.seconds);
  const { network, ...person } = readInput(firstPersonSchema, input);
  if (!(await isUnclaimed())) throw taken();
  const passwordHash = await hashPassword(person.password);
  return transaction(async (within) => {
    await rows('LOCK TABLE people IN SHARE ROW EXCLUSIVE MODE', [], within);
    if ((await PersonRow.count({ transaction: within })) > 0) throw taken();
    const networkId = await createNetwork({ name: network, slug: slugFor(network, []) }, within);
    const { id: personId } = await PersonRow.create(
      { networkId, email: person.email, name: person.name, passwordHash, role: 'owner' },
      { transaction: within },
    );
    await record({ networkId, personId, act: 'network-made', about: network, address: from.address }, within);
    return openSession(personId, from, within);
  });
}

/** Adds a person with a password to a network, an owner if nothing else is said: for the sample network, benches and tests. */
export async function addPerson(
  networkId: string,
  input: unknown,
  { role = 'owner', samplePassword = false }: { readonly role?: Role; readonly samplePassword?: boolean } = {},
): Promise<Actor> {
  const person = readInput(firstPersonSchema.omit({ network: true }), input);
  const passwordHash = await hashPassword(person.password);
  const { email, name } = person;
  const row = await PersonRow.create({ networkId, email, name, passwordHash, role, samplePassword });
  return actorIn({ personId: row.id, name: row.name, networkId, role });
}

const SIMULATED: Origin = { address: 'this machine', agent: 'simulated players' };

/** Opens a session of a network's first person without a password, in place of the last such: for the sample network's own players. */
export async function openSampleSession(networkSlug: string): Promise<string | null> {
  const [first] = await rows<{ id: string }>(
    `SELECT p.id FROM people p JOIN networks n ON n.id = p.network_id
     WHERE n.slug = $1 AND p.removed_at IS NULL ORDER BY p.created_at, p.id LIMIT 1`,
    [networkSlug],
  );
  if (!first) return null;
  await rows('DELETE FROM sessions WHERE agent = $1', [SIMULATED.agent]);
  return (await openSession(first.id, SIMULATED)).token;
}
