import { newNetwork, useDatabase } from '../tests/database';
import { removeSearch, saveSearch, savedSearches } from '.';

useDatabase();

test('searches are kept by a name for the whole network, told in order, and taken away', async () => {
  const [actor, other] = [await newNetwork(), await newNetwork()];
  const walls = await saveSearch(actor, { name: 'Walls', query: 'find=384x192' });
  await saveSearch(actor, { name: 'ended films', query: 'ending=true&kind=video' });
  expect((await savedSearches(actor)).map(({ name, query }) => [name, query])).toEqual([
    ['ended films', 'ending=true&kind=video'],
    ['Walls', 'find=384x192'],
  ]);
  expect(await savedSearches(other)).toEqual([]);
  await expect(removeSearch(other, walls.id)).rejects.toMatchObject({ status: 404 });
  await removeSearch(actor, walls.id);
  await expect(removeSearch(actor, walls.id)).rejects.toMatchObject({ status: 404 });
  expect((await savedSearches(actor)).map(({ name }) => name)).toEqual(['ended films']);
});

test('a name is one search’s, in any case; another network has its own', async () => {
  const [actor, other] = [await newNetwork(), await newNetwork()];
  await saveSearch(actor, { name: 'Walls', query: 'find=wall' });
  await expect(saveSearch(actor, { name: 'WALLS', query: 'find=x' })).rejects.toMatchObject({
    status: 409,
    message: 'There is already a search “WALLS”. Choose another name.',
  });
  await expect(saveSearch(other, { name: 'Walls', query: 'find=x' })).resolves.toMatchObject({ name: 'Walls' });
  const both = await Promise.allSettled(
    ['a', 'b'].map((find) => saveSearch(other, { name: 'Two', query: `find=${find}` })),
  );
  expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
});

test.each([
  [{ name: '', query: 'find=a' }],
  [{ name: 'A', query: '' }],
  [{ name: 'A', query: 'sort=name' }],
  [{ name: 'A', query: `find=${'a'.repeat(1000)}` }],
  [{ name: null, query: 'find=a' }],
])('what is no search is refused with a sentence (%#)', async (input) => {
  await expect(saveSearch(await newNetwork(), input)).rejects.toMatchObject({ status: 422 });
});

test('so many are kept and no more', async () => {
  const actor = await newNetwork();
  for (let i = 0; i < 100; i++) await saveSearch(actor, { name: `Search ${i}`, query: `find=${i}` });
  await expect(saveSearch(actor, { name: 'One more', query: 'find=more' })).rejects.toMatchObject({ status: 409 });
});
