import fc from 'fast-check';
import { HOUR } from '@/core/instant';
import {
  collectedBy,
  emptyPlan,
  mediaOf,
  merge,
  objectIn,
  patchOf,
  rulesOf,
  withObject,
  withUsedMedia,
  withoutWas,
  type LoosePatch,
  type Media,
  type Plan,
} from '@/core/plan';
import type { Result } from '@/core/refusal';
import type { FeedEvent } from '@/services/feed';
import type { EditResult, FeedChange, FeedChanges, UndoResult } from '@/services/plan';
import type { DocketSums } from '@/services/thinking';
import type { ScreenStatus } from '@/services/screens';
import type { NetworkView } from './state';
import { createNetworkStore, type Ways } from './store';
import { runs } from '@/core/tests/runs';

const file = (id: string, tags: string[] = []): Media => ({
  ...{ id, name: id, kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z', tags },
});

/** A server in memory: one plan, changed by the same patches, with a feed of what was done. */
class FakeServer {
  plan: Plan = {
    ...emptyPlan('Line'),
    sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo' }],
    screens: ['deck', 'hall'].map((id) => ({ id, name: id, site: 'quay', width: 10, height: 10 })),
    media: [file('flag'), file('offer', ['offer']), file('spare')],
    network: { name: 'Line', backdrop: { media: 'flag' } },
  };
  changes: FeedChange[] = [];
  /** By a change's number, the files and rules that came into use by it, and the file that it changed. */
  private named = new Map<number, { ids: string[]; rules: string[] }>();
  private first = 100;
  edition = 0;
  docket: DocketSums | null = null;

  get change(): number {
    return this.changes.at(-1)?.number ?? this.first;
  }

  since(change: number): FeedChanges {
    const changes = this.changes.filter((one) => one.number > change);
    return { after: change, number: this.change, changes, media: this.mediaOf(changes.map((one) => one.number)) };
  }

  private mediaOf(numbers: readonly number[]): readonly Media[] {
    const named = numbers.flatMap((number) => this.named.get(number) ?? []);
    const collected = collectedBy(new Set(named.flatMap((one) => one.rules)), this.plan.media);
    const ids = new Set([...named.flatMap((one) => one.ids), ...collected.map((one) => one.id)]);
    return this.plan.media.filter((one) => ids.has(one.id));
  }

  /** Makes a patch as the server does; numbers are not one after the other, since other networks have theirs between. */
  make(patches: readonly LoosePatch[], by: string, origin?: string): EditResult | string {
    const previous = this.change;
    const ids: string[] = [];
    let plan = this.plan;
    const done: LoosePatch[] = [];
    const named: { ids: string[]; rules: string[] }[] = [];
    for (const patch of patches) {
      const id = patch.id ?? `made-${this.changes.length + ids.length}`;
      const before = objectIn(plan, patch.kind, id);
      if (!('add' in patch) && !before) return 'There is no such thing.';
      const { after, conflicts } = merge(patch, id, before);
      if (conflicts.length > 0) return 'Otto changed the same.';
      ids.push(id);
      plan = withObject(plan, patch.kind, id, after);
      const told = patchOf(patch.kind, id, before, after);
      if (!told) continue;
      done.push(withoutWas(told));
      const fresh = (old: ReadonlySet<string>, now: ReadonlySet<string>) => [...now].filter((one) => !old.has(one));
      named.push({
        ids: [
          ...fresh(mediaOf(patch.kind, before), mediaOf(patch.kind, after)),
          ...(patch.kind === 'media' ? [id] : []),
        ],
        rules: fresh(rulesOf(patch.kind, before), rulesOf(patch.kind, after)),
      });
    }
    this.plan = plan;
    const numbers = done.map((_, i) => previous + 3 + i);
    this.changes.push(...done.map((patch, i) => ({ patch, by, origin, number: numbers[i] ?? 0 })));
    numbers.forEach((number, i) => this.named.set(number, named[i] ?? { ids: [], rules: [] }));
    return { change: this.change, previous, changes: numbers, ids, patches: done, media: this.mediaOf(numbers) };
  }

  view(): NetworkView {
    return {
      person: 'Ida',
      me: 'p-ida',
      role: 'owner',
      draft: withUsedMedia(this.plan),
      change: this.change,
      published: null,
      docket: { change: this.change, entries: 0, screens: 0 },
      statuses: [status('deck'), status('hall')],
      zones: [],
      serverNow: 0,
      glances: [],
    };
  }
}

const status = (id: string, state: ScreenStatus['state'] = 'lit'): ScreenStatus => ({
  ...{ id, state, lastSeen: null, wasLast: null, troubles: [], download: null, can: null },
});

const refusal = (message: string): Result<EditResult> => ({ ok: false, status: 409, message, problems: [] });

/** A page of Ida's before a server; `gate` holds her edits back until it is opened. */
function page(server = new FakeServer()) {
  const asked: string[] = [];
  const refetched: string[] = [];
  let gate = Promise.resolve();
  let answered = Promise.resolve();
  let missedAnswered = Promise.resolve();
  let cut = false;
  const answer = (value: unknown) => new Response(JSON.stringify(value), { status: 200 });
  const ways: Ways = {
    fetch: async (path) => {
      asked.push(path);
      if (cut) throw new TypeError('the line is cut');
      const query = new URL(path, 'http://page.test').searchParams;
      if (path.startsWith('/api/missed')) {
        const missed = answer({
          changes: server.since(Number(query.get('change'))),
          statuses: [],
          ...{ edition: server.edition, docket: server.docket, at: 5 },
        });
        await missedAnswered;
        return missed;
      }
      return answer(server.edition === 0 ? null : { number: server.edition, plan: null });
    },
    edit: async (patches, origin) => {
      await gate;
      if (cut) throw new TypeError('the line is cut');
      const made = server.make(patches, 'Ida', origin);
      await answered;
      return typeof made === 'string' ? refusal(made) : { ok: true, value: made };
    },
    undo: async (_way, sure): Promise<Result<UndoResult>> => {
      asked.push(`undo ${sure ?? ''}`);
      const { change } = server;
      const nothing = { ...{ change, previous: change }, ...{ changes: [], ids: [], patches: [], media: [] } };
      const asks = sure === 'act-1' ? {} : { asks: { act: 'act-1', ageMs: 3 * HOUR } };
      return { ok: true, value: { ...nothing, about: '"Deck"', ...asks } };
    },
    reload: () => asked.push('reload'),
    refetch: (what) => refetched.push(what),
  };
  const store = createNetworkStore(server.view(), ways);
  const hold = () => {
    let open = () => {};
    gate = new Promise((resolve) => (open = resolve));
    return open;
  };
  const cutLine = (to: boolean) => {
    cut = to;
  };
  const holdAnswers = () => {
    let open = () => {};
    answered = new Promise((resolve) => (open = resolve));
    return open;
  };
  const holdMissed = () => {
    let open = () => {};
    missedAnswered = new Promise((resolve) => (open = resolve));
    return open;
  };
  return { server, store, asked, refetched, hold, holdAnswers, holdMissed, cutLine };
}

const rename = (id: string, name: string, was?: string): LoosePatch => ({
  kind: 'screen',
  id,
  set: { name },
  ...(was === undefined ? {} : { was: { name: was } }),
});
const nameOf = (plan: Plan, id: string) => plan.screens.find((one) => one.id === id)?.name;
const settled = () => new Promise((resolve) => setImmediate(resolve));

test("one's own edit is seen at once, before the server has answered, and stays when it has", async () => {
  const { store, hold, server } = page();
  const open = hold();
  const result = store.getState().edit([rename('hall', 'Great hall', 'hall')], 'Renamed.');
  expect(nameOf(store.getState().draft, 'hall')).toBe('Great hall');
  const shown = store.getState().drafted;
  open();
  expect((await result).ok).toBe(true);
  expect(store.getState()).toMatchObject({ change: server.change, pending: [], notice: { text: 'Renamed.' } });
  // The plan that was shown is the plan that came: nothing that follows from it is computed again.
  expect(store.getState().drafted).toBe(shown);
});

test('a refused edit is taken back, and its reason told', async () => {
  const { store, server } = page();
  server.make([rename('hall', 'Lobby')], 'Otto');
  const result = store.getState().edit([rename('hall', 'Great hall', 'hall')]);
  expect(nameOf(store.getState().draft, 'hall')).toBe('Great hall');
  expect((await result).ok).toBe(false);
  expect(store.getState()).toMatchObject({ pending: [], notice: { text: 'Otto changed the same.', bad: true } });
  expect(nameOf(store.getState().draft, 'hall')).toBe('hall');
  store.hear({ kind: 'changes', ...server.since(100) });
  await settled();
  expect(nameOf(store.getState().draft, 'hall')).toBe('Lobby');
});

test('an old change is named before it is taken back, and again when one did something else meanwhile', async () => {
  const { store, asked } = page();
  const undo = async () => {
    store.getState().undo();
    await settled();
    return store.getState().notice?.text;
  };
  expect(await undo()).toBe('This will undo your change of "Deck", made 3 hours ago. Press Ctrl Z again to do it.');
  await store.getState().edit([rename('hall', 'Lobby')]);
  expect(await undo()).toContain('Press Ctrl Z again');
  expect(await undo()).toBe('Undone: "Deck".');
  expect(asked.filter((one) => one.startsWith('undo'))).toEqual(['undo ', 'undo ', 'undo act-1']);
});

test('an edit while the line is cut is taken back with a sentence, and the next one is made', async () => {
  const { store, cutLine } = page();
  cutLine(true);
  const lost = await store.getState().edit([rename('hall', 'Great hall')]);
  expect(lost).toMatchObject({
    ok: false,
    message: expect.stringContaining('The server didn’t answer, so nothing was changed.'),
  });
  expect(nameOf(store.getState().draft, 'hall')).toBe('hall');
  cutLine(false);
  expect((await store.getState().edit([rename('hall', 'Lobby')])).ok).toBe(true);
});

test('a new thing stands under a passing id until the server has named it, and once only', async () => {
  const { store, hold } = page();
  const open = hold();
  const result = store.getState().edit([{ kind: 'playlist', add: { name: 'Offers', items: [] } }]);
  expect(store.getState().draft.playlists.map((one) => one.id)).toEqual(['new-1-0']);
  open();
  await result;
  expect(store.getState().draft.playlists.map((one) => one.name)).toEqual(['Offers']);
  expect(store.getState().draft.playlists[0]?.id).toMatch(/^made-/);
});

test("one's own change that comes by the feed before its answer is shown once, as the same thing", async () => {
  const { store, server, holdAnswers } = page();
  await store.getState().edit([{ kind: 'playlist', id: 'loop', add: { name: 'Loop', items: [] } }]);
  const open = holdAnswers();
  const put = (id: string, after: string | null): LoosePatch => ({
    ...{ kind: 'playlist', id: 'loop', set: {} },
    entries: { items: [{ id, add: { collect: id }, after }] },
  });
  const before = server.change;
  const results = [store.getState().edit([put('a', null)]), store.getState().edit([put('b', 'a')])];
  await settled();
  const items = () => store.getState().draft.playlists[0]?.items.map((item) => item.id);
  expect(items()).toEqual(['a', 'b']);
  const [first] = store.getState().draft.playlists[0]?.items ?? [];
  store.hear({ kind: 'changes', ...server.since(before) });
  await settled();
  expect(items()).toEqual(['a', 'b']);
  expect(store.getState().draft.playlists[0]?.items[0]).toBe(first);
  open();
  await Promise.all(results);
  expect(items()).toEqual(['a', 'b']);
  expect(store.getState().draft).toEqual(withUsedMedia(server.plan));
});

test("what others change comes by the feed, with their name, under one's own edit that is on its way", async () => {
  const { store, server, hold } = page();
  const open = hold();
  const mine = store.getState().edit([rename('hall', 'Great hall')]);
  server.make([{ kind: 'screen', id: 'hall', set: { width: 99 } }], 'Otto');
  store.hear({ kind: 'changes', ...server.since(100) });
  await settled();
  expect(store.getState().draft.screens.find((one) => one.id === 'hall')).toMatchObject({
    name: 'Great hall',
    width: 99,
  });
  expect(store.getState().authors.get('screen hall')).toBe('Otto');
  open();
  await mine;
  expect(store.getState().draft).toEqual(withUsedMedia(server.plan));
});

test('a gap in the numbers is asked for; what came twice or late changes nothing', async () => {
  const { store, server, asked } = page();
  server.make([rename('hall', 'A')], 'Otto');
  const first = server.since(100);
  const middle = server.change;
  server.make([rename('deck', 'B')], 'Otto');
  // The first event is lost: the second does not lead on from what is known.
  store.hear({ kind: 'changes', ...server.since(middle) });
  await settled();
  await settled();
  expect(asked.filter((path) => path.startsWith('/api/missed'))).toHaveLength(1);
  expect(store.getState().base).toEqual(withUsedMedia(server.plan));
  const before = store.getState();
  store.hear({ kind: 'changes', ...first });
  await settled();
  expect(store.getState()).toBe(before);
});

test('what happens while the page waits for an answer is asked for again: that answer is from before', async () => {
  const { store, server, asked, holdMissed } = page();
  const open = holdMissed();
  store.hear({ kind: 'at', change: -1 });
  server.make([rename('hall', 'A')], 'Otto');
  const middle = server.change;
  server.make([rename('deck', 'B')], 'Otto');
  store.hear({ kind: 'changes', ...server.since(middle) });
  await settled();
  open();
  for (let i = 0; i < 5; i++) await settled();
  expect(store.getState().base).toEqual(withUsedMedia(server.plan));
  expect(asked.filter((path) => path.startsWith('/api/missed'))).toHaveLength(2);
});

test('too much to tell: the page is loaded anew, and takes the new view over', async () => {
  const { store, server, asked } = page();
  server.make([rename('hall', 'A')], 'Otto');
  store.hear({ kind: 'reload' });
  expect(asked).toContain('reload');
  store.begin(server.view());
  expect(store.getState().draft).toEqual(withUsedMedia(server.plan));
});

test('statuses: what differs alone is new, and a screen that is gone is forgotten', () => {
  const { store } = page();
  const before = store.getState().statuses;
  store.hear({ kind: 'statuses', statuses: [status('hall')], gone: [] });
  expect(store.getState().statuses).toBe(before);
  store.hear({ kind: 'statuses', statuses: [status('hall', 'dark')], gone: ['deck', 'nobody'] });
  expect([...store.getState().statuses.values()].map((one) => `${one.id} ${one.state}`)).toEqual(['hall dark']);
});

test("an edition of what the page holds is the page's own plan, not fetched", async () => {
  const { store, server, refetched } = page();
  server.edition = 1;
  store.hear({ kind: 'edition' });
  await settled();
  await settled();
  expect(store.getState().published).toMatchObject({ number: 1 });
  expect(store.getState().published?.plan.screens).toBe(store.getState().base.screens);
  expect(refetched).toContain('editions');
});

test('what happened before a page listened is asked for: an edition, the docket, and uploads', async () => {
  const { store, server, asked, refetched } = page();
  const at = async () => {
    store.hear({ kind: 'at', change: server.change });
    await settled();
    await settled();
  };
  server.docket = { change: server.change, entries: 0, screens: 0 };
  await at();
  expect(asked).toEqual(['/api/missed?change=100&at=0']);
  expect(refetched).toEqual(['uploads']);
  server.edition = 1;
  server.docket = { change: server.change, entries: 2, screens: 1 };
  await at();
  expect(store.getState()).toMatchObject({ published: { number: 1 }, docket: server.docket });
  expect(refetched).toEqual(['uploads', 'docket', 'uploads', 'editions']);
  // An older count than the page's own is none.
  server.docket = { change: server.change - 1, entries: 5, screens: 5 };
  await at();
  expect(store.getState().docket).toMatchObject({ entries: 2 });
});

const FILES = ['flag', 'offer', 'spare'];
const playlist = (items: object[]): LoosePatch => ({ kind: 'playlist', id: 'loop', set: { items } });
const heldFiles = (plan: Plan) => plan.media.map((one) => one.id);

test('of the files a page holds those that are used; others join when they come into use, by name or by a rule', async () => {
  const { store, server } = page();
  expect(heldFiles(store.getState().draft)).toEqual(['flag']);
  const tell = async () => {
    store.hear({ kind: 'changes', ...server.since(store.getState().change) });
    await settled();
    return heldFiles(store.getState().draft);
  };
  server.make([{ kind: 'playlist', id: 'loop', add: { name: 'Loop', items: [] } }], 'Otto');
  expect(await tell()).toEqual(['flag']);
  server.make([playlist([{ id: 'i1', media: 'spare' }])], 'Otto');
  expect(await tell()).toEqual(['flag', 'spare']);
  server.make([playlist([{ id: 'i2', collect: 'offer' }])], 'Otto');
  expect(await tell()).toEqual(['flag', 'offer', 'spare']);
  const own = page(server);
  server.make([{ kind: 'media', id: 'spare', set: { tags: ['offer'] } }], 'Otto');
  own.store.hear({ kind: 'changes', ...server.since(own.store.getState().change) });
  await settled();
  expect(own.store.getState().draft.media).toEqual(server.plan.media);
});

test("a file that one has in sight joins the page's plan when it is about to be used, once", async () => {
  const { store, server } = page();
  store.getState().hold([file('spare'), file('flag')]);
  expect(heldFiles(store.getState().draft)).toEqual(['flag', 'spare']);
  const before = store.getState();
  store.getState().hold([{ ...file('spare'), name: 'an older name' }]);
  expect(store.getState()).toBe(before);
  await store.getState().edit([{ kind: 'playlist', add: { name: 'New', items: [{ id: 'i1', media: 'spare' }] } }]);
  expect(store.getState().draft).toEqual(withUsedMedia(server.plan));
});

test('lists of files, and of those that nothing uses, are asked for anew when that may differ', async () => {
  const { store, server, refetched } = page();
  server.make([rename('hall', 'A')], 'Otto');
  store.hear({ kind: 'changes', ...server.since(100) });
  await settled();
  expect(refetched).toEqual(['unused']);
  await store.getState().edit([{ kind: 'media', id: 'flag', set: { name: 'Flag' } }]);
  expect(refetched).toEqual(['unused', 'library', 'unused']);
});

test('whatever order, loss and doubling of events: the page comes to what the server holds', async () => {
  const act = fc.constantFrom('mine', 'theirs', 'use', 'collect', 'retag', 'deliver', 'lose', 'double', 'cut', 'join');
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(act, fc.nat({ max: 4 })), { maxLength: 25 }), async (acts) => {
      const { store, server, cutLine } = page();
      server.make([{ kind: 'playlist', id: 'loop', add: { name: 'Loop', items: [] } }], 'Otto');
      let told = server.change;
      const events: FeedEvent[] = [];
      const mine: Promise<unknown>[] = [];
      for (const [what, n] of acts) {
        const id = n % 2 === 0 ? 'hall' : 'deck';
        if (what === 'mine') mine.push(store.getState().edit([rename(id, `mine ${n}`)]));
        else if (what === 'theirs') server.make([{ kind: 'screen', id, set: { width: n + 1 } }], 'Otto');
        else if (what === 'use') server.make([playlist([{ id: 'i1', media: FILES[n % 3] }])], 'Otto');
        else if (what === 'collect')
          server.make([playlist([{ id: 'i2', collect: n % 2 ? 'offer' : 'spring' }])], 'Otto');
        else if (what === 'retag')
          server.make(
            [{ kind: 'media', id: FILES[n % 3] ?? '', set: { tags: n % 2 ? ['offer'] : ['spring'] } }],
            'Otto',
          );
        else if (what === 'cut') cutLine(n % 2 === 0);
        else if (what === 'join') store.hear({ kind: 'at', change: server.change });
        if (server.change > told) {
          events.push({ kind: 'changes', ...server.since(told) });
          told = server.change;
        }
        if (what === 'lose') events.shift();
        const next = what === 'double' ? events[0] : what === 'deliver' ? events.shift() : undefined;
        if (next) store.hear(next);
        await settled();
      }
      cutLine(false);
      await Promise.all(mine);
      await settled();
      store.hear({ kind: 'at', change: server.change });
      for (let i = 0; i < 5; i++) await settled();
      expect(store.getState().pending).toEqual([]);
      // It may hold files that are not used any more.
      expect(withUsedMedia(store.getState().draft)).toEqual(withUsedMedia(server.plan));
      expect(store.getState().change).toBe(server.change);
    }),
    runs(150),
  );
});
