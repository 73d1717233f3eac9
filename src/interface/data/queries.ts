'use client';

import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import type { KnownFiring } from '@/core/cues';
import type { Feed } from '@/services/calendars';
import type { CommandSummary } from '@/services/commands';
import type { BoardsAccess, CueOn, Fired, Flood, ShownBoard } from '@/services/cues';
import type { Glimpse } from '@/services/glimpses';
import type { OverviewNews, ScreenHealth, ScreenOverview } from '@/services/health';
import type {
  Arrival,
  Docket,
  DocketChoice,
  Edition,
  Firing,
  Kept,
  PublishRequest,
  ShownOn,
  Takeovers,
} from '@/services/editions';
import type { Invitation, OthersKey, Person, PersonalKey, Session, TrailLine } from '@/services/people';
import { planZones, type Media, type MediaKind, type ObjectKey, type Plan, type TagCount } from '@/core/plan';
import { adoptZones, type ZoneTable } from '@/core/when';
import type {
  BatchSaid,
  Facets,
  FileTrouble,
  MediaExtras,
  MediaPage,
  Room,
  Upload,
  SavedSearch,
} from '@/services/library';
import type { Way } from '@/services/plan';
import type { Line, Tray } from '@/services/screens';
import { askAgain } from './ask-again';
import { withNews, type Overview } from './overview';
import type { NamedPlan } from './state';

export interface PeopleView {
  readonly people: readonly Person[];
  readonly invitations: readonly Invitation[];
  readonly sessions: readonly Session[];
  readonly keys: readonly PersonalKey[];
  readonly othersKeys: readonly OthersKey[];
  readonly trail: readonly TrailLine[];
}

/** What single places ask for when they are looked at; the feed says when it is to be asked for again. */

/** So many screens fit into a question. */
const MOST_SCREENS = 200;

/** Players measure their lines with each file that they fetch, in milliseconds. */
const HEALTH_EVERY_MS = 30_000;
/** States over time are written down each minute. */
const OVERVIEW_EVERY_MS = 60_000;
/** Who unpacks boxes waits for them to appear. */
const TRAY_EVERY_MS = 4000;
const LINES_EVERY_MS = 30_000;
const OVERVIEW = ['health', 'overview'];

/** What a route of ours answers, as JSON. Throws where it refuses, or can't be reached. */
export async function asked<T>(path: string, init: RequestInit = {}): Promise<T> {
  const response = await fetch(path, { cache: 'no-store', ...init });
  if (!response.ok) throw new Error(`${path} answered ${response.status}`);
  return (await response.json()) as T;
}

/** The docket as a whole: undefined until it is here. */
export const useDocket = () =>
  useQuery({ queryKey: ['docket'], queryFn: () => asked<Docket>('/api/docket'), placeholderData: keepPreviousData })
    .data;

/** What a choice of the changes up to one would be as an edition: undefined until it is here, and for none. */
export const useDocketChoice = (change: number, chosen: readonly ObjectKey[] | null) => {
  const keys = chosen?.map(({ kind, id }) => ({ kind, id }));
  return useQuery({
    queryKey: ['docket', 'choice', change, keys],
    queryFn: () =>
      asked<DocketChoice>('/api/docket/choice', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ chosen: keys }),
      }),
    enabled: keys !== undefined,
  }).data;
};

/** What the players' lines and storage are like, by their screens: undefined until it is here. */
export const useLines = () =>
  useQuery({
    queryKey: ['lines'],
    queryFn: () => asked<readonly Line[]>('/api/lines'),
    refetchInterval: LINES_EVERY_MS,
  }).data;

/**
 * The last commands to screens, and how they went: undefined until they are here. The feed says when to ask again. Of more screens than fit
 * into a question, the last commands of the whole network.
 */
export const useCommands = (screens: readonly string[]) => {
  const few = screens.length > MOST_SCREENS ? [] : screens;
  const query = new URLSearchParams(few.map((id) => ['screen', id])).toString();
  return useQuery({
    queryKey: ['commands', query],
    queryFn: () => asked<readonly CommandSummary[]>(`/api/commands?${query}`),
    placeholderData: keepPreviousData,
  }).data;
};

/** What is on since a cue was fired, what was fired last, what fires too often, and who may press which board. */
export interface CuesKnown extends BoardsAccess {
  readonly on: readonly CueOn[];
  readonly fired: readonly Fired[];
  readonly tooOften: readonly Flood[];
  /** What was fired in the last days, as forecasts take it. */
  readonly firings: readonly KnownFiring[];
}

/** So often is looked whether something that is on has ended by itself. */
const CUES_EVERY_MS = 5000;

/** Undefined until it is here. The feed says when to ask again. */
export const useCues = () =>
  useQuery({
    queryKey: ['cues'],
    queryFn: () => asked<CuesKnown>('/api/cues'),
    refetchInterval: ({ state }) => (state.data && state.data.on.length > 0 ? CUES_EVERY_MS : false),
    placeholderData: keepPreviousData,
  }).data;

const NO_FIRINGS: readonly KnownFiring[] = [];

/** What was fired, for forecasts: the same list until something is fired. */
export const useFirings = (): readonly KnownFiring[] => useCues()?.firings ?? NO_FIRINGS;

/** A board with what its buttons would do: asked for again when cues are fired, and while one is on. */
export const useBoard = (id: string) =>
  useQuery({
    queryKey: ['cues', 'board', id],
    queryFn: () => asked<ShownBoard>(`/api/boards/${encodeURIComponent(id)}`),
    refetchInterval: ({ state }) =>
      state.data?.buttons.some(({ onUntil }) => onUntil !== null) ? CUES_EVERY_MS / 2 : 6 * CUES_EVERY_MS,
    placeholderData: keepPreviousData,
  });

/** The newest picture of each of these screens that has one: undefined until it is here. The feed says when to ask again. */
export const useNewestGlimpses = (screens: readonly string[]) => {
  const query = new URLSearchParams(screens.slice(0, MOST_SCREENS).map((id) => ['screen', id])).toString();
  return useQuery({
    queryKey: ['glimpses', 'newest', query],
    queryFn: () => asked<readonly Glimpse[]>(`/api/glimpses?${query}`),
    placeholderData: keepPreviousData,
    enabled: screens.length > 0,
  }).data;
};

/** All pictures that are kept of a screen, the newest first: undefined until they are here. */
export const useGlimpses = (screen: string) =>
  useQuery({
    queryKey: ['glimpses', 'of', screen],
    queryFn: () => asked<readonly Glimpse[]>(`/api/glimpses?of=${encodeURIComponent(screen)}`),
    placeholderData: keepPreviousData,
  }).data;

/** How a screen was over the last day, and what its player reported last: undefined until it is here. */
export const useScreenHealth = (screen: string) =>
  useQuery({
    queryKey: ['health', screen],
    queryFn: () => asked<ScreenHealth>(`/api/screens/${encodeURIComponent(screen)}/health`),
    refetchInterval: HEALTH_EVERY_MS,
  }).data;

/** What the players of all screens told, and how the screens were, by their ids: undefined until it is here. Only what is new is sent. */
export function useScreensOverview(enabled = true): ReadonlyMap<string, ScreenOverview> | undefined {
  const queries = useQueryClient();
  return useQuery({
    queryKey: OVERVIEW,
    queryFn: async () => {
      const before = queries.getQueryData<Overview>(OVERVIEW);
      const known = before ? `?known=${before.version}` : '';
      return withNews(before, await asked<OverviewNews>(`/api/screens/overview${known}`));
    },
    refetchInterval: OVERVIEW_EVERY_MS,
    enabled,
  }).data?.screens;
}

/** The players that wait for a screen, and the keys by which they come: undefined until they are here. */
export const useTray = () =>
  useQuery({ queryKey: ['tray'], queryFn: () => asked<Tray>('/api/tray'), refetchInterval: TRAY_EVERY_MS }).data;

/** How long the network keeps what one can go back to: undefined until it is here. */
/** The PIN of players' own pages: null for none, undefined until it is here. */
export const usePlayerPin = () =>
  useQuery({ queryKey: ['player-pin'], queryFn: () => asked<{ pin: string | null }>('/api/player-pin') }).data?.pin;

export const useKept = () => useQuery({ queryKey: ['editions', 'kept'], queryFn: () => asked<Kept>('/api/kept') }).data;

/** So long after the all-clear players may still say until when they showed it, in milliseconds. */
const LATE_WORD_MS = 120_000;

/** Whether players have more to say of a takeover that was fired. */
const isTold = ({ clearedAt, until, showing }: Firing, now: number): boolean => {
  const end = clearedAt ?? until;
  if (end === null || Date.parse(end) > now) return true;
  return now - Date.parse(end) < LATE_WORD_MS && showing > 0;
};

/** What was fired, and who may fire what: undefined until it is here. Asked for again and again while players have more to say of it. */
export const useTakeovers = () =>
  useQuery({
    queryKey: ['editions', 'takeovers'],
    queryFn: () => asked<Takeovers>('/api/takeovers'),
    refetchInterval: ({ state }) => (state.data?.firings.some((one) => isTold(one, Date.now())) ? 2000 : false),
  }).data;

/** The screens of one that was fired, and which of them showed it: undefined until they are here, and for none. */
export const useFiringScreens = (firing: Firing | null) =>
  useQuery({
    // Asked anew where the list tells of another number that show it: its last word may come after this one's last answer.
    queryKey: ['editions', 'takeovers', firing?.id, firing?.showing],
    queryFn: () => asked<readonly ShownOn[]>(`/api/firings/${firing?.id ?? ''}`),
    enabled: firing !== null,
    refetchInterval: firing !== null && isTold(firing, Date.now()) ? 2000 : false,
    placeholderData: (before, query) => (query?.queryKey[2] === firing?.id ? before : undefined),
  }).data;

/** The newest editions: their `data` is undefined until they are here. */
export const useEditions = (enabled = true) =>
  useQuery({ queryKey: ['editions'], queryFn: () => asked<readonly Edition[]>('/api/editions'), enabled });

/** A screen is heard to have taken an edition up a little before that is written down, in milliseconds. */
const WRITTEN_MS = 2000;

/**
 * How an edition arrives on the screens that it changed, asked for again while `reached` names some that are not among those that took it
 * up: undefined until it is here, and for none.
 */
export const useArrivals = (number: number | null, reached: ReadonlySet<string>) =>
  useQuery({
    // Their number alone does not tell: one may come as another goes dark.
    queryKey: ['editions', 'arrivals', number, reached.size],
    queryFn: () => asked<readonly Arrival[]>(`/api/editions/${number}/arrivals`),
    enabled: number !== null,
    refetchInterval: ({ state }) =>
      state.data?.some(({ screen, at }) => at === null && reached.has(screen)) ? WRITTEN_MS : false,
    placeholderData: (before, query) => (query?.queryKey[2] === number ? before : undefined),
  }).data;

/** The plan of an edition, which never changes: undefined until it is here. */
export const useEditionPlan = (number: number | null) =>
  useQuery({
    queryKey: ['edition', number],
    queryFn: () => asked<{ readonly number: number; readonly plan: Plan }>(`/api/editions/${number}`),
    enabled: number !== null,
  });

/**
 * The plan that screens would show if an edition were published again now, on top of the newest edition `newest`: undefined until it is here.
 */
export const usePlanAgain = (number: number, newest: number) =>
  useQuery({
    queryKey: ['edition', number, 'again', newest],
    queryFn: async (): Promise<NamedPlan> => {
      const plan = await asked<Plan>(`/api/editions/${number}/again`);
      await adoptZonesOf(plan);
      return { key: `again-${number}-on-${newest}-${Date.now()}`, plan };
    },
  });

/** Learns how the clocks of a plan's zones go, before anything of it is drawn. */
export async function adoptZonesOf(plan: Plan): Promise<void> {
  adoptZones(await asked<ZoneTable[]>(`/api/zones?names=${planZones(plan).map(encodeURIComponent).join(',')}`));
}

/** Calendar feeds that are open: undefined until they are here. */
export const useFeeds = () =>
  useQuery({ queryKey: ['feeds'], queryFn: () => asked<readonly Feed[]>('/api/feeds') }).data;

/** The network's people, and one's own ways in: undefined until they are here. */
export const usePeople = () => useQuery({ queryKey: ['people'], queryFn: () => asked<PeopleView>('/api/people') }).data;

const NO_REQUESTS: readonly PublishRequest[] = [];

/** Requests to publish that wait, and what was answered lately, the newest first; and whether they are here by now. */
export function useRequests(): { readonly list: readonly PublishRequest[]; readonly isHere: boolean } {
  const { data } = useQuery({
    queryKey: ['requests'],
    queryFn: () => asked<readonly PublishRequest[]>('/api/requests'),
  });
  return { list: data ?? NO_REQUESTS, isHere: data !== undefined };
}

/** What would be taken back and made again now, asked for anew each time that it is looked at; undefined until it is here. */
export const useNextToTakeBack = (isAsked: boolean) =>
  useQuery({
    queryKey: ['undo'],
    queryFn: () => asked<Readonly<Record<Way, string | null>>>('/api/undo'),
    enabled: isAsked,
    gcTime: 0,
  }).data;

/** Uploads that are under way or failed. */
export const useUploads = () =>
  useQuery({ queryKey: ['uploads'], queryFn: () => asked<readonly Upload[]>('/api/uploads') }).data ?? [];

/** The searches that the network keeps: undefined until they are here. */
export const useSearches = () =>
  useQuery({ queryKey: ['library', 'searches'], queryFn: () => asked<readonly SavedSearch[]>('/api/searches') }).data;

/** How much the library holds, and may hold: undefined until it is here. */
const TROUBLE_EVERY_MS = 60_000;

/** Which stored files are damaged: undefined until it is here. Uploads ask again: they may have repaired some. */
export const useFileTrouble = () =>
  useQuery({
    queryKey: ['library', 'trouble'],
    queryFn: () => asked<FileTrouble>('/api/file-trouble'),
    refetchInterval: TROUBLE_EVERY_MS,
  }).data;

export const useRoom = () => useQuery({ queryKey: ['library', 'room'], queryFn: () => asked<Room>('/api/room') }).data;

/** What is said of files that are sent together, as it stood when it was first asked: undefined until it is here. */
export const useBatch = (batch: string) =>
  useQuery({ queryKey: ['batch', batch], queryFn: () => asked<BatchSaid>(`/api/batches/${batch}`), gcTime: 0 }).data;

/**
 * Whether all files of a batch are in the library or refused, by the server's word since the `sent`th of them was sent: what is told of
 * uploads under way may be older than the last file. It is asked once none is known to be under way.
 */
export function useBatchReady(batch: string | null, sent: number, asks: boolean): boolean {
  const { data } = useQuery({
    queryKey: ['uploads', 'preparing', batch, sent],
    queryFn: () => asked<{ readonly preparing: number }>(`/api/batches/${batch}/preparing`),
    enabled: batch !== null && asks,
    gcTime: 0,
    refetchInterval: ({ state }) => (state.data?.preparing === 0 ? false : 1000),
  });
  return asks && data?.preparing === 0;
}

const queryOf = (query: Readonly<Record<string, string | number | boolean>>) =>
  new URLSearchParams(Object.entries(query).map(([key, value]) => [key, String(value)])).toString();
const mediaPath = (query: Parameters<typeof queryOf>[0]) => `/api/media?${queryOf(query)}`;

/** What the library is narrowed to, besides what is typed. */
export interface LibraryFilters {
  readonly kind?: MediaKind;
  /** With sound. */
  readonly audible?: boolean;
  readonly unused?: boolean;
  readonly ending?: boolean;
  /** What screens show too large for it. */
  readonly small?: boolean;
  /** What is archived in place of what is not. */
  readonly archived?: boolean;
}

/** The library's files that are meant: a page at first, and more as they are asked for. */
export function useLibrary(search: string, filters: LibraryFilters = {}) {
  const { data, hasNextPage, isFetching, isError, isPlaceholderData, fetchNextPage } = useInfiniteQuery({
    // Whatever changes, a file may come into use.
    queryKey: [filters.unused ? 'unused' : 'library', 'files', search, filters],
    queryFn: ({ pageParam }) => asked<MediaPage>(mediaPath({ search, ...filters, from: pageParam })),
    initialPageParam: 0,
    getNextPageParam: (last) => last.next,
    placeholderData: keepPreviousData,
  });
  return {
    /** Undefined until the first page is here. */
    files: data?.pages.flatMap((page) => page.files),
    total: data?.pages[0]?.total,
    failed: isError,
    isFetching,
    /** Whether they are those of another search, until the ones that are asked for are here. */
    isBehind: isPlaceholderData,
    hasMore: hasNextPage,
    more: () => {
      if (hasNextPage && !isFetching) void fetchNextPage();
    },
  };
}

/** All files that are meant, in sight or not, at most so many. Throws where the server does not answer. */
export async function everyFile(search: string, filters: LibraryFilters, most: number): Promise<readonly Media[]> {
  const found: Media[] = [];
  for (let from: number | null = 0; from !== null && found.length < most;) {
    const page: MediaPage = await asked<MediaPage>(mediaPath({ search, ...filters, from, count: 200 }));
    found.push(...page.files);
    from = page.next;
  }
  return found.slice(0, most);
}

/** What the files that are meant may be narrowed to: undefined until it is here. */
export const useFacets = (search: string, filters: LibraryFilters) =>
  useQuery({
    queryKey: ['unused', 'facets', search, filters],
    queryFn: () => asked<Facets>(`/api/facets?${queryOf({ search, ...filters })}`),
    placeholderData: keepPreviousData,
  }).data;

/** Files that nothing in the draft names or collects, the first `count` of them: undefined until they are here. */
export const useUnusedMedia = (count: number) =>
  useQuery({
    queryKey: ['unused', count],
    queryFn: () => asked<MediaPage>(mediaPath({ unused: true, count })),
  }).data;

/** The tags of the library's files: none until they are here. */
export const useLibraryTags = () =>
  useQuery({ queryKey: ['library', 'tags', 'all'], queryFn: () => asked<readonly TagCount[]>('/api/tags') }).data ?? [];

/** A media file, and what the plan does not say of it. */
export const useMediaExtras = (id: string) =>
  useQuery({
    queryKey: ['library', 'media', id],
    queryFn: () => asked<MediaExtras>(`/api/media/${encodeURIComponent(id)}`),
  });

/** Asks again for what one has changed oneself and the feed does not tell. */
export function useRefetch(
  what: 'commands' | 'cues' | 'feeds' | 'uploads' | 'people' | 'requests' | 'library' | 'editions' | 'tray' | 'health',
): () => void {
  const queries = useQueryClient();
  return () => void askAgain(queries, what);
}

/** The list of uploads with one's progress in it. */
export const uploadsWith =
  (upload: Upload) =>
  (list: readonly Upload[] | undefined): readonly Upload[] => {
    const others = (list ?? []).filter((one) => one.id !== upload.id);
    return others.length === (list ?? []).length
      ? [upload, ...others]
      : (list ?? []).map((one) => (one.id === upload.id ? { ...one, ...upload } : one));
  };
