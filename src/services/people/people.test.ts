import { PersonRow, SessionRow, rows } from '@/database';
import { useDatabase } from '../tests/database';
import { actorOf, claim, isUnclaimed, limitAttempts, signIn, signOut } from '.';

useDatabase();

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

test('sign in, be known by the token, sign out', async () => {
  const { token } = await signIn({ email: 'ida@example.ORG', password: first.password }, '127.0.0.1');
  expect(await actorOf(token)).toMatchObject({ name: 'Ida Lunde' });
  // The token itself is nowhere in the database.
  expect((await SessionRow.findAll()).some((row) => JSON.stringify(row).includes(token))).toBe(false);
  await signOut(token);
  expect(await actorOf(token)).toBeNull();
});

test('a session ends by itself', async () => {
  const { token } = await signIn({ email: first.email, password: first.password }, '127.0.0.1');
  await rows("UPDATE sessions SET expires_at = now() - interval '1 second'");
  expect(await actorOf(token)).toBeNull();
});

test.each([undefined, '', 'x', 'a'.repeat(43)])('the token %p is nobody', async (token) => {
  expect(await actorOf(token)).toBeNull();
});

test('those who know their passwords may be many at one address', async () => {
  for (let i = 0; i < 31; i++) await signIn({ email: first.email, password: first.password }, '10.0.0.7');
  expect(
    await actorOf((await signIn({ email: first.email, password: first.password }, '10.0.0.7')).token),
  ).not.toBeNull();
});

test('a wrong password and an unknown address are told alike, and too many tries wait', async () => {
  const wrong = (email: string) =>
    signIn({ email, password: 'not this one' }, '10.0.0.9').catch((error: { status: number; message: string }) => [
      error.status,
      error.message,
    ]);
  expect(await wrong(first.email)).toEqual(await wrong('nobody@example.org'));
  for (let i = 0; i < 9; i++) await wrong(first.email);
  await expect(signIn({ email: first.email, password: first.password }, '10.0.0.9')).rejects.toMatchObject({
    status: 429,
    message: expect.stringMatching(/wait \d+ seconds/),
  });
});

test('attempts are counted together, and forgotten when their time is over', async () => {
  await Promise.all(Array.from({ length: 5 }, () => limitAttempts('key', 5, 60)));
  await expect(limitAttempts('key', 5, 60)).rejects.toMatchObject({ status: 429 });
  await rows("UPDATE attempts SET resets_at = now() WHERE key = 'key'");
  await limitAttempts('key', 5, 60);
});
