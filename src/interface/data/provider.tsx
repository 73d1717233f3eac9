'use client';

import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { Kind, Media, Plan, Screen, Site } from '@/core/plan';
import { adoptZones } from '@/core/when';
import type { Upload } from '@/services/library';
import { askAgain } from './ask-again';
import { listenFeed } from './feed';
import { uploadsWith } from './queries';
import type { NetworkView } from './state';
import { createNetworkStore, pageWays, type Network, type NetworkStore } from './store';

const Context = createContext<NetworkStore | null>(null);

function useNetworkStore(): NetworkStore {
  const store = useContext(Context);
  if (!store) throw new Error('the network stands outside NetworkProvider');
  return store;
}

/** The named parts of what the page knows and can do; the caller is drawn again when one of them differs, and for nothing else. */
export function useNetwork<K extends keyof Network>(...parts: readonly K[]): Pick<Network, K> {
  return useStore(
    useNetworkStore(),
    useShallow((network) => Object.fromEntries(parts.map((part) => [part, network[part]])) as Pick<Network, K>),
  );
}

/** One value that follows from what the page knows; the caller is drawn again when it differs. */
export function useFromNetwork<T>(select: (network: Network) => T): T {
  return useStore(useNetworkStore(), select);
}

/** Who changed an object last, as far as this page has heard. */
export function useAuthor(kind: Kind, id: string | undefined): string {
  return useFromNetwork(({ authors }) => (id === undefined ? null : authors.get(`${kind} ${id}`))) ?? 'Someone';
}

export function NetworkProvider({ view, children }: { view: NetworkView; children: ReactNode }) {
  // Before anything below reads a clock.
  useMemo(() => adoptZones(view.zones), [view.zones]);
  const router = useRouter();
  const [queries] = useState(
    () =>
      new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: 1, refetchOnWindowFocus: false } } }),
  );
  const [store] = useState(() =>
    createNetworkStore(
      view,
      pageWays(
        () => router.refresh(),
        (what, value) => {
          if (what === 'uploads' && value) queries.setQueryData(['uploads'], uploadsWith(value as Upload));
          else void askAgain(queries, what);
        },
      ),
    ),
  );
  const first = useRef(true);
  useEffect(() => {
    if (first.current) first.current = false;
    else store.begin(view);
  }, [store, view]);
  useEffect(() => {
    const stop = listenFeed(store.hear);
    // Another tab may lead already: what came between loading and listening is asked for.
    store.hear({ kind: 'at', change: -1 });
    return stop;
  }, [store]);

  return (
    <QueryClientProvider client={queries}>
      <Context value={store}>{children}</Context>
    </QueryClientProvider>
  );
}

/** Look-ups over a plan, by id. */
export const useIndex = (plan: Plan) => useMemo(() => indexOf(plan), [plan]);

function makeIndex(plan: Plan) {
  const by = <T extends { id: string }>(list: readonly T[]) => new Map(list.map((entry) => [entry.id, entry]));
  return {
    sites: by<Site>(plan.sites),
    screens: by<Screen>(plan.screens),
    media: by<Media>(plan.media),
    playlists: by(plan.playlists),
    bookings: by(plan.bookings),
  };
}
const indexes = new WeakMap<Plan, ReturnType<typeof makeIndex>>();

/** The same outside what is drawn: made once for a plan. */
export function indexOf(plan: Plan): ReturnType<typeof makeIndex> {
  const known = indexes.get(plan) ?? makeIndex(plan);
  indexes.set(plan, known);
  return known;
}

/** The address of a file's thumbnail; undefined where it has no bytes. */
export const thumbnailOf = ({ sha256 }: Pick<Media, 'sha256'>): string | undefined =>
  sha256 && `/api/thumbnails/${sha256}`;

/** The same by the id of a file of the plan; undefined where there is no such file, or it has no bytes. */
export function useThumbnails(): (mediaId: string | null | undefined) => string | undefined {
  const media = useFromNetwork((network) => network.draft.media);
  const old = useFromNetwork((network) => network.published?.plan.media);
  const hashes = useMemo(() => new Map([...(old ?? []), ...media].map(({ id, sha256 }) => [id, sha256])), [media, old]);
  return useCallback(
    (mediaId) => {
      const sha256 = mediaId == null ? undefined : hashes.get(mediaId);
      return thumbnailOf({ sha256 });
    },
    [hashes],
  );
}
