import { emptyPlan, type LoosePatch, type Plan } from '@/core/plan';
import type { Result } from '@/core/refusal';
import { adoptZones, zoneTable } from '@/core/when';
import type { EditResult, UndoResult } from '@/services/plan';
import { zonesNamed, type NetworkView } from './state';
import { createNetworkStore, type Ways } from './store';

/** A page before a server that answers by `answers`: what the store asks for, and what it makes of the answers. */

const plan: Plan = {
  ...emptyPlan('Line'),
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC' }],
  screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 10, height: 10 }],
};
const view = (values: Partial<NetworkView> = {}): NetworkView => ({
  person: 'Ida',
  me: 'p-ida',
  role: 'owner',
  draft: plan,
  change: 7,
  published: { number: 3, plan: emptyPlan('Before') },
  docket: { change: 7, entries: 2, screens: 1 },
  statuses: [],
  zones: [],
  serverNow: 1000,
  glances: [],
  ...values,
});
const rename = (name: string): LoosePatch => ({ kind: 'screen', id: 'hall', set: { name } });
const made = (patch: LoosePatch, change = 9): EditResult => ({
  ...{ change, previous: 7, changes: [change], ids: ['hall'], patches: [patch], media: [] },
});
const nothing: UndoResult = { change: 7, previous: 7, changes: [], ids: [], patches: [], media: [], about: null };

function page(answers: { [path: string]: () => Response | Promise<Response> } = {}, given: Partial<NetworkView> = {}) {
  const asked: string[] = [];
  const edits: (readonly LoosePatch[])[] = [];
  const undos: string[] = [];
  let undo: Result<UndoResult> | Error = { ok: true, value: nothing };
  const ways: Ways = {
    fetch: async (path) => {
      asked.push(path);
      const key = Object.keys(answers).find((one) => path.startsWith(one));
      if (!key) throw new Error(`nobody answers ${path}`);
      return (answers[key] as () => Response)();
    },
    edit: async (patches) => {
      edits.push(patches);
      return { ok: true, value: made(patches[0] as LoosePatch) };
    },
    undo: async (way) => {
      undos.push(way);
      if (undo instanceof Error) throw undo;
      return undo;
    },
    reload: () => asked.push('reload'),
    refetch: (what, value) => asked.push(value === undefined ? what : `${what} ${JSON.stringify(value)}`),
  };
  const store = createNetworkStore(view(given), ways);
  return {
    ...{ store, asked, edits, undos },
    answerUndo: (next: Result<UndoResult> | Error) => (undo = next),
    state: () => store.getState(),
  };
}
const json =
  (value: unknown, status = 200) =>
  () =>
    new Response(JSON.stringify(value), { status });
const settled = async () => {
  for (let i = 0; i < 5; i++) await new Promise(setImmediate);
};

describe('what is looked at', () => {
  test('first what players have; on demand what is being made, and back', () => {
    const { state } = page();
    expect(state()).toMatchObject({
      looking: 'published',
      seen: { key: 'edition-3', plan: { network: { name: 'Before' } } },
    });
    state().look('draft');
    expect([state().looking, state().seen]).toEqual(['draft', state().drafted]);
    state().look('published');
    expect([state().looking, state().seen.key]).toEqual(['published', 'edition-3']);
  });

  test('before the first edition there is only what is being made', () => {
    const { state } = page({}, { published: null });
    state().look('published');
    expect([state().looking, state().seen, state().draft]).toEqual(['draft', state().drafted, plan]);
  });

  test('what one looks at stays through a reload of the view', () => {
    const { store, state } = page();
    state().look('draft');
    store.begin(view({ change: 20 }));
    expect([state().looking, state().change, state().view.change]).toEqual(['draft', 20, 20]);
  });
});

test('whoever may not change the plan is told so at once, and the server is not asked', async () => {
  const { store, edits } = page({}, { role: 'operator' });
  const before = store.getState().draft;
  const result = await store.getState().edit([{ kind: 'screen', id: 'hall', set: { name: 'Mine' } }]);
  expect(result).toMatchObject({ ok: false, status: 403 });
  expect([edits, store.getState().draft]).toEqual([[], before]);
  expect(store.getState().notice).toEqual({ text: expect.stringContaining('can’t change the plan'), bad: true });
});

test('a page whose person has another role loads anew; others ask who has which', () => {
  const { store, asked } = page();
  store.hear({ kind: 'role', person: 'p-otto' });
  store.hear({ kind: 'role', person: 'p-ida' });
  store.hear({ kind: 'requests' });
  expect(asked).toEqual(['people', 'reload', 'requests']);
});

test('a notice is plain unless it is bad', () => {
  const { state } = page();
  state().notify('Saved.');
  expect(state().notice).toEqual({ text: 'Saved.', bad: false });
  state().notify('Lost.', true);
  expect(state().notice).toEqual({ text: 'Lost.', bad: true });
});

describe('edits', () => {
  test('a form without a change is saved without asking anybody', async () => {
    const { state, edits } = page();
    expect(await state().save(null, 'Saved.')).toEqual({
      ok: true,
      value: { change: 7, previous: 7, changes: [], ids: [], patches: [], media: [] },
    });
    expect([edits, state().notice]).toEqual([[], null]);
  });

  test("a form's change is one edit; without a sentence nothing is said", async () => {
    const { state, edits } = page();
    await state().save(rename('Great hall'));
    expect([edits, state().notice, state().change]).toEqual([[[rename('Great hall')]], null, 9]);
    await state().save(rename('Small hall'), 'Saved.');
    expect(state().notice).toEqual({ text: 'Saved.', bad: false });
  });
});

describe('undo and redo', () => {
  test('what is taken back is told, and followed', async () => {
    const { state, undos, answerUndo } = page();
    answerUndo({ ok: true, value: { ...made(rename('Old hall')), about: '"Hall"' } });
    state().undo();
    await settled();
    expect(state().notice).toEqual({ text: 'Undone: "Hall".', bad: false });
    expect(state().draft.screens[0]?.name).toBe('Old hall');
    answerUndo({ ok: true, value: { ...made(rename('Hall again'), 11), previous: 9, about: '"Hall"' } });
    state().redo();
    await settled();
    expect([undos, state().notice?.text, state().draft.screens[0]?.name]).toEqual([
      ...[['undo', 'redo'], 'Redone: "Hall".', 'Hall again'],
    ]);
  });

  test('nothing to take back, a refusal, and a server that does not answer are told', async () => {
    const { state, answerUndo } = page();
    const said = async (way: 'undo' | 'redo') => {
      state()[way]();
      await settled();
      return state().notice;
    };
    expect(await said('undo')).toEqual({
      text: 'You have no changes from the last 24 hours to undo.',
      bad: false,
    });
    expect(await said('redo')).toEqual({ text: 'There’s nothing to redo.', bad: false });
    answerUndo({ ok: false, status: 409, message: 'Changed since.', problems: [] });
    expect(await said('undo')).toEqual({ text: 'Changed since.', bad: true });
    answerUndo(new TypeError('cut'));
    expect(await said('undo')).toEqual({
      text: expect.stringContaining('The server didn’t answer, so nothing was changed.'),
      bad: true,
    });
  });
});

describe('what the feed tells', () => {
  test("sums of the docket; an upload's progress goes to the place that lists them", () => {
    const { store, state, asked } = page();
    store.hear({ kind: 'docket', change: 8, entries: 5, screens: 4 });
    expect(state().docket).toEqual({ change: 8, entries: 5, screens: 4 });
    const upload = { id: 'u', name: 'Flag', state: 'working', progress: 20, error: null } as const;
    store.hear({ kind: 'upload', upload });
    expect(asked).toEqual(['docket', `uploads ${JSON.stringify(upload)}`]);
  });

  test('an edition that is newer takes the place of the one before; an older or the same one does not', async () => {
    let number = 4;
    const { store, state } = page({ '/api/published': () => json({ number, plan: emptyPlan(`Edition ${number}`) })() });
    store.hear({ kind: 'edition' });
    await settled();
    expect(state().published).toMatchObject({ number: 4, key: 'edition-4', plan: { network: { name: 'Edition 4' } } });
    const before = state().published;
    store.hear({ kind: 'edition' });
    await settled();
    number = 2;
    store.hear({ kind: 'edition' });
    await settled();
    expect(state().published).toBe(before);
  });

  test('an edition that can not be told is left; a line that breaks loads the page anew', async () => {
    const refused = page({ '/api/published': json(null, 500) });
    refused.store.hear({ kind: 'edition' });
    await settled();
    expect([refused.asked, refused.state().published?.number]).toEqual([['/api/published?change=7'], 3]);
    const cut = page({ '/api/published': () => Promise.reject(new TypeError('cut')) });
    cut.store.hear({ kind: 'edition' });
    await settled();
    expect(cut.asked).toEqual(['/api/published?change=7', 'reload']);
  });

  test('what was missed: asked for once at a time; who is logged out, and what is too much, loads the page anew', async () => {
    const { store, asked } = page({ '/api/missed': json({ changes: null, statuses: [], at: 5 }) });
    store.hear({ kind: 'at', change: 50 });
    store.hear({ kind: 'at', change: 51 });
    await settled();
    expect(asked).toEqual(['/api/missed?change=7&at=1000', 'reload']);
    const out = page({ '/api/missed': json({}, 401) });
    out.store.hear({ kind: 'at', change: 50 });
    await settled();
    expect(out.asked).toEqual(['/api/missed?change=7&at=1000', 'reload']);
    const broken = page({ '/api/missed': json({}, 503) });
    broken.store.hear({ kind: 'at', change: 50 });
    await settled();
    expect([broken.asked, broken.state().notice]).toEqual([['/api/missed?change=7&at=1000'], null]);
    const cut = page({ '/api/missed': () => Promise.reject(new TypeError('cut')) });
    cut.store.hear({ kind: 'at', change: 50 });
    await settled();
    expect(cut.state().notice).toEqual({ text: expect.stringContaining('The server isn’t answering.'), bad: true });
  });
});

describe('zones that changes bring', () => {
  const moved: LoosePatch = { kind: 'site', id: 'quay', set: { timeZone: 'Pacific/Apia' } };
  const event = {
    kind: 'changes',
    after: 7,
    number: 8,
    media: [],
    changes: [{ patch: moved, by: 'Otto', number: 8 }],
  } as const;

  test('their clocks are asked for first, once, and hold in place of the browser’s own', async () => {
    const own = zoneTable('Pacific/Apia');
    const { store, asked, state } = page({ '/api/zones': json([{ ...own, changes: [], offsets: [3_600_000] }]) });
    store.hear(event);
    await settled();
    expect(asked.filter((one) => one.startsWith('/api/zones'))).toEqual(['/api/zones?names=Pacific%2FApia']);
    expect([zoneTable('Pacific/Apia').offsets, state().change]).toEqual([[3_600_000], 8]);
    adoptZones([own]);
    store.hear({ ...event, after: 8, number: 9, changes: [{ patch: moved, by: 'Otto', number: 9 }] });
    await settled();
    expect(asked.filter((one) => one.startsWith('/api/zones'))).toHaveLength(1);
  });

  test('where they are not told, the change stands all the same', async () => {
    const { store, state } = page({ '/api/zones': json(null, 500) });
    store.hear(event);
    await settled();
    expect([state().change, state().draft.sites[0]?.timeZone]).toEqual([8, 'Pacific/Apia']);
  });

  test('zones are found wherever a patch names them; a site’s own clock is none', () => {
    expect(
      zonesNamed([
        { kind: 'site', id: 'a', set: { timeZone: 'Europe/Oslo' } },
        { kind: 'booking', add: { when: { clock: 'Asia/Tokyo' }, clock: 3 } },
        { kind: 'playlist', id: 'p', set: {}, entries: { items: [{ id: 'i', set: { when: { clock: 'site' } } }] } },
        { kind: 'screen', id: 's', set: { lightsOut: [{ clock: 'Europe/Oslo' }] } },
      ]),
    ).toEqual(['Europe/Oslo', 'Asia/Tokyo']);
  });
});
