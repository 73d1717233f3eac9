'use client';

import equal from 'fast-deep-equal';
import { useRef } from 'react';
import { READ_FROM_M, USUAL_INCHES, wantSound, type LayoutSeen, type ZoneSeen } from '@/core/layouts';
import type { Layout } from '@/core/plan';
import { useMoment } from '@/interface/data/moment';
import { useFirings } from '@/interface/data/queries';
import { useIndex, useNetwork, useThumbnails } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { ask, useNewest } from '@/interface/forecast/client';
import { BoardPicture } from '@/interface/kit/content/board-picture';
import { Lantern } from '@/interface/kit/lantern/lantern';
import { counted, timeNear } from '@/interface/kit/words/format';

/** The room for one picture, in pixels. */
const ROOM = { width: 190, height: 150 };
/** So many screens are named by their names. */
const NAMED = 3;

/** How all sizes of screens see a layout at the moment, side by side, and what is wrong with it there. */
export function AsSeenOn({ layout }: { layout: Layout }) {
  const { draft } = useNetwork('draft');
  const { moment } = useMoment();
  const zone = useZone();
  const thumbnail = useThumbnails();
  const index = useIndex(draft);
  const seen = useSeen(layout.id);
  const nameOf = (id: string) => index.screens.get(id)?.name ?? id;
  const screensWords = (screens: readonly string[]) =>
    screens.length <= NAMED ? screens.map(nameOf).join(', ') : counted(screens.length, 'screen');
  const sounding = wantSound(draft, layout.zones);
  const heard = layout.zones.find(({ sound }) => sound);
  const silent = sounding.filter(({ id }) => id !== heard?.id);
  return (
    <section aria-labelledby="seen" className="mt-7 border-t border-rule pt-3">
      <h2 id="seen" className="text-lg">
        As seen on your screens
      </h2>
      {seen?.length === 0 && <p className="text-faint">You have no screens yet. Add them on Screens.</p>}
      <ul className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-4">
        {seen?.map((one) => {
          const { width, height, screens, board, isOn } = one;
          const scale = Math.min(ROOM.width / width, ROOM.height / height);
          return (
            <li key={`${width} ${height} ${screens[0]}`} data-testid="seen-on" className="max-w-48">
              <span
                className="block overflow-hidden bg-[#000] outline-1 outline-rule"
                style={{ width: width * scale, height: height * scale }}
              >
                <BoardPicture board={board} thumbnail={thumbnail} className="h-full w-full" />
              </span>
              <span className="mt-1 block font-code text-xs">
                {width} × {height}
              </span>
              <span className="block text-sm text-faint" title={screens.map(nameOf).join(', ')}>
                {screensWords(screens)}
              </span>
              {isOn && (
                <span className="flex items-center gap-1 text-sm">
                  <Lantern state="lit" /> booked for this moment
                </span>
              )}
            </li>
          );
        })}
      </ul>
      {seen && seen.length > 0 && (
        <ul aria-label="Problems" className="mt-3 max-w-3xl space-y-0.5 text-sm">
          {emptyWords(seen, (at) => timeNear(at, moment, zone), screensWords).map((words) => (
            <li key={words}>{words}</li>
          ))}
          {smallWords(seen).map((words) => (
            <li key={words}>{words}</li>
          ))}
          {silent.length > 0 && sounding.length > 1 && (
            <li>
              {sounding.map(({ id }) => `“${id}”`).join(', ')} have sound, and only one zone can be heard.{' '}
              {heard ? `“${heard.id}” is heard, the others are silent.` : 'None is heard: tick “Heard” in one of them.'}
            </li>
          )}
          {silent.length === 1 && sounding.length === 1 && (
            <li>“{silent[0]?.id}” has sound, and isn’t heard. Tick “Heard” in it to change that.</li>
          )}
        </ul>
      )}
      {seen?.some(({ zones }) => zones.some(({ small }) => small !== null)) && (
        <p className="mt-2 max-w-3xl text-xs text-faint">
          A capital letter has to be 16 minutes of arc high to be read, which is 23 mm from {READ_FROM_M} m (ISO
          9241-303). A screen counts as {USUAL_INCHES} inches, but for walls, whose size is known, and the smallest
          writing in a picture as a sixteenth of its height. Both are common practice.
        </p>
      )}
    </section>
  );
}

/** How screens see a layout, for what it was asked, and from when to when it holds. */
interface Known {
  readonly of: readonly unknown[];
  readonly from: number;
  readonly to: number;
  readonly seen: readonly LayoutSeen[];
}

/** How screens see a layout at the moment; asked for again when something changes, or the first zone shows something else. */
function useSeen(layout: string): readonly LayoutSeen[] | null {
  const { drafted } = useNetwork('drafted');
  const { moment } = useMoment();
  const firings = useFirings();
  const known = useRef<Known | null>(null);
  return useNewest(async () => {
    const of = [drafted.key, layout, firings];
    const holds = known.current && equal(known.current.of, of) && moment >= known.current.from;
    if (known.current && holds && moment < known.current.to) return known.current.seen;
    const seen = await ask(drafted, { kind: 'layout', layout, at: moment, firings });
    const to = Math.min(Infinity, ...seen.map(({ until }) => until ?? Infinity));
    known.current = { of, seen, from: moment, to };
    return seen;
  }, [drafted, layout, firings, moment]);
}

const BECAUSE: Record<NonNullable<ZoneSeen['why']>, string> = {
  'nothing chosen': 'nothing was chosen for it',
  'its time': 'that is not its time',
  'what it shows': 'what it shows has nothing for them then',
};

/** Which zones are empty in the day ahead, each with why, when, and on which screens. */
function emptyWords(
  seen: readonly LayoutSeen[],
  time: (at: number) => string,
  screensWords: (screens: readonly string[]) => string,
): string[] {
  const found = new Map<string, { words: (on: string) => string; screens: string[] }>();
  for (const { zones, screens } of seen)
    for (const { zone, why, empty } of zones) {
      if (why === null) continue;
      const times = empty.map(([from, to]) => `${time(from)}–${time(to)}`).join(', ');
      const when = why === 'nothing chosen' ? '' : ` ${times}`;
      const key = `${zone}|${why}|${when}`;
      const words = (on: string) => `“${zone}” is empty${when} on ${on}: ${BECAUSE[why]}.`;
      const known = found.get(key) ?? { words, screens: [] };
      known.screens.push(...screens);
      found.set(key, known);
    }
  const all = seen.reduce((sum, { screens }) => sum + screens.length, 0);
  return [...found.values()].map(({ words, screens }) =>
    words(screens.length === all ? 'all screens' : screensWords(screens)),
  );
}

/** Where the writing of a zone can't be read from afar, by zone. */
function smallWords(seen: readonly LayoutSeen[]): string[] {
  const found = new Map<string, { mm: number; least: number; sizes: Set<string> }>();
  for (const { zones, width, height } of seen)
    for (const { zone, small } of zones) {
      if (!small) continue;
      const known = found.get(zone) ?? { mm: Infinity, least: small.leastMm, sizes: new Set<string>() };
      known.mm = Math.min(known.mm, small.mm);
      known.sizes.add(`${width} × ${height}`);
      found.set(zone, known);
    }
  return [...found].map(
    ([zone, { mm, least, sizes }]) =>
      `Small writing in “${zone}” is about ${Math.max(1, Math.round(mm))} mm high on ${[...sizes].join(', ')}. From ${READ_FROM_M} m it takes ${Math.round(least)} mm: make the zone larger, or what it shows simpler.`,
  );
}
