'use client';

import { useState } from 'react';
import { parseSelector, selectorWithNames } from '@/core/selector';
import { answered } from '@/interface/data/answered';
import { closeFeedAction, openFeedAction } from '@/web/actions';
import { useFeeds, useRefetch } from '@/interface/data/queries';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { DraftOffer, useKept } from '@/interface/forms/use-draft';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input } from '@/interface/kit/controls/field';
import { dateTime } from '@/interface/kit/words/format';
import { SecretAddress } from '@/interface/kit/controls/secret-address';
import { WhereField } from '@/interface/forms/where-field';

/** Addresses from which calendar programs fetch what is published. An address is shown once, and can be closed. */
export function FeedsForm() {
  const { draft, notify } = useNetwork('draft', 'notify');
  const feeds = useFeeds();
  const refetch = useRefetch('feeds');
  const zone = useZone();
  const { values, set, clear, draft: kept } = useKept('feed new', { name: '', where: '' });
  const { name, where } = values;
  const [address, setAddress] = useState<string | null>(null);
  const open = async () => {
    const result = await answered(openFeedAction({ name, where }));
    if (!result.ok) return notify(result.message, true);
    setAddress(`${window.location.origin}/api/feeds/${result.value.token}.ics`);
    clear();
    refetch();
  };
  const close = async (id: string) => {
    const result = await answered(closeFeedAction(id));
    notify(result.ok ? 'The feed is closed. Its address no longer works.' : result.message, !result.ok);
    refetch();
  };
  return (
    <div className="space-y-6">
      <p className="text-faint">
        A feed shows the published bookings of some screens in any calendar program that subscribes to it (iCalendar).
      </p>
      {feeds && feeds.length > 0 && (
        <ul className="border-y border-rule">
          {feeds.map((feed) => (
            <li key={feed.id} className="flex items-center gap-3 border-b border-rule/60 py-2 last:border-b-0">
              <span className="min-w-0 flex-1">
                <strong>{feed.name}</strong> <span className="text-sm">{selectorWithNames(feed.where, draft)}</span>
                <span className="block text-sm text-faint">
                  {feed.fetchedAt ? `last fetched ${dateTime(Date.parse(feed.fetchedAt), zone)}` : 'not fetched yet'}
                </span>
              </span>
              <Button
                needs="plan"
                variant="grave"
                aria-label={`Close the feed ${feed.name}`}
                onClick={() => void close(feed.id)}
              >
                Close
              </Button>
            </li>
          ))}
        </ul>
      )}
      {address && (
        <SecretAddress label="Address of the feed" address={address} onTold={notify}>
          This is its address. Anyone who has it can read the feed, so it is shown only now. Copy it to where you need
          it.
        </SecretAddress>
      )}
      <section className="space-y-3 border-t border-rule pt-4" aria-label="A new feed">
        <h3 className="text-lg">A new feed</h3>
        <DraftOffer draft={kept} />
        <Field label="Name of the feed">
          <Input
            value={name}
            onChange={(event) => set({ name: event.target.value })}
            placeholder="Halls in the north"
          />
        </Field>
        <WhereField plan={draft} value={where} onChange={(text) => set({ where: text })} />
        <Button
          needs="plan"
          variant="main"
          disabled={name.trim() === '' || !parseSelector(where).ok}
          onClick={() => void open()}
        >
          Open the feed
        </Button>
      </section>
    </div>
  );
}
