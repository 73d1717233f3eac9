import {
  changeSentences,
  contentKey,
  knownContent,
  namesIn,
  planFile,
  readPlan,
  type Content,
  type Plan,
} from '@/core/plan';
import type * as Kinds from '@/core/plan/kinds';
import type * as Contents from '@/core/plan/contents';
import type * as EaselModule from '@/core/tests/easel';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { draftPlan, edit, importPlan, undo, type Edit } from '.';

/**
 * What adding a kind takes: its description in a file (here `easel`), a line in `plan/kinds`, and one in `plan/contents` where it can be
 * shown. All else is read off these; what it shows in its turn, the forecast has to be told, as the types say.
 */
jest.mock('@/core/plan/kinds', () => {
  const { KINDS } = jest.requireActual<typeof Kinds>('@/core/plan/kinds');
  const { easel } = jest.requireActual<typeof EaselModule>('@/core/tests/easel');
  return { KINDS: { ...KINDS, easel } };
});
jest.mock('@/core/plan/contents', () => {
  const actual = jest.requireActual<typeof Contents>('@/core/plan/contents');
  // Before anything reads them: the kinds above are described when these are known.
  Object.assign(actual.CONTENTS, { easel: { called: 'easel', timed: true, looks: false } });
  (actual.CONTENT_KINDS as string[]).push('easel');
  return actual;
});

useDatabase();

type Easel = { id: string; name: string; panes: { id: string; title: string; shows: Content }[] };

/** Of a kind that the types do not know. */
const changes = (...list: object[]) => list as unknown as Edit[];
const easelsOf = (plan: Plan) => (plan as unknown as { easels: Easel[] }).easels;
const shown = { easel: 'welcome' } as unknown as Content;

const panes = [
  { id: 'left', title: 'Left', shows: { playlist: 'house' } },
  { id: 'right', title: 'Right', shows: { playlist: 'house' } },
];

async function withBoard() {
  const actor = await newNetwork();
  await newPlan(actor);
  await edit(actor, changes({ kind: 'easel', add: { name: 'Welcome', panes } }));
  return { actor, draft: async () => (await draftPlan(actor)).plan };
}

test('it is read, changed entry by entry, put in words and taken back', async () => {
  const { actor, draft } = await withBoard();
  const before = await draft();
  expect(easelsOf(before)).toEqual([{ id: 'welcome', name: 'Welcome', panes }]);
  const [left, right] = panes;
  const next = [right, { ...left, title: 'Main' }];
  await edit(actor, changes({ kind: 'easel', id: 'welcome', set: { name: 'Hello', panes: next } }));
  const after = await draft();
  expect(
    changeSentences('easel' as never, easelsOf(before)[0] ?? null, easelsOf(after)[0] ?? null, namesIn(after)),
  ).toEqual(expect.arrayContaining(['name “Hello”, was “Welcome”', '“Main”: title “Main”, was “Left”']));
  await undo(actor, 'undo');
  expect(await draft()).toEqual(before);
});

test('what is wrong in it is told where it is, and what it uses is not removed', async () => {
  const { actor } = await withBoard();
  const wrong = [{ ...panes[0], shows: { playlist: 'gone' } }];
  await expect(edit(actor, changes({ kind: 'easel', id: 'welcome', set: { panes: wrong } }))).rejects.toMatchObject({
    problems: [{ path: '/panes/0/shows/playlist' }],
  });
  await expect(edit(actor, [{ kind: 'playlist', id: 'house', remove: true }])).rejects.toMatchObject({
    message: 'This playlist is still used by easel “Welcome”. Remove it there first.',
  });
});

test('it is content wherever there is content, and used there', async () => {
  const { actor, draft } = await withBoard();
  const created = '2026-01-01T00:00:00Z';
  await edit(
    actor,
    changes(
      { kind: 'booking', add: { name: 'Morning', content: shown, where: 'hall', created, when: {} } },
      { kind: 'screen', id: 'deck', set: { backdrop: { ...shown, durationMs: 20_000 } } },
      { kind: 'playlist', id: 'house', set: { items: [] } },
      { kind: 'playlist', add: { name: 'Second', items: [{ id: 'e1', easel: 'welcome', durationMs: 5000 }] } },
    ),
  );
  const plan = await draft();
  expect(plan.bookings.map(({ content }) => knownContent(content))).toEqual([{ kind: 'easel', id: 'welcome' }]);
  expect(contentKey(shown)).toBe('easel welcome ');
  const { screens, playlists } = plan;
  const deck = screens.find(({ id }) => id === 'deck') ?? null;
  expect(changeSentences('screen', { ...deck, backdrop: undefined }, deck, namesIn(plan))).toEqual([
    'backdrop “Welcome” for 20 s',
  ]);
  const second = playlists.find(({ id }) => id === 'second') ?? null;
  expect(changeSentences('playlist', { ...second, items: [] }, second, namesIn(plan))).toEqual(['“Welcome” added']);
  await expect(edit(actor, changes({ kind: 'easel', id: 'welcome', remove: true }))).rejects.toMatchObject({
    message: 'This easel is still used by booking “Morning”, playlist “Second”, screen “Deck”. Remove it there first.',
  });
  await expect(
    edit(actor, changes({ kind: 'playlist', id: 'second', set: { items: [{ id: 'e1', easel: 'gone' }] } })),
  ).rejects.toMatchObject({ problems: [{ path: '/items/0/easel' }] });
});

test('an exported plan can be imported, and is the same', async () => {
  const { actor, draft } = await withBoard();
  const plan = await draft();
  const file = JSON.parse(JSON.stringify(planFile(plan))) as unknown;
  expect(readPlan(file)).toEqual({ ok: true, value: plan });
  const other = await newNetwork();
  await importPlan(other, { ...(file as Plan), network: (await draftPlan(other)).plan.network });
  expect(easelsOf((await draftPlan(other)).plan)).toEqual(easelsOf(plan));
  const { change } = await importPlan(actor, file);
  expect(await draft()).toEqual(plan);
  expect(change).toBe((await draftPlan(actor)).change);
});
