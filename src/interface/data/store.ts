import { createStore, type StoreApi } from 'zustand/vanilla';
import { HOUR, MINUTE } from '@/core/instant';
import type { LoosePatch, Media, Plan } from '@/core/plan';
import { done, refused, type Result } from '@/core/refusal';
import { REFUSED, ROLE } from '@/core/roles';
import { adoptZones, type ZoneTable } from '@/core/when';
import { counted } from '@/interface/kit/words/format';
import { editAction, undoAction } from '@/web/actions';
import type { FeedEvent, Missed } from '@/services/feed';
import type { DocketSums } from '@/services/thinking';
import type { EditResult, FeedChanges, UndoResult, Way } from '@/services/plan';
import {
  begun,
  edited,
  followed,
  holding,
  heard,
  takenBack,
  withEdition,
  zonesNamed,
  type NamedPlan,
  type NetworkState,
  type NetworkView,
} from './state';

/** A sentence: what happened, or what is wrong. */
export interface Notice {
  readonly text: string;
  readonly bad: boolean;
}

/** What the page knows, what follows from it, and what can be done. */
export interface Network extends NetworkState {
  /** The plan that is being made, one's own edits that are under way included. */
  readonly draft: Plan;
  /** Which decisions the interface looks at: those that players have, or those that are being made. */
  readonly looking: 'published' | 'draft';
  /** The plan that is looked at. */
  readonly seen: NamedPlan;
  readonly notice: Notice | null;
  /** What the page was given when it was loaded. */
  readonly view: NetworkView;
  look(at: 'published' | 'draft'): void;
  notify(text: string, bad?: boolean): void;
  /** Puts the notice away. */
  dismiss(): void;
  /** Takes files into the page's plan that it may not have: those that one is about to use or to look into. */
  hold(media: readonly Media[]): void;
  /** Changes the plan: seen at once, taken back with its reason where it is refused. With `goesOn` it is one act with an earlier one. */
  edit(patches: readonly LoosePatch[], said?: string, goesOn?: string): Promise<Result<EditResult>>;
  /** The same for a form's patch; where there is nothing to save, it is saved. */
  save(patch: LoosePatch | null, said?: string): Promise<Result<EditResult>>;
  undo(): void;
  redo(): void;
}

export type NetworkStore = StoreApi<Network> & {
  /** What the feed tells. */
  hear(event: FeedEvent): void;
  /** A view that was loaded anew takes the place of what is known. */
  begin(view: NetworkView): void;
};

/** What the store asks of the outside. */
export interface Ways {
  fetch(path: string): Promise<Response>;
  edit(patches: readonly LoosePatch[], origin: string, goesOn?: string): Promise<Result<EditResult>>;
  undo(way: Way, sure?: string): Promise<Result<UndoResult>>;
  /** Loads the view anew. */
  reload(): void;
  /** What is asked for by place is asked for again. */
  refetch(
    what:
      | 'uploads'
      | 'editions'
      | 'docket'
      | 'people'
      | 'requests'
      | 'library'
      | 'unused'
      | 'commands'
      | 'cues'
      | 'glimpses',
    value?: unknown,
  ): void;
}

const DONE: Record<Way, string> = { undo: 'Undone', redo: 'Redone' };
const NOTHING_TO: Record<Way, string> = {
  undo: 'You have no changes from the last 24 hours to undo.',
  redo: 'There’s nothing to redo.',
};
const ago = (ms: number) =>
  `${ms < HOUR ? counted(Math.floor(ms / MINUTE), 'minute') : counted(Math.floor(ms / HOUR), 'hour')} ago`;
const LOST = 'The server isn’t answering. This page may be out of date until it does.';

/** The ways of a page: the app's own routes and server actions. */
export const pageWays = (reload: () => void, refetch: Ways['refetch']): Ways => ({
  fetch: (path) => fetch(path, { cache: 'no-store' }),
  edit: editAction,
  undo: undoAction,
  reload,
  refetch,
});

export function createNetworkStore(view: NetworkView, ways: Ways): NetworkStore {
  let numbers = 0;
  /** Tells this page's edits from those of other tabs. */
  const page = Math.random().toString(36).slice(2, 12);
  const known = new Set(view.zones.map((zone) => zone.name));
  /** One's own edits take turns: each is made on the one before, so that quick ones do not contradict each other. */
  let turn: Promise<unknown> = Promise.resolve();
  /** The old act that was named, and is taken back when one asks again. */
  let sure: string | undefined;
  /** What is missing is asked for once at a time. */
  let asking: Promise<void> | null = null;
  /** Something was missed since the last question was sent: its answer may be from before. */
  let behind = false;

  const store = createStore<Network>()((set, get) => {
    const notify = (text: string, bad = false) => set({ notice: { text, bad } });

    const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
      const result = turn.then(work);
      turn = result.catch(() => undefined);
      return result;
    };

    const edit = (patches: readonly LoosePatch[], said?: string, goesOn?: string): Promise<Result<EditResult>> => {
      sure = undefined;
      if (patches.length === 0) return Promise.resolve(done(nothing(get().change)));
      if (!ROLE[get().view.role].may.includes('plan')) {
        notify(REFUSED.plan, true);
        return Promise.resolve(refused([], REFUSED.plan, 403));
      }
      const number = ++numbers;
      const origin = `${page}-${number}`;
      move((state) => edited(state, { number, origin }, patches));
      return inTurn(async () => {
        const result = await ways.edit(patches, origin, goesOn).catch((): Result<EditResult> => lost());
        if (result.ok) await follow(changesOf(result.value, get().person), number);
        else move((state) => takenBack(state, number));
        if (!result.ok) notify(result.message, true);
        else if (said) notify(said);
        return result;
      });
    };

    const step = (way: Way) =>
      void inTurn(async () => {
        const result = await ways.undo(way, sure).catch((): Result<UndoResult> => lost());
        sure = undefined;
        if (!result.ok) return notify(result.message, true);
        const { about, asks } = result.value;
        if (about === null) return notify(NOTHING_TO[way]);
        if (asks) {
          sure = asks.act;
          return notify(
            `This will undo your change of ${about}, made ${ago(asks.ageMs)}. Press Ctrl Z again to do it.`,
          );
        }
        await follow(changesOf(result.value, get().person));
        notify(`${DONE[way]}: ${about}.`);
      });

    return {
      ...looked(begun(view), 'published'),
      notice: null,
      view,
      look: (looking) => set((now) => looked(now, looking)),
      notify,
      dismiss: () => set({ notice: null }),
      hold: (media) => move((state) => holding(state, media)),
      edit,
      save: (patch, said) => edit(patch ? [patch] : [], said),
      undo: () => step('undo'),
      redo: () => step('redo'),
    };
  });

  /** Moves the state on; nothing is told where nothing differs. */
  function move(to: (state: NetworkState) => NetworkState): void {
    const now = store.getState();
    const next = to(now);
    if (next !== now) store.setState(looked({ ...now, ...next }, now.looking));
  }

  async function follow(event: FeedChanges, own?: number): Promise<void> {
    await learnZones(event);
    let missed = false;
    move((state) => {
      const result = followed(state, event, own);
      missed = 'missed' in result;
      return 'missed' in result ? state : result.state;
    });
    if (!missed) return tellLibrary(event);
    await catchUp();
    if (own !== undefined) move((state) => takenBack(state, own));
  }

  /** Which files there are is asked for by the places that list them: the plan has only those that it uses. */
  function tellLibrary({ changes }: FeedChanges): void {
    if (changes.some(({ patch }) => patch.kind === 'media')) ways.refetch('library');
    if (changes.length > 0) ways.refetch('unused');
  }

  async function learnZones({ changes }: FeedChanges): Promise<void> {
    const names = zonesNamed(changes.map((one) => one.patch)).filter((name) => !known.has(name));
    if (names.length === 0) return;
    const response = await ways.fetch(`/api/zones?names=${encodeURIComponent(names.join())}`);
    if (!response.ok) return;
    adoptZones((await response.json()) as ZoneTable[]);
    for (const name of names) known.add(name);
  }

  /** Asks for what this page has missed, until it stands where the server does. */
  function catchUp(): Promise<void> {
    behind = true;
    asking ??= (async () => {
      while (behind) {
        behind = false;
        await askMissed();
      }
    })()
      .catch(() => store.getState().notify(LOST, true))
      .finally(() => {
        asking = null;
      });
    return asking;
  }

  async function askMissed(): Promise<void> {
    const { change, heardAt } = store.getState();
    const response = await ways.fetch(`/api/missed?change=${change}&at=${heardAt}`);
    if (response.status === 401) return reload();
    if (!response.ok) return;
    const { changes, statuses, edition, docket, at } = (await response.json()) as Missed & { readonly at: number };
    move((state) => heard(state, { statuses, at }));
    if (!changes) return reload();
    await learnZones(changes);
    move((state) => {
      const result = followed(state, changes);
      return 'missed' in result ? state : result.state;
    });
    tellLibrary(changes);
    if (docket && isNews(docket, store.getState().docket)) countedAs(docket);
    ways.refetch('uploads');
    if (edition !== (store.getState().published?.number ?? 0)) await askEdition();
  }

  /** All comes with the new page: nothing more is asked for. */
  function reload(): void {
    behind = false;
    ways.reload();
  }

  function countedAs(docket: DocketSums): void {
    store.setState({ docket });
    ways.refetch('docket');
  }

  async function askEdition(): Promise<void> {
    const { change } = store.getState();
    const response = await ways.fetch(`/api/published?change=${change}`);
    if (!response.ok) return;
    const edition = (await response.json()) as { number: number; plan: Plan | null } | null;
    if (edition) move((state) => withEdition(state, edition));
    ways.refetch('editions');
  }

  function hear(event: FeedEvent): void {
    switch (event.kind) {
      case 'at':
        return void catchUp();
      case 'changes':
        return void follow(event).catch(() => catchUp());
      case 'reload':
        return ways.reload();
      case 'edition':
        return void askEdition().catch(() => ways.reload());
      case 'docket': {
        const { kind: _, ...sums } = event;
        return countedAs(sums);
      }
      case 'statuses':
        return move((state) => heard(state, { ...event, at: state.heardAt }));
      case 'people':
        return ways.refetch('people');
      case 'role':
        return event.person === store.getState().view.me ? ways.reload() : ways.refetch('people');
      case 'requests':
      case 'commands':
      case 'cues':
      case 'glimpses':
        return ways.refetch(event.kind);
      case 'upload':
        return ways.refetch('uploads', event.upload);
    }
  }

  return Object.assign(store, {
    hear,
    begin: (next: NetworkView) => {
      adoptZones(next.zones);
      for (const zone of next.zones) known.add(zone.name);
      const { looking } = store.getState();
      store.setState({ ...looked(begun(next), looking), view: next });
    },
  });
}

/** The parts of the store that follow from its state. */
function looked(state: NetworkState, wanted: 'published' | 'draft') {
  const { published, drafted } = state;
  const looking: 'published' | 'draft' = published ? wanted : 'draft';
  return {
    ...state,
    draft: drafted.plan,
    looking,
    seen: looking === 'published' && published ? published : drafted,
  };
}

const changesOf = (result: EditResult, by: string): FeedChanges => ({
  after: result.previous,
  number: result.change,
  changes: result.patches.map((patch, i) => ({ patch, by, number: result.changes[i] ?? result.change })),
  media: result.media,
});

const isNews = (docket: DocketSums, known: DocketSums): boolean =>
  docket.change > known.change ||
  (docket.change === known.change && (docket.entries !== known.entries || docket.screens !== known.screens));

const nothing = (change: number): EditResult => ({
  change,
  previous: change,
  changes: [],
  ids: [],
  patches: [],
  media: [],
});

const lost = () =>
  ({
    ok: false,
    status: 0,
    message: 'The server didn’t answer, so nothing was changed. Check the network, then try again.',
    problems: [],
  }) as const;
