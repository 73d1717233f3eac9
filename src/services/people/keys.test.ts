import { rows } from '@/database';
import { newNetwork, useDatabase } from '../tests/database';
import { actorOfKey, addPerson, endKey, join, keys, makeKey, offerReset, removePerson, trail } from '.';

useDatabase();

const HERE = { address: '192.0.2.7' };
const FROM = { ...HERE, agent: null };
const LIBRARY = { name: 'Signs folder', rights: ['library'] };

test('a key works in its person’s name until it is ended; its secret is told once, and stored as a hash alone', async () => {
  const actor = await newNetwork();
  const { id, token } = await makeKey(actor, LIBRARY);
  expect(token).toMatch(/^lanternpost_[\w-]{43}$/);
  expect(JSON.stringify(await rows('SELECT * FROM personal_keys'))).not.toContain(token);
  expect(await keys(actor)).toMatchObject([{ id, name: 'Signs folder', rights: ['library'], usedAt: null }]);
  expect(await actorOfKey(token, 'library', HERE)).toEqual({ ...actor, may: ['library'], byKey: true });
  const [{ usedAt } = { usedAt: null }] = await keys(actor);
  expect(Math.abs(Date.parse(usedAt ?? '') - Date.now())).toBeLessThan(60_000);
  await endKey(actor, id);
  await expect(actorOfKey(token, 'library', HERE)).rejects.toMatchObject({ status: 401 });
  expect(await keys(actor)).toEqual([]);
  expect((await trail(actor)).map(({ act, about }) => [act, about]).slice(0, 2)).toEqual([
    ['key-ended', 'Signs folder'],
    ['key-made', 'Signs folder'],
  ]);
});

test('a key does what its rights say and nothing else', async () => {
  const actor = await newNetwork();
  const { id, token } = await makeKey(actor, LIBRARY);
  await rows("UPDATE personal_keys SET rights = '{other}' WHERE id = $1", [id]);
  await expect(actorOfKey(token, 'library', HERE)).rejects.toMatchObject({
    status: 403,
    message: 'This key may not do this. Create one with that right.',
  });
});

test.each([
  [{ name: '', rights: ['library'] }],
  [{ name: 'K', rights: [] }],
  [{ name: 'K', rights: ['everything'] }],
  [{ name: 'K' }],
])('a key that can not be is refused (%#)', async (input) => {
  const actor = await newNetwork();
  await expect(makeKey(actor, input)).rejects.toMatchObject({ status: 422 });
  expect(await keys(actor)).toEqual([]);
});

test('nobody but an owner ends another’s key; who is removed, or gets a new password by a link, has none any more', async () => {
  const actor = await newNetwork();
  const add = (email: string) =>
    addPerson(
      actor.networkId,
      { name: 'Otto', email: `${email}@keys.example`, password: 'a long password' },
      { role: 'publisher' },
    );
  const [otto, una] = [await add('otto'), await add('una')];
  const { id, token } = await makeKey(otto, LIBRARY);
  await expect(endKey(una, id)).rejects.toMatchObject({ status: 404 });
  await expect(endKey(await newNetwork(), id)).rejects.toMatchObject({ status: 404 });
  await removePerson(actor, otto.personId ?? '');
  await expect(actorOfKey(token, 'library', HERE)).rejects.toMatchObject({ status: 401 });
  await expect(makeKey(otto, LIBRARY)).rejects.toMatchObject({ status: 409 });

  const hers = await makeKey(una, LIBRARY);
  const link = await offerReset(actor, una.personId ?? '');
  expect(await actorOfKey(hers.token, 'library', HERE)).toMatchObject({ personId: una.personId });
  await join(link.token, { name: 'Una', password: 'another long password' }, FROM);
  await expect(actorOfKey(hers.token, 'library', HERE)).rejects.toMatchObject({ status: 401 });
});

test('who guesses keys is slowed down, and whoever has one is not', async () => {
  const actor = await newNetwork();
  const { token } = await makeKey(actor, LIBRARY);
  const from = { address: '192.0.2.66' };
  for (let n = 0; n < 40; n++) expect((await actorOfKey(token, 'library', from)).personId).toBe(actor.personId);
  const guesses = [];
  for (let n = 0; n < 32; n++)
    guesses.push(
      await actorOfKey(`lanternpost_${n}`, 'library', from).catch((error: { status: number }) => error.status),
    );
  expect(guesses.filter((status) => status === 401)).toHaveLength(30);
  expect(guesses.at(-1)).toBe(429);
  // However many others guess from the same address.
  expect((await actorOfKey(token, 'library', from)).personId).toBe(actor.personId);
});
