'use client';

import Link from 'next/link';
import { useState } from 'react';
import { durationWords, type Booking } from '@/core/plan';
import { selectorWithNames } from '@/core/selector';
import { Only, useMay, useRole } from '@/interface/data/may';
import { thumbnailOf, useFromNetwork, useIndex, useNetwork } from '@/interface/data/provider';
import { usePeople } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { contentName, firstMedia } from '@/interface/kit/content/content';
import { Thumb } from '@/interface/kit/content/thumb';
import { DrillForm } from './drill-form';
import { FireDialog } from './fire-dialog';
import { Firers } from './firers';

/** A prepared takeover: content, screens, duration, its words; buttons to fire and drill it, and who may. */
export function PreparedRow({ booking, firers }: { booking: Booking; firers: readonly string[] }) {
  const { draft } = useNetwork('draft');
  const index = useIndex(draft);
  const me = useFromNetwork(({ view }) => view.me);
  const role = useRole();
  const people = usePeople()?.people;
  const isFree = firers.length === 0;
  const mayFire = useMay('operate') && (isFree || firers.includes(me));
  const maySay = mayFire || role === 'owner';
  const names = people?.filter(({ id }) => firers.includes(id)).map(({ name }) => name);
  const [open, setOpen] = useState<'fire' | 'drill' | 'firers' | null>(null);
  const close = () => setOpen(null);
  const { id, name, content, where, prepared } = booking;
  const file = index.media.get(firstMedia(draft, content) ?? '');
  return (
    <li className="border-t border-rule py-3" data-takeover={id}>
      <div className="flex flex-wrap items-start gap-x-4 gap-y-2">
        <Thumb src={file && thumbnailOf(file)} alt="" className="h-16 w-28 shrink-0" />
        <div className="min-w-0 flex-1 basis-52">
          <h3 className="text-base font-semibold">{name}</h3>
          {prepared?.words && <p className="break-words">{prepared.words}</p>}
          <p className="text-sm text-faint">
            {contentName(content, draft)} on {selectorWithNames(where, draft)},{' '}
            {prepared?.lasts === undefined ? 'until the all-clear' : `for ${durationWords(prepared.lasts)}`}
          </p>
          {!isFree && names && <p className="text-sm">Only {names.join(' or ')} may activate this.</p>}
        </div>
        <button
          type="button"
          onClick={() => setOpen('fire')}
          disabled={!mayFire}
          aria-label={`Activate ${name}…`}
          className="min-h-11 w-full cut-small bg-brick px-6 py-2 text-lg font-semibold text-paper hover:opacity-90 disabled:cursor-not-allowed disabled:opacity-50 sm:w-auto"
        >
          {' '}
          Activate…{' '}
        </button>
      </div>
      <p className="mt-1 flex flex-wrap gap-x-2">
        <Button
          variant="quiet"
          disabled={!mayFire}
          aria-expanded={open === 'drill'}
          onClick={() => setOpen(open === 'drill' ? null : 'drill')}
        >
          Drill…
        </Button>
        <Button
          variant="quiet"
          disabled={!maySay}
          aria-expanded={open === 'firers'}
          onClick={() => setOpen(open === 'firers' ? null : 'firers')}
        >
          Who may…
        </Button>
        {(isFree || firers.includes(me)) && (
          <Only needs="plan">
            <Link
              href={`/plan?booking=${encodeURIComponent(id)}`}
              className="px-2 py-1 text-tide underline-offset-2 hover:underline"
            >
              Change it
            </Link>
          </Only>
        )}
      </p>
      {open === 'drill' && <DrillForm booking={booking} onDone={close} />}
      {open === 'firers' && <Firers booking={booking} firers={firers} onDone={close} />}
      {open === 'fire' && <FireDialog booking={booking} onClose={close} />}
    </li>
  );
}
