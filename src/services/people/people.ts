import type { z } from 'zod';
import { pointer, problemsOf, unsoundPlace } from '@/core';
import { PersonRow, rows, transaction } from '@/database';
import { Refusal } from '@/core';
import { createNetwork } from '../plan/networks';
import { slugFor } from '../plan/slug';
import { hashPassword, verifyPassword } from './hashing';
import { forgetAttempts, giveBackAttempt, limitAttempts } from './limits';
import { firstPersonSchema, signInSchema } from './schemas';
import { openSession, type Actor, type OpenSession } from './sessions';

const SIGN_IN = { most: 10, seconds: 300 };

/** Reads input by a schema; throws a 422 with every problem. What no database keeps is refused wherever it stands. */
export function readInput<T>(schema: z.ZodType<T>, input: unknown): T {
  const unsound = unsoundPlace(input);
  if (unsound) {
    const message = 'This text holds a character that can not be kept: write it again.';
    throw new Refusal(422, message, [{ path: pointer(unsound), message }]);
  }
  const result = schema.safeParse(input);
  if (result.success) return result.data;
  const problems = problemsOf(result.error);
  throw new Refusal(422, problems[0]?.message ?? 'This input is not valid.', problems);
}

/** A stored hash of nobody's password: an unknown address costs the same time as a known one. */
let nobody: string | undefined;
const nobodysHash = async () => (nobody ??= await hashPassword('nobody has this password'));

/** Signs a person in. Returns the token for the cookie, once: only its hash is stored. Throws 401, or 429 after too many tries. */
export async function signIn(input: unknown, address: string): Promise<OpenSession> {
  const { email, password } = readInput(signInSchema, input);
  await limitAttempts(`sign-in:${address}`, SIGN_IN.most * 3, SIGN_IN.seconds);
  // By account and address together: nobody shuts another out by their name.
  const account = `sign-in:${address} ${email}`;
  await limitAttempts(account, SIGN_IN.most, SIGN_IN.seconds);
  const person = await PersonRow.findOne({ where: { email } });
  const known = person?.passwordHash ?? (await nobodysHash());
  if (!(await verifyPassword(known, password)) || !person)
    throw new Refusal(401, 'E-mail and password do not match: check both and try again.');
  await Promise.all([forgetAttempts(account), giveBackAttempt(`sign-in:${address}`)]);
  return openSession(person.id);
}

const taken = () => new Refusal(409, 'There is a first person already: sign in instead.');

/** Whether nobody can sign in yet: only then the page for the first person works. */
export async function isUnclaimed(): Promise<boolean> {
  return (await PersonRow.count()) === 0;
}

/** Makes the first person and network, and signs the person in. Throws 409 once there is one, 429 after too many tries. */
export async function claim(input: unknown, address: string): Promise<OpenSession> {
  await limitAttempts(`claim:${address}`, SIGN_IN.most * 3, SIGN_IN.seconds);
  const { network, ...person } = readInput(firstPersonSchema, input);
  if (!(await isUnclaimed())) throw taken();
  const passwordHash = await hashPassword(person.password);
  const id = await transaction(async (within) => {
    await rows('LOCK TABLE people IN SHARE ROW EXCLUSIVE MODE', [], within);
    if ((await PersonRow.count({ transaction: within })) > 0) throw taken();
    const networkId = await createNetwork({ name: network, slug: slugFor(network, []) }, within);
    const made = await PersonRow.create(
      { networkId, email: person.email, name: person.name, passwordHash },
      { transaction: within },
    );
    return made.id;
  });
  return openSession(id);
}

/** Adds a person to a network, for demo data and tests. */
export async function addPerson(networkId: string, input: unknown): Promise<Actor> {
  const person = readInput(firstPersonSchema.omit({ network: true }), input);
  const passwordHash = await hashPassword(person.password);
  const row = await PersonRow.create({ networkId, email: person.email, name: person.name, passwordHash });
  return { personId: row.id, name: row.name, networkId };
}
