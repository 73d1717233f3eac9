'use client';

import { useEffect, useRef, useState } from 'react';
import type { Instant } from '@/core/instant';
import { planZones, type Plan } from '@/core/plan';
import { adoptZones, type ZoneTable } from '@/core/when';
import type { OutThen } from '@/services/editions';
import { useNetwork } from './provider';
import { asked } from './queries';
import type { NamedPlan } from './state';

/** What is looked at, and by whose word: the plan of now, what was out at a past moment, or what is planned to be by a later one. */
export type Looked =
  | { readonly by: 'plan'; readonly plan: NamedPlan }
  | { readonly by: 'edition'; readonly plan: NamedPlan; readonly number: number }
  /** What an edition would show, whether it is out at the moment or not. */
  | { readonly by: 'chosen'; readonly plan: NamedPlan; readonly number: number }
  /** What takes over by then. */
  | { readonly by: 'planned'; readonly plan: NamedPlan; readonly at: Instant }
  /** Nothing was out then, or it is not kept any more. */
  | { readonly by: 'nothing'; readonly plan: NamedPlan; readonly cleared: boolean }
  /** It is being asked for, or could not be. */
  | { readonly by: 'asking'; readonly plan: NamedPlan; readonly failed: boolean };

interface Known {
  readonly from: Instant;
  readonly to: Instant;
  readonly edition: { readonly number: number; readonly plan: NamedPlan } | null;
  readonly cleared: boolean;
}

/**
 * What the glass was to show at a past instant goes by the edition that was out then; null looks at the plan of now. While it is asked
 * for, and where nothing was out, there are the sites and screens, with nothing on them.
 */
export function useShownAt(past: Instant | null): Looked {
  const { seen, published } = useNetwork('seen', 'published');
  const [known, setKnown] = useState<readonly Known[]>([]);
  const [failedAt, setFailedAt] = useState<Instant | null>(null);
  const empty = useRef<NamedPlan | null>(null);
  const here = past === null ? undefined : known.find(({ from, to }) => from <= past && past < to);
  useEffect(() => {
    if (past === null || here) return;
    let current = true;
    void askThen(past).then(
      (next) => current && setKnown((list) => [...list, next]),
      () => current && setFailedAt(past),
    );
    return () => {
      current = false;
    };
  }, [past, here]);
  // What is out now was, too, since it was published: an edition that comes ends what was known of the last.
  useEffect(() => setKnown([]), [published?.number]);
  if (past === null) return { by: 'plan', plan: seen };
  if (here?.edition) return { by: 'edition', ...here.edition };
  if (empty.current?.key !== `nothing ${seen.key}`)
    empty.current = {
      key: `nothing ${seen.key}`,
      plan: {
        ...seen.plan,
        network: { name: seen.plan.network.name },
        bookings: [],
        playlists: [],
        ...bare(seen.plan),
      },
    };
  const plan = empty.current;
  return here ? { by: 'nothing', plan, cleared: here.cleared } : { by: 'asking', plan, failed: failedAt === past };
}

/** Sites and screens without what they would show. */
const bare = ({ sites, screens }: NamedPlan['plan']) => ({
  sites: sites.map(({ backdrop: _, ...site }) => site),
  screens: screens.map(({ backdrop: _, lightsOut: _hours, ...screen }) => screen),
});

/** An edition as it was published, by its number. Throws where it is not kept any more, or can't be asked for. */
export async function askEdition(number: number): Promise<NamedPlan> {
  const { plan } = await asked<{ readonly plan: Plan }>(`/api/editions/${number}`);
  await adoptZonesOf(plan);
  return { key: `edition-${number}`, plan };
}

const adoptZonesOf = async (plan: Plan) =>
  adoptZones(await asked<ZoneTable[]>(`/api/zones?names=${planZones(plan).map(encodeURIComponent).join(',')}`));

async function askThen(at: Instant): Promise<Known> {
  const { edition, cleared, from, to } = await asked<OutThen>(`/api/editions/at?instant=${new Date(at).toISOString()}`);
  const span = { from: from === null ? -Infinity : Date.parse(from), to: to === null ? Infinity : Date.parse(to) };
  if (!edition) return { ...span, edition: null, cleared };
  await adoptZonesOf(edition.plan);
  const { number, plan } = edition;
  return { ...span, edition: { number, plan: { key: `edition-${number}`, plan } }, cleared };
}
