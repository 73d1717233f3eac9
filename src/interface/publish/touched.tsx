'use client';

import { useMemo } from 'react';
import { chosenPlan, type Glance, type ObjectKey } from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork, useThumbnails } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { ask, useAnswer } from '@/interface/forecast/client';
import { clockTime, counted, dayName } from '@/interface/kit/format';
import { Thumb } from '@/interface/kit/thumb';

interface Group {
  readonly before: string | null;
  readonly after: string | null;
  readonly screens: string[];
}

/**
 * The touched screens, those that change alike together, with what they show at the moment before and after: with all changes, or with a
 * choice of them.
 */
export function Touched({
  screens,
  chosen,
}: {
  screens: readonly string[];
  /** Null for all changes. */
  chosen: readonly ObjectKey[] | null;
}) {
  const { draft, drafted, published } = useNetwork('draft', 'drafted', 'published');
  const { moment, isNow } = useMoment();
  const zone = useZone();
  const index = useIndex(draft);
  const thumbnail = useThumbnails();
  const names = useMemo(
    () => new Map([...(published?.plan.media ?? []), ...draft.media].map(({ id, name }) => [id, name])),
    [draft, published],
  );
  const minute = Math.floor(moment / 60_000);
  const choice = chosen === null ? null : JSON.stringify(chosen);
  const next = useMemo(() => {
    if (choice === null || !published) return drafted;
    const keys = JSON.parse(choice) as ObjectKey[];
    return { key: `${drafted.key} of ${choice}`, plan: chosenPlan(published.plan, drafted.plan, keys).plan };
  }, [choice, drafted, published]);
  const after = useAnswer<readonly Glance[]>(
    () => ask(next, { kind: 'glances', at: moment, screens }),
    [next, minute, screens],
    [],
  );
  const before = useAnswer<readonly Glance[]>(
    () =>
      published
        ? ask({ key: `edition-${published.number}`, plan: published.plan }, { kind: 'glances', at: moment, screens })
        : Promise.resolve([]),
    [published?.number, minute, screens],
    [],
  );
  const groups = useMemo(() => {
    const shows = (list: readonly Glance[], id: string) => list.find((one) => one.screen === id)?.media ?? null;
    const found = new Map<string, Group>();
    for (const id of screens) {
      const pair = { before: shows(before, id), after: shows(after, id) };
      const key = JSON.stringify(pair);
      const group = found.get(key) ?? { ...pair, screens: [] };
      group.screens.push(id);
      found.set(key, group);
    }
    return [...found.values()].sort((a, b) => Number(a.before === a.after) - Number(b.before === b.after));
  }, [screens, before, after]);
  const nameOf = (media: string | null) => (media === null ? 'nothing' : (names.get(media) ?? 'a file that is gone'));
  const label = (id: string) => {
    const screen = index.screens.get(id);
    return screen ? `${index.sites.get(screen.site)?.name ?? ''} · ${screen.name}` : id;
  };
  if (screens.length === 0)
    return <p className="mt-4 text-faint">No screen receives anything else by these changes.</p>;
  return (
    <section className="mt-6">
      <h2 className="text-lg">
        {counted(screens.length, 'screen')} will receive it{' '}
        <span className="text-sm font-normal text-faint">
          at {isNow ? 'this moment' : `${dayName(moment, zone)} ${clockTime(moment, zone)}`}:
        </span>
      </h2>
      <ul className="mt-2">
        {groups.map((group) => (
          <li
            key={`${group.before}-${group.after}`}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule py-2 md:flex-nowrap"
          >
            {group.before === group.after ? (
              <span className="w-52 shrink-0 text-sm text-faint">the same picture now</span>
            ) : (
              <span className="flex w-52 shrink-0 items-center gap-2">
                <Thumb src={thumbnail(group.before)} alt={nameOf(group.before)} className="h-12 w-22" />
                <span aria-label="becomes">→</span>
                <Thumb src={thumbnail(group.after)} alt={nameOf(group.after)} className="h-12 w-22" />
              </span>
            )}
            <span className="text-sm">
              {group.screens.slice(0, 6).map(label).join(', ')}
              {group.screens.length > 6 && ` and ${group.screens.length - 6} more`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
