'use client';

import { useEffect, useMemo, useRef, useState, type MouseEvent } from 'react';
import { useFromNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { dateTime } from '@/interface/kit/words/format';
import { browserShelf } from '@/interface/kit/page/shelf';
import { useReady } from '@/interface/kit/page/use-ready';
import { Drafts, isAmong, type Draft } from './drafts';

/**
 * Keeps what is written in a form until it is saved or given up, and offers what was left in it before. `unsaved` are the fields that
 * differ from what is saved, by name; null for none. `restore` writes them into the form. `standing` are all fields as they are in
 * it: what is there already is not offered. `saved` is to be told of what was saved: the form may be gone by then.
 */
export function useDraft(
  form: string,
  unsaved: Draft['values'] | null,
  restore: (values: Draft['values']) => void,
  standing?: Draft['values'],
): { readonly offer: Draft | null; take(): void; drop(): void; saved(values: Draft['values']): void } {
  const me = useFromNetwork((network) => network.view.me);
  const ready = useReady();
  const drafts = useMemo(() => (ready ? new Drafts(browserShelf(), me) : null), [ready, me]);
  const found = useMemo(() => drafts?.read(form) ?? null, [drafts, form]);
  const [settled, settle] = useState<Draft | null>(null);
  const wrote = useRef(false);
  const text = JSON.stringify(unsaved);
  useEffect(() => {
    if (unsaved) drafts?.write(form, unsaved);
    else if (wrote.current) drafts?.drop(form);
    wrote.current = unsaved !== null;
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `text` is all of `unsaved`
  }, [drafts, form, text]);
  return {
    offer: !found || found === settled || (standing && isAmong(found, standing)) ? null : found,
    take: () => {
      if (found) restore(found.values);
      settle(found);
    },
    drop: () => {
      drafts?.drop(form);
      settle(found);
    },
    saved: (values) => drafts?.dropSaved(form, values),
  };
}

/** Offers what was begun in a form and left. */
export function DraftOffer({ draft: { offer, take, drop } }: { draft: ReturnType<typeof useDraft> }) {
  const zone = useZone();
  if (!offer) return null;
  /** These buttons go: the form's first field has the focus then. */
  const then = (work: () => void) => (event: MouseEvent<HTMLElement>) => {
    const form = event.currentTarget.closest('form, section');
    work();
    form?.querySelector<HTMLElement>('input, textarea')?.focus();
  };
  return (
    <div role="status" data-testid="draft" className="flex flex-wrap items-baseline gap-x-3 bg-well px-3 py-2 text-sm">
      <span>You started something here {dateTime(offer.at, zone)} and didn’t save it.</span>
      <span>
        <Button variant="quiet" className="!px-0" onClick={then(take)}>
          Continue editing
        </Button>{' '}
        <Button variant="quiet" onClick={then(drop)}>
          Discard
        </Button>
      </span>
    </div>
  );
}

/** Text longer than this, in characters, isn't kept: a browser has room for little. */
const MOST_KEPT = 200_000;

/** A form's fields as one state, kept until `clear`; what was left in them before is offered again. */
export function useKept<V extends Record<string, string>>(form: string, empty: V) {
  const [values, setValues] = useState(empty);
  const written = Object.entries(values).filter(
    ([field, value]) => value !== empty[field] && value.length <= MOST_KEPT,
  );
  const draft = useDraft(form, written.length > 0 ? Object.fromEntries(written) : null, (old) =>
    setValues({ ...empty, ...Object.fromEntries(Object.entries(old).filter(([field]) => field in empty)) }),
  );
  return {
    values,
    set: (some: Partial<V>) => setValues((now) => ({ ...now, ...some })),
    clear: () => {
      draft.drop();
      setValues(empty);
    },
    draft,
  };
}
