'use client';

import { extent } from 'd3-array';
import { useEffect, useRef, useState } from 'react';
import { readSiteTime, siteInstants, siteTime } from '@/core/edition';
import type { Instant } from '@/core/instant';
import type { Plan } from '@/core/plan';
import { readAhead, toLocalTime, zoneTable } from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { Field, Input } from '@/interface/kit/controls/field';
import { clockTime, dateTime, dayName, siteTimeWords } from '@/interface/kit/words/format';
import type { GoesOut, PlannedFor } from '@/services/editions';

/** A future moment in words: one for all, or on each site's clock. */
export interface At {
  readonly said: string;
  say(text: string): void;
  /** Null where nothing is said, or nothing that is understood. */
  readonly goesOut: GoesOut | null;
  /** Whether the time that is said is each site's own. */
  readonly bySites: boolean;
  goBySites(bySites: boolean): void;
  readonly problem: string | undefined;
}

export function useAt(): At {
  const [said, say] = useState('');
  const [bySites, goBySites] = useState(false);
  const { now } = useMoment();
  const zone = useZone();
  const isNow = /^\s*(?:now)?\s*$/i.test(said);
  const read = isNow ? null : readAhead(said, now, zoneTable(zone));
  const at = read?.ok ? read.value : null;
  return {
    ...{ said, say, bySites, goBySites },
    goesOut: at !== null && bySites ? { siteTime: siteTime(toLocalTime(zoneTable(zone), at)) } : at,
    problem: read && !read.ok ? read.message : undefined,
  };
}

/** When something goes out, in words: on one's own clock, or on each site's. */
export const goesOutWords = (goesOut: GoesOut, zone: string): string =>
  typeof goesOut === 'number' ? dateTime(goesOut, zone) : `${siteTimeWords(goesOut.siteTime)} at each site`;

/** The same of what is planned. */
export const plannedWords = ({ at, siteTime: local }: PlannedFor, zone: string): string =>
  goesOutWords(local === null ? Date.parse(at) : { siteTime: local }, zone);

export function AtField({
  label,
  at,
  placeholder,
  focused = false,
  bySites: offersSites = true,
}: {
  label: string;
  at: At;
  placeholder: string;
  focused?: boolean;
  /** Whether it may be each site's own time. */
  bySites?: boolean;
}) {
  const { draft } = useNetwork('draft');
  const zone = useZone();
  const box = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (focused) box.current?.focus();
  }, [focused]);
  const { goesOut, bySites, goBySites } = at;
  const isElsewhere = offersSites && draft.sites.some(({ timeZone }) => timeZone !== zone);
  return (
    <div className="w-72">
      <Field label={label} error={at.problem} hint={hintOf(goesOut, draft, zone)}>
        <Input
          ref={box}
          value={at.said}
          invalid={!!at.problem}
          placeholder={placeholder}
          onChange={({ target }) => at.say(target.value)}
        />
      </Field>
      {goesOut !== null && (isElsewhere || bySites) && (
        <label className="mt-1 flex min-h-6 items-center gap-2 text-sm">
          <input type="checkbox" checked={bySites} onChange={({ target }) => goBySites(target.checked)} />
          By the clock at each site
        </label>
      )}
    </div>
  );
}

function hintOf(goesOut: GoesOut | null, plan: Plan, zone: string): string {
  if (goesOut === null) return 'Type it in words, e.g. tomorrow 6:00 or 1 Dec 5:30.';
  if (typeof goesOut === 'number') return `${dateTime(goesOut, zone)}, your clock`;
  const time = readSiteTime(goesOut.siteTime);
  const [first, last] = time === null ? [] : extent(siteInstants(plan, time).values());
  return first === undefined || last === undefined
    ? siteTimeWords(goesOut.siteTime)
    : `${siteTimeWords(goesOut.siteTime)}: ${span(first, last, zone)} on your clock`;
}

function span(first: Instant, last: Instant, zone: string): string {
  if (first === last) return dateTime(first, zone);
  const sameDay = dayName(first, zone) === dayName(last, zone);
  return `from ${dateTime(first, zone)} to ${sameDay ? clockTime(last, zone) : dateTime(last, zone)}`;
}
