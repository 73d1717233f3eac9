import * as argon2 from '@node-rs/argon2';
import { PersonRow, SessionRow, rows } from '@/database';
import { useDatabase } from '../tests/database';
import { hashPassword, verifyPassword } from './hashing';
import {
  actorOf,
  claim as claimFrom,
  clearAttempts,
  isUnclaimed,
  limitAttempts,
  placeOf,
  signIn,
  signOut,
  watchSession,
} from '.';

jest.mock('@node-rs/argon2', () => {
  const actual = jest.requireActual<typeof argon2>('@node-rs/argon2');
  return { ...actual, verify: jest.fn(actual.verify) };
});
const verify = argon2.verify as jest.MockedFunction<typeof argon2.verify>;

useDatabase();

const from = (address: string) => ({ address, agent: null });
const claim = (input: unknown) => claimFrom(input, from('127.0.0.1'));
const first = { network: 'Ternholm Line', name: 'Ida Lunde', email: 'Ida@Example.org', password: 'lamps-at-dusk' };

test('the first person is made once, and only once, even by two at the same time', async () => {
  expect(await isUnclaimed()).toBe(true);
  const results = await Promise.allSettled([claim(first), claim({ ...first, email: 'otto@example.org' })]);
  expect(results.map((one) => one.status).sort()).toEqual(['fulfilled', 'rejected']);
  expect(await PersonRow.count()).toBe(1);
  await expect(claim(first)).rejects.toMatchObject({ status: 409 });
  await rows('DELETE FROM networks');
  await claim(first);
});

test.each([
  [{ ...first, password: 'short' }, '/password'],
  [{ ...first, email: 'nowhere' }, '/email'],
  [{ ...first, name: ' ' }, '/name'],
  [null, ''],
])('a first person that is not valid is refused at its place', async (input, path) => {
  await expect(claim(input)).rejects.toMatchObject({
    status: 422,
    problems: expect.arrayContaining([expect.objectContaining({ path })]),
  });
});

test('log in, be known by the token, log out', async () => {
  const { token } = await signIn({ email: 'ida@example.ORG', password: first.password }, from('127.0.0.1'));
  expect(await actorOf(token)).toMatchObject({ name: 'Ida Lunde' });
  // The token itself is nowhere in the database.
  expect((await SessionRow.findAll()).some((row) => JSON.stringify(row).includes(token))).toBe(false);
  await signOut(token);
  expect(await actorOf(token)).toBeNull();
});

test('what a session holds open ends with it, and not with the session of another window', async () => {
  const open = async () => (await signIn({ email: first.email, password: first.password }, from('127.0.0.1'))).token;
  const [one, two] = [await open(), await open()];
  const actor = await actorOf(one);
  if (!actor) throw new Error('not logged in');
  const ended: string[] = [];
  // At once: what ends before the process listens to the others is seen too.
  const stops = [watchSession(actor, one, () => ended.push('one')), watchSession(actor, two, () => ended.push('two'))];
  await signOut(one);
  for (let tries = 0; tries < 200 && ended.length === 0; tries++) await new Promise((done) => setTimeout(done, 20));
  expect(ended).toEqual(['one']);
  stops.forEach((stop) => stop());
});

test('a session ends by itself', async () => {
  const { token } = await signIn({ email: first.email, password: first.password }, from('127.0.0.1'));
  await rows("UPDATE sessions SET expires_at = now() - interval '1 second'");
  expect(await actorOf(token)).toBeNull();
});

test.each([undefined, '', 'x', 'a'.repeat(43)])('the token %p is nobody', async (token) => {
  expect(await actorOf(token)).toBeNull();
});

test('those who know their passwords may be many at one address', async () => {
  for (let i = 0; i < 31; i++) await signIn({ email: first.email, password: first.password }, from('10.0.0.7'));
  expect(
    await actorOf((await signIn({ email: first.email, password: first.password }, from('10.0.0.7'))).token),
  ).not.toBeNull();
});

test('a wrong password and an unknown address are told alike, and too many tries wait', async () => {
  const wrong = (email: string) =>
    signIn({ email, password: 'not this one' }, from('10.0.0.9')).catch(
      (error: { status: number; message: string }) => [error.status, error.message],
    );
  expect(await wrong(first.email)).toEqual(await wrong('nobody@example.org'));
  for (let i = 0; i < 9; i++) await wrong(first.email);
  await expect(signIn({ email: first.email, password: first.password }, from('10.0.0.9'))).rejects.toMatchObject({
    status: 429,
    message: expect.stringMatching(/Wait \d+ seconds/),
  });
  // Who guesses at a name does not shut its owner out.
  await signIn({ email: first.email, password: first.password }, from('10.0.0.10'));
});

test('once there is a first person, the form for it costs nobody a hash, and too many tries wait', async () => {
  const tries = await Promise.allSettled(Array.from({ length: 300 }, () => claimFrom(first, from('10.0.0.11'))));
  const statuses = tries.map((one) => (one as { reason: { status: number } }).reason.status);
  expect([statuses.filter((one) => one === 409).length, statuses.filter((one) => one === 429).length]).toEqual([
    30, 270,
  ]);
});

test('who was logged in from an address before does not wait behind those who guess', async () => {
  const stored = await hashPassword('one');
  let release = () => {};
  const held = new Promise<void>((done) => (release = done));
  const { verify: really } = jest.requireActual<typeof argon2>('@node-rs/argon2');
  verify.mockImplementation(async (...args) => (args[1] === 'a guess' ? held.then(() => false) : really(...args)));
  const guesses: Promise<unknown>[] = [];
  for (const lane of ['new', 'doubtful'] as const)
    for (let full = false; !full;) {
      const guess = verifyPassword(stored, 'a guess', lane);
      full = await Promise.race([guess.then(Boolean, () => true), new Promise<false>((go) => setImmediate(go, false))]);
      guesses.push(guess);
    }
  const { email, password } = first;
  expect(await signIn({ email, password }, from('127.0.0.1'))).toMatchObject({ token: expect.any(String) as string });
  await expect(signIn({ email, password }, from('10.9.9.9'))).rejects.toMatchObject({ status: 503 });
  release();
  await Promise.allSettled(guesses);
});

test.each([
  ['192.0.2.7', '192.0.2.7'],
  ['2001:db8:0:7:a:b:c:d', '2001:db8:0:7::/64'],
  ['2001:db8:0:7::1', '2001:db8:0:7::/64'],
  ['2001:0db8::1', '2001:db8:0:0::/64'],
  ['fe80::1%eth0', 'fe80:0:0:0::/64'],
  ['::1', '0:0:0:0::/64'],
])('limits count %s as %s: whoever has one address of an IPv6 network has all (RFC 6177)', (address, place) => {
  expect(placeOf(address)).toBe(place);
});

test('passwords are looked at few at a time; past a queue of some seconds nobody waits', async () => {
  const stored = await hashPassword('one');
  const tries = await Promise.allSettled(Array.from({ length: 90 }, () => verifyPassword(stored, 'one')));
  const refused = tries.filter((one) => one.status === 'rejected');
  expect(tries.filter((one) => one.status === 'fulfilled' && one.value)).toHaveLength(30);
  expect(refused.map((one) => (one as { reason: { status: number } }).reason.status)).toEqual(Array(60).fill(503));
  expect(await verifyPassword(stored, 'two')).toBe(false);
});

test('attempts are counted together, and forgotten when their time is over', async () => {
  await Promise.all(Array.from({ length: 5 }, () => limitAttempts('key', 5, 60)));
  await expect(limitAttempts('key', 5, 60)).rejects.toMatchObject({ status: 429 });
  await rows("UPDATE attempts SET resets_at = now() WHERE key = 'key'");
  await limitAttempts('key', 5, 60);
  await limitAttempts('other', 5, 60);
  await rows("UPDATE attempts SET resets_at = now() WHERE key = 'key'");
  await clearAttempts();
  expect(await rows("SELECT key FROM attempts WHERE key IN ('key', 'other')")).toEqual([{ key: 'other' }]);
});
