'use client';

import type { Index } from '@/interface/now/street';
import { useNetwork } from '@/interface/data/provider';
import { counted, megabytes } from '@/interface/kit/format';
import { Lantern } from '@/interface/kit/lantern';

/** How far the newest edition has come: which screens play it, and which do not yet, and why. */
export function Progress({ index }: { index: Index }) {
  const { statuses, published } = useNetwork('statuses', 'published');
  if (!published) return null;
  const inEdition = new Set(published.plan.screens.map((screen) => screen.id));
  const paired = [...statuses.values()].filter((one) => inEdition.has(one.id) && one.state !== 'unpaired');
  const reached = paired.filter((one) => one.state === 'lit' || one.state === 'resting');
  const waiting = paired.filter((one) => one.state === 'behind' || one.state === 'dark');
  const name = (id: string) => {
    const screen = index.screens.get(id);
    return screen ? `${index.sites.get(screen.site)?.name ?? ''} · ${screen.name}` : id;
  };
  return (
    <section className="mt-10" aria-label={`Edition ${published.number}`} data-testid="progress">
      <h2 className="text-lg">
        Edition {published.number}: {reached.length} of {counted(paired.length, 'player')}{' '}
        {waiting.length === 0 ? 'play it' : 'play it so far'}
      </h2>
      <div className="mt-2 flex h-2 bg-well">
        <div
          className="bg-lamp transition-[width]"
          style={{ width: `${paired.length === 0 ? 0 : (100 * reached.length) / paired.length}%` }}
        />
      </div>
      <ul className="mt-3">
        {waiting.map(({ id, state, download, lastSeen }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-3 py-1">
            <Lantern state={state} />
            <span className="truncate md:w-80">{name(id)}</span>
            <span className="text-sm text-faint">
              {download
                ? `fetched ${megabytes(download.doneBytes)} of ${megabytes(download.totalBytes)}`
                : state === 'dark'
                  ? lastSeen
                    ? 'not heard from; it will follow when it is back'
                    : 'never heard from'
                  : 'has not taken it up yet'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
