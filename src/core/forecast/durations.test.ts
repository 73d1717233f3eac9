import { readPlan } from '../plan';
import { orThrow } from '../refusal';
import { itemLength, loopLength } from '.';

const read = readPlan({
  format: 'lanternpost/plan',
  version: 1,
  network: { name: 'N', defaultDurationMs: 7000 },
  media: [
    {
      id: 'flag',
      name: 'Flag',
      kind: 'image',
      width: 1,
      height: 1,
      bytes: 1,
      added: '2026-01-01T00:00:00Z',
      tags: ['brand'],
    },
    {
      id: 'film',
      name: 'Film',
      kind: 'video',
      width: 1,
      height: 1,
      bytes: 1,
      added: '2026-01-02T00:00:00Z',
      durationMs: 42_000,
      tags: ['brand'],
    },
  ],
  playlists: [
    { id: 'inner', name: 'Inner', items: [{ media: 'flag', durationMs: 3000 }, { media: 'film' }] },
    {
      id: 'outer',
      name: 'Outer',
      items: [
        { media: 'flag' },
        { playlist: 'inner' },
        { collect: 'brand', order: 'newest', limit: 1 },
        { collect: 'brand', durationMs: 1000 },
      ],
    },
  ],
});
const plan = orThrow(read);
const [inner, outer] = plan.playlists;

test("an item lasts its own time, else its file's, else the network’s; a playlist lasts all of its items", () => {
  expect(outer?.items.map((item) => itemLength(plan, item))).toEqual([
    { durationMs: 7000, files: 1 },
    { durationMs: 45_000, files: 2 },
    { durationMs: 42_000, files: 1 },
    { durationMs: 2000, files: 2 },
  ]);
  expect([loopLength(plan, inner?.items ?? []), loopLength(plan, outer?.items ?? []), loopLength(plan, [])]).toEqual([
    45_000, 96_000, 0,
  ]);
});
