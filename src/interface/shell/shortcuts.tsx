'use client';

import { usePathname, useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useGo, useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { Sheet } from '@/interface/kit/controls/sheet';
import { keysNow, useKey, useKeyboard, type KeyMeaning } from './keys';
import { PLACES } from './places';
import { toggleTheme } from './theme';
import { isTyping } from './typing';

/** Keys that are heard elsewhere than by `useKey`. */
const OTHERS = [
  ['Ctrl K', 'Find any place, object or action by its name'],
  ['Ctrl Z, Ctrl Y', 'Undo your last change, redo it'],
  ['Tab', 'Move between areas'],
];

/** What arrows and the like do in a place, by its path. */
const OF_PLACE: Readonly<Record<string, readonly (readonly [string, string])[]>> = {
  '/': [
    ['arrows', 'Move between tiles'],
    ['Enter, Space', 'Select or deselect a tile'],
    ['Shift arrows, Shift click', 'Choose all tiles up to there'],
    ['Ctrl click', 'Choose one more'],
    ['Ctrl A', 'Choose all tiles that are shown'],
    ['Esc', 'Choose none'],
  ],
  '/plan': [
    ['arrows', 'Move between bars'],
    ['Space', 'Pick up a bar; arrows move it, Enter puts it down'],
    ['Enter', 'Open a booking'],
    ['Del', 'Remove a bar'],
  ],
  '/layouts': [
    ['arrows, Shift arrows', 'On a border, or a zone that lies over others: move it by 1 or 10 pixels'],
    ['Enter, Esc', 'Save a field, or restore it'],
  ],
  '/playlists': [
    ['Space, arrows, Space', 'On a grip: pick up an item, move it, put it down'],
    ['Enter, Esc', 'Save a field, or restore it'],
  ],
};

/** A place and the keys to it. */
function PlaceKey({ place: { key, name, path } }: { place: (typeof PLACES)[number] }) {
  const router = useRouter();
  const look = useGo();
  useKey(`g ${key}`, `Go to ${name}`, () => {
    if (path === '/') look(null);
    router.push(path);
  });
  return null;
}

/** The keys of every place. During typing they are letters; while a sheet is open, undo and redo still work. */
export function Shortcuts() {
  const path = usePathname();
  const { step, go } = useMoment();
  const { undo, redo } = useNetwork('undo', 'redo');
  const [list, showList] = useState<readonly KeyMeaning[] | null>(null);
  useKeyboard();
  useKey('[', 'The change before the moment', () => step(-1));
  useKey(']', 'The change after the moment', () => step(1));
  useKey('t', 'Back to now', () => go(null));
  useKey('/', 'Search in this place', () => document.querySelector<HTMLInputElement>('[data-search]')?.focus());
  useKey('d', 'Light or dark', toggleTheme);
  useKey('?', 'This list', () => showList(keysNow()));

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.altKey || !(event.ctrlKey || event.metaKey)) return;
      const key = event.key.toLowerCase();
      if (key === 'z' && !event.shiftKey) undo();
      else if (key === 'y' || (key === 'z' && event.shiftKey)) redo();
      else return;
      event.preventDefault();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [undo, redo]);

  // Ways to places first.
  const ways = [...(list ?? [])].reverse().sort((a, b) => Number(b.keys.includes(' ')) - Number(a.keys.includes(' ')));
  const here = Object.entries(OF_PLACE).findLast(([place]) => (place === '/' ? path === '/' : path.startsWith(place)));
  const told = [...(here?.[1] ?? []), ...OTHERS, ...ways.map(({ keys, what }) => [keys, what] as const)];
  return (
    <>
      {PLACES.map((place) => (
        <PlaceKey key={place.key} place={place} />
      ))}
      <Sheet title="Keys" open={list !== null} onClose={() => showList(null)}>
        <dl className="grid grid-cols-[9rem_1fr] gap-x-4 gap-y-2">
          {told.map(([key, what]) => (
            <div key={key} className="contents">
              <dt className="font-code text-sm">{key}</dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
      </Sheet>
    </>
  );
}
