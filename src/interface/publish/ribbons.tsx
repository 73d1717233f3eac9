'use client';

import { useMemo } from 'react';
import type { Difference, DifferenceGroup, Shown } from '@/core/edition';
import type { Plan } from '@/core/plan';
import { thumbnailOf } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { clockTime, timeNear } from '@/interface/kit/words/format';
import { Thumb } from '@/interface/kit/content/thumb';
import { shareOf, useCursor } from './glass-ruler';

type Side = 'before' | 'after';

/** What shows before and after, one above the other: where they differ, in pictures; what stays as it is, as a line. */
export function Ribbons({
  group,
  range,
  before,
  after,
}: {
  group: DifferenceGroup;
  range: readonly [number, number];
  before: Plan;
  after: Plan;
}) {
  const { differences } = group;
  const cursor = useCursor(range);
  const zone = useZone();
  const name = useShownNames(before, after);
  const picture = usePictures(before, after);
  const here = differences.find((one) => one.from <= cursor && cursor < one.to);
  return (
    <>
      <div className="relative ml-12 mt-1">
        {(['before', 'after'] as const).map((side) => (
          <div key={side} className="relative mb-0.5 h-8 bg-well/50" aria-hidden>
            <span className="absolute -left-12 text-xs leading-8 text-faint">{side}</span>
            <span className="absolute inset-x-0 top-1/2 border-t border-dotted border-rule" />
            {differences.map((one) => (
              <Piece
                key={one.from}
                difference={one}
                side={side}
                range={range}
                name={name(one[side])}
                src={picture(side, one[side]?.media[0])}
              />
            ))}
          </div>
        ))}
        <span
          aria-hidden
          className="pointer-events-none absolute inset-y-0 border-l-2 border-lamp"
          style={{ left: `${100 * shareOf(cursor, range)}%` }}
        />
      </div>
      <p className="mt-1 flex min-h-9 flex-wrap items-center gap-2 text-sm" data-testid="at-cursor">
        {here ? (
          <>
            <Pictured shown={here.before} name={name(here.before)} src={picture('before', here.before?.media[0])} />
            <span aria-label="becomes">→</span>
            <Pictured shown={here.after} name={name(here.after)} src={picture('after', here.after?.media[0])} />
            <span className="text-faint">
              {clockTime(here.from, zone)} to {timeNear(here.to, here.from, zone)}
            </span>
          </>
        ) : (
          <span className="text-faint">No difference at this time.</span>
        )}
      </p>
      <details className="text-sm">
        <summary className="w-fit cursor-pointer py-1 text-tide">
          {differences.length === 1 ? 'In words' : `All ${differences.length} in words`}
        </summary>
        <ul className="mb-1">
          {differences.map((one) => (
            <li key={one.from}>
              {timeNear(one.from, range[0], zone)} to {timeNear(one.to, one.from, zone)}: {words(one, name)}
            </li>
          ))}
        </ul>
      </details>
    </>
  );
}

/** What was, and what will be; the same files may come at other times, look otherwise, or sound. */
function words({ before, after }: Difference, name: (shown: Shown | null) => string): string {
  return name(before) === name(after) ? `${name(after)}, with different items` : `${name(after)}, was ${name(before)}`;
}

function Piece({
  difference,
  side,
  range,
  name,
  src,
}: {
  difference: Difference;
  side: Side;
  range: readonly [number, number];
  name: string;
  src: string | undefined;
}) {
  const left = shareOf(difference.from, range);
  const width = shareOf(difference.to, range) - left;
  const isBefore = side === 'before';
  // Too narrow for a picture or a word: that there is something.
  const isSlim = width < 0.05;
  return (
    <span
      className={`absolute inset-y-0 flex items-stretch overflow-hidden border-l-2 ${isBefore ? 'border-faint' : 'border-tide'} ${isSlim ? (isBefore ? 'bg-faint/40' : 'bg-tide') : 'bg-sheet'}`}
      style={{ left: `${100 * left}%`, width: `max(3px, ${100 * width}%)` }}
    >
      {src && !isSlim && (
        <img src={src} alt="" decoding="async" draggable={false} className="h-full w-12 shrink-0 object-cover" />
      )}
      {!isSlim && (
        <span className={`truncate px-1 text-xs leading-8 ${isBefore ? 'text-faint line-through' : ''}`}>{name}</span>
      )}
    </span>
  );
}

function Pictured({ shown, name, src }: { shown: Shown | null; name: string; src: string | undefined }) {
  return (
    <span className="flex min-w-0 items-center gap-2">
      {shown && shown.media.length > 0 && <Thumb src={src} alt="" className="h-9 w-16 shrink-0" />}
      <span className="truncate">{name}</span>
    </span>
  );
}

/** What shows, as people call it: by the later plan's names, else by the earlier one's. */
function useShownNames(before: Plan, after: Plan): (shown: Shown | null) => string {
  return useMemo(() => {
    const names = new Map([...before.bookings, ...after.bookings].map(({ id, name }) => [id, name]));
    return (shown) => {
      if (!shown) return 'no such screen';
      const { source, id } = shown;
      switch (source) {
        case 'lights-out':
          return 'lights out';
        case 'nothing':
          return 'nothing';
        case 'backdrop':
          return `backdrop of the ${id ?? 'network'}`;
        default:
          return names.get(id ?? '') ?? 'a booking';
      }
    };
  }, [before, after]);
}

/** The address of a file's picture as it is on one side: a new version looks otherwise. */
function usePictures(before: Plan, after: Plan): (side: Side, media: string | undefined) => string | undefined {
  return useMemo(() => {
    const pictures = ({ media }: Plan) => new Map(media.map((file) => [file.id, thumbnailOf(file)]));
    const by = { before: pictures(before), after: pictures(after) };
    return (side, media) => by[side].get(media ?? '');
  }, [before, after]);
}
