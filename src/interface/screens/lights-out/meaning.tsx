'use client';

import { useMemo } from 'react';
import { darkHours } from '@/core/forecast';
import { DAY } from '@/core/instant';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { dateTime, spell } from '@/interface/kit/words/format';
import { lightsOutTextSchema } from '../hours-text';

/** From this share of a site's opening hours on, lights-out was most likely entered the wrong way round. */
const SUSPICIOUS = 0.5;

/** What lights-out hours would mean for screens, before they are saved: how long, when first, and whether that is while a site is open. */
export function LightsOutMeaning({ screens, text }: { screens: readonly string[]; text: string }) {
  const { draft } = useNetwork('draft');
  const { now } = useMoment();
  const context = usePhraseContext();
  const minute = Math.floor(now / 60_000) * 60_000;
  const key = screens.join(' ');
  const meaning = useMemo(() => {
    const read = lightsOutTextSchema(context).safeParse(text);
    if (!read.success || read.data === undefined) return null;
    const ids = key.split(' ').filter((id) => draft.screens.some((one) => one.id === id));
    return darkHours(draft, ids, read.data, minute, minute + 7 * DAY);
  }, [draft, context, text, key, minute]);
  const [most] = meaning ?? [];
  const site = draft.sites.find(({ id }) => id === most?.site);
  if (!most || !site) return null;
  const { darkMs, openMs, darkWhileOpenMs, first } = most;
  const isSwapped = openMs > 0 && darkWhileOpenMs >= SUSPICIOUS * openMs;
  const at = (instant: number) => dateTime(instant, site.timeZone);
  return (
    <p role="status" className="mt-1 mb-2 text-sm text-faint">
      {first
        ? `In the next 7 days: off for ${spell(darkMs)}, ${first[0] <= minute ? 'now' : `first from ${at(first[0])}`} until ${at(first[1])}.`
        : 'In the next 7 days: never off.'}
      {isSwapped && (
        <span className="text-brick">
          {' '}
          That is {Math.round((100 * darkWhileOpenMs) / openMs)} % of the time that {site.name} is open. Its start and
          end may be swapped.
        </span>
      )}
    </p>
  );
}
