'use client';

import { useRouter } from 'next/navigation';
import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { adoptZones, type Media, type Plan, type Screen, type Site, done, type LoosePatch, type Result } from '@/core';
import type { NamedPlan } from '@/interface/forecast/client';
import type { EditResult, Way } from '@/services/plan';
import { editAction, undoAction } from './actions';
import { listenLive } from './live';
import type { NetworkView } from './view';

/** A sentence at the foot of the window: what happened, or what is wrong. */
export interface Notice {
  readonly text: string;
  readonly bad: boolean;
}

interface NetworkContext extends NetworkView {
  /** Which decisions the interface looks at: those that players have, or those that are being made. */
  readonly looking: 'published' | 'draft';
  look(at: 'published' | 'draft'): void;
  /** The plan that is looked at. */
  readonly seen: NamedPlan;
  /** The draft under its name, whatever is looked at. */
  readonly drafted: NamedPlan;
  readonly notice: Notice | null;
  notify(text: string, bad?: boolean): void;
  /** Changes the plan, at once and for everybody; says so when it is refused. */
  edit(patches: readonly LoosePatch[], said?: string): Promise<Result<EditResult>>;
  /** The same for a form's patch; where there is nothing to save, it is saved. */
  save(patch: LoosePatch | null, said?: string): Promise<Result<EditResult>>;
  undo(): void;
  redo(): void;
}

const Context = createContext<NetworkContext | null>(null);

export function useNetwork(): NetworkContext {
  const context = useContext(Context);
  if (!context) throw new Error('useNetwork stands outside NetworkProvider');
  return context;
}

const NOTICE_MS = 8000;
const DONE: Record<Way, string> = { undo: 'Taken back', redo: 'Made again' };
const NOTHING_TO: Record<Way, string> = {
  undo: 'There is nothing of yours from the last day to take back.',
  redo: 'There is nothing to make again.',
};

export function NetworkProvider({ view, children }: { view: NetworkView; children: ReactNode }) {
  // Before anything below reads a clock.
  useMemo(() => adoptZones(view.zones), [view.zones]);
  const router = useRouter();
  const [looking, look] = useState<'published' | 'draft'>('published');
  const [notice, setNotice] = useState<Notice | null>(null);
  const [statuses, setStatuses] = useState(view.statuses);
  /** The last change that this tab knows: its own edits move it on before the view is loaded anew. */
  const change = useRef(view.change);
  useEffect(() => {
    change.current = Math.max(change.current, view.change);
  }, [view.change]);
  useEffect(() => setStatuses(view.statuses), [view.statuses]);

  const notify = useCallback((text: string, bad = false) => setNotice({ text, bad }), []);
  useEffect(() => {
    if (!notice) return;
    const timer = setTimeout(() => setNotice(null), NOTICE_MS);
    return () => clearTimeout(timer);
  }, [notice]);

  useEffect(() => {
    let waiting: ReturnType<typeof setTimeout> | null = null;
    const refreshSoon = () => {
      waiting ??= setTimeout(() => {
        waiting = null;
        router.refresh();
      }, 150);
    };
    const refreshStatuses = async () => {
      const response = await fetch('/api/statuses').catch(() => null);
      if (response?.ok) setStatuses((await response.json()) as NetworkView['statuses']);
    };
    const stop = listenLive((hint) => {
      if (hint === 'players' || hint === 'player') void refreshStatuses();
      else refreshSoon();
    });
    const timer = setInterval(() => void refreshStatuses(), 15_000);
    return () => {
      stop();
      clearInterval(timer);
      if (waiting) clearTimeout(waiting);
    };
  }, [router]);

  const settle = useCallback(
    (result: Result<EditResult>, said: string | undefined) => {
      if (result.ok) {
        change.current = Math.max(change.current, result.value.change);
        if (said) notify(said);
        router.refresh();
      } else notify(result.message, true);
      return result;
    },
    [notify, router],
  );

  /** One's own edits take turns: each is based on the one before, so that quick ones do not contradict each other. */
  const turn = useRef<Promise<unknown>>(Promise.resolve());
  const edit = useCallback(
    (patches: readonly LoosePatch[], said?: string) => {
      const work = turn.current.then(async () => settle(await editAction(patches), said));
      turn.current = work.catch(() => undefined);
      return work;
    },
    [settle],
  );

  const save = useCallback(
    (patch: LoosePatch | null, said?: string) =>
      patch ? edit([patch], said) : Promise.resolve(done({ change: change.current, changes: [], ids: [] })),
    [edit],
  );

  /** Undo and redo take turns with edits too: a quick one finds what the one before has made. */
  const step = useCallback(
    (way: Way) => {
      const work = turn.current.then(async () => {
        const result = await undoAction(way);
        if (result.ok && result.value.about === null) return notify(NOTHING_TO[way]);
        settle(result, result.ok ? `${DONE[way]}: ${result.value.about ?? ''}.` : undefined);
      });
      turn.current = work.catch(() => undefined);
    },
    [notify, settle],
  );

  const { draft, published } = view;
  const drafted = useMemo<NamedPlan>(() => ({ key: `draft-${view.change}`, plan: draft }), [view.change, draft]);
  const seen = useMemo<NamedPlan>(
    () => (looking === 'draft' || !published ? drafted : { key: `edition-${published.number}`, plan: published.plan }),
    [looking, drafted, published],
  );
  const value = useMemo<NetworkContext>(
    () => ({
      ...view,
      statuses,
      looking: seen === drafted ? 'draft' : 'published',
      look,
      seen,
      drafted,
      notice,
      notify,
      edit,
      save,
      undo: () => step('undo'),
      redo: () => step('redo'),
    }),
    [view, statuses, drafted, seen, notice, notify, edit, save, step],
  );

  return <Context value={value}>{children}</Context>;
}

/** Look-ups over a plan, by id. */
export function useIndex(plan: Plan) {
  return useMemo(() => {
    const by = <T extends { id: string }>(list: readonly T[]) => new Map(list.map((entry) => [entry.id, entry]));
    return {
      sites: by<Site>(plan.sites),
      screens: by<Screen>(plan.screens),
      media: by<Media>(plan.media),
      playlists: by(plan.playlists),
      bookings: by(plan.bookings),
    };
  }, [plan]);
}

/** The address of a media file's thumbnail; undefined where it has none. */
export function useThumbnails(): (mediaId: string | null | undefined) => string | undefined {
  const { media } = useNetwork();
  const thumbnails = useMemo(() => new Map(media.map(({ id, thumbnail }) => [id, thumbnail])), [media]);
  return useCallback(
    (mediaId) => {
      const sha256 = mediaId == null ? null : thumbnails.get(mediaId);
      return sha256 ? `/api/files/${sha256}` : undefined;
    },
    [thumbnails],
  );
}
