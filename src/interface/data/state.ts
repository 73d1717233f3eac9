import equal from 'fast-deep-equal';
import type { Glance } from '@/core/forecast';
import type { Instant } from '@/core/instant';
import { sharing, withObject, withPatches, type LoosePatch, type Media, type Plan } from '@/core/plan';
import type { Role } from '@/core/roles';
import type { ZoneTable } from '@/core/when';
import type { DocketSums } from '@/services/thinking';
import type { FeedChanges } from '@/services/plan';
import type { ScreenStatus } from '@/services/screens';

/**
 * What a page knows of its network, and how it moves on: pure, so that what two people and a broken line make of it can be
 * tested. The draft that is shown is the server's plan with one's own edits that are under way on top of it, made by the same
 * patches that the server makes.
 */

/** A plan under a name: forecast workers get each once. */
export interface NamedPlan {
  readonly key: string;
  readonly plan: Plan;
}

export interface Published extends NamedPlan {
  readonly number: number;
}

/** What a page is given when it is loaded. */
export interface NetworkView {
  readonly person: string;
  /** The person's id, under which this browser keeps what is that person's own. */
  readonly me: string;
  /** What the person may do, by their role. */
  readonly role: Role;
  readonly draft: Plan;
  /** The last change of the draft: from there on the feed moves it. */
  readonly change: number;
  readonly published: { readonly number: number; readonly plan: Plan } | null;
  readonly docket: DocketSums;
  readonly statuses: readonly ScreenStatus[];
  /** The changes of clocks in the plans' zones and the person's own: the server's zone data holds in every browser. */
  readonly zones: readonly ZoneTable[];
  readonly serverNow: Instant;
  /** What every screen shows at `serverNow`, so that the first picture needs no second look; empty in a large network. */
  readonly glances: readonly Glance[];
}

/** An edit that is on its way. */
interface Pending {
  readonly number: number;
  /** What the feed calls it. */
  readonly origin: string;
  readonly patches: readonly LoosePatch[];
}

export interface NetworkState {
  readonly person: string;
  /** The plan as the server had it at `change`. */
  readonly base: Plan;
  readonly change: number;
  readonly pending: readonly Pending[];
  readonly drafted: NamedPlan;
  readonly published: Published | null;
  readonly docket: DocketSums;
  readonly statuses: ReadonlyMap<string, ScreenStatus>;
  /** The server's time by which the statuses are known. */
  readonly heardAt: Instant;
  /** Who changed an object last, as far as this page has heard: by `kind id`. */
  readonly authors: ReadonlyMap<string, string | null>;
}

let count = 0;
const named = (plan: Plan): NamedPlan => ({ key: `draft-${++count}`, plan });

export function begun(view: NetworkView): NetworkState {
  const { person, draft, change, published, docket, statuses, serverNow } = view;
  return {
    ...{ person, base: draft, change, docket },
    pending: [],
    drafted: named(draft),
    published: published && { ...published, key: `edition-${published.number}` },
    statuses: new Map(statuses.map((one) => [one.id, one])),
    heardAt: serverNow,
    authors: new Map(),
  };
}

/** The draft anew: as the server has it, with what is under way on top. The same plan keeps its name. */
function redrawn(state: NetworkState): NetworkState {
  const wanted = withPatches(
    state.base,
    state.pending.flatMap((one) => one.patches),
  );
  const before = state.drafted.plan;
  const plan = sharing(before, wanted);
  const same = (Object.keys(plan) as (keyof Plan)[]).every((key) => plan[key] === before[key]);
  return same ? state : { ...state, drafted: named(plan) };
}

/** One's own edit, shown at once. New objects stand under a passing id until the server has named them. */
export function edited(
  state: NetworkState,
  { number, origin }: Pick<Pending, 'number' | 'origin'>,
  patches: readonly LoosePatch[],
): NetworkState {
  const local = patches.map((patch, i) =>
    'add' in patch && !patch.id ? { ...patch, id: `new-${number}-${i}` } : patch,
  );
  return redrawn({ ...state, pending: [...state.pending, { number, origin, patches: local }] });
}

/** The edit was refused: what it showed is taken back. */
export const takenBack = (state: NetworkState, number: number): NetworkState =>
  redrawn({ ...state, pending: state.pending.filter((one) => one.number !== number) });

/** What became of following changes. */
export type Followed = { readonly state: NetworkState } | { readonly missed: true };

/**
 * Follows changes; `done` is the edit of one's own that they are the answer to. Those that are known already change nothing;
 * where some are missing in between, they have to be asked for first.
 */
export function followed(state: NetworkState, event: FeedChanges, done?: number): Followed {
  const pending = done === undefined ? state.pending : state.pending.filter((one) => one.number !== done);
  if (event.number <= state.change)
    return { state: pending.length === state.pending.length ? state : redrawn({ ...state, pending }) };
  if (event.after > state.change) return { missed: true };
  const news = event.changes.filter((one) => one.number > state.change);
  // A file that the page did not have stands as it is now: what is said of it again makes no difference.
  const base = withPatches(
    withHeld(state.base, event.media),
    news.map((one) => one.patch),
  );
  // One's own come by the feed too, often before their answer: they are no longer on their way.
  const own = new Set(news.map((one) => one.origin));
  const authors = new Map(state.authors);
  for (const { patch, by } of news) authors.set(`${patch.kind} ${patch.id ?? ''}`, by);
  return {
    state: redrawn({
      ...state,
      base,
      change: event.number,
      pending: pending.filter((one) => !own.has(one.origin)),
      authors,
    }),
  };
}

/** Statuses that differ, and screens that are gone, as of an instant of the server's. */
export function heard(
  state: NetworkState,
  { statuses, gone = [], at }: { statuses: readonly ScreenStatus[]; gone?: readonly string[]; at: Instant },
): NetworkState {
  const differing = statuses.filter((one) => !equal(state.statuses.get(one.id), one));
  const left = gone.filter((id) => state.statuses.has(id));
  if (differing.length + left.length === 0) return state.heardAt === at ? state : { ...state, heardAt: at };
  const next = new Map(state.statuses);
  for (const one of differing) next.set(one.id, one);
  for (const id of left) next.delete(id);
  return { ...state, statuses: next, heardAt: at };
}

/** Files that came into sight, or into use: those that the page does not have yet join its plan. */
export function holding(state: NetworkState, media: readonly Media[]): NetworkState {
  const base = withHeld(state.base, media);
  return base === state.base ? state : redrawn({ ...state, base });
}

function withHeld(plan: Plan, media: readonly Media[]): Plan {
  if (media.length === 0) return plan;
  const known = new Set(plan.media.map(({ id }) => id));
  return media.reduce((held, file) => (known.has(file.id) ? held : withObject(held, 'media', file.id, file)), plan);
}

/** A publication; without a plan it is that of the draft as the server had it at the page's change. */
export function withEdition(
  state: NetworkState,
  { number, plan }: { number: number; plan: Plan | null },
): NetworkState {
  if (state.published && state.published.number >= number) return state;
  return { ...state, published: { key: `edition-${number}`, number, plan: sharing(state.base, plan ?? state.base) } };
}

/** Names of zones that patches bring: their clocks' changes must be known before they are drawn. */
export function zonesNamed(patches: readonly LoosePatch[]): string[] {
  const names = new Set<string>();
  const visit = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    for (const [key, one] of Object.entries(value))
      if ((key === 'timeZone' || key === 'clock') && typeof one === 'string' && one !== 'site') names.add(one);
      else visit(one);
  };
  patches.forEach(visit);
  return [...names];
}
