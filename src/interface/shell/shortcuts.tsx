'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { Sheet } from '@/interface/kit/sheet';
import { PLACES } from './places';
import { toggleTheme } from './theme';
import { isTyping } from './typing';

const OTHERS = [
  ['[  ]', 'The change before, the change after the moment'],
  ['t', 'Back to now'],
  ['m', 'Look at another time: write it, as tomorrow 06:10'],
  ['w', 'Why the chosen screen shows this'],
  ['/', 'Search in this place'],
  ['n, f', 'In Plan: a new booking; what to look at'],
  ['d', 'Day or night'],
  ['Ctrl Z, Ctrl Y', 'Take your last change back, make it again'],
  ['?', 'This list'],
];

/** The keys of every place. While one types they are letters; while a sheet is open, taking back and making again work on. */
export function Shortcuts() {
  const router = useRouter();
  const { step, go } = useMoment();
  const { undo, redo } = useNetwork('undo', 'redo');
  const [list, showList] = useState(false);
  const afterG = useRef(false);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.altKey) return;
      const key = event.key.toLowerCase();
      if (event.ctrlKey || event.metaKey) {
        if (key === 'z' && !event.shiftKey) undo();
        else if (key === 'y' || (key === 'z' && event.shiftKey)) redo();
        else return;
        return event.preventDefault();
      }
      if (document.querySelector('[role="dialog"]')) return;
      if (afterG.current) {
        afterG.current = false;
        const place = PLACES.find((one) => one.key === key);
        if (place) router.push(place.path);
        return;
      }
      if (key === 'g') afterG.current = true;
      else if (key === '[') step(-1);
      else if (key === ']') step(1);
      else if (key === 't') go(null);
      else if (key === 'd') toggleTheme();
      else if (key === '?') showList(true);
      else if (key === '/') {
        event.preventDefault();
        document.querySelector<HTMLInputElement>('[data-search]')?.focus();
      }
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [router, step, go, undo, redo]);

  return (
    <Sheet title="Keys" open={list} onClose={() => showList(false)}>
      <dl className="grid grid-cols-[8rem_1fr] gap-y-2">
        {[...PLACES.map(({ key, name }) => [`g ${key}`, `Go to ${name}`]), ...OTHERS].map(([key, what]) => (
          <div key={key} className="contents">
            <dt className="font-code text-sm">{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  );
}
