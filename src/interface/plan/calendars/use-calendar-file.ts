'use client';

import { useEffect, useState } from 'react';
import type * as icalendar from '@/core/formats/icalendar';
import { useNetwork } from '@/interface/data/provider';
import type { Read, ToRead } from './worker';

/** What takes events on: fetched when it is first needed. */
type CalendarReader = typeof icalendar;

export type Reading =
  | { readonly state: 'none' }
  /** The share that is read, 0 to 1. */
  | { readonly state: 'reading'; readonly share: number }
  | { readonly state: 'read'; readonly file: icalendar.CalendarFile; readonly reader: CalendarReader }
  | { readonly state: 'failed' };

/** What a calendar file's text would bring, as it is typed or chosen. Another text, or none, stops the reading of the last. */
export function useCalendarFile(text: string): Reading {
  const { view } = useNetwork('view');
  const [reading, setReading] = useState<Reading>({ state: 'none' });
  useEffect(() => {
    if (text.trim() === '') {
      setReading({ state: 'none' });
      return;
    }
    setReading({ state: 'reading', share: 0 });
    const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
    let current = true;
    worker.addEventListener('message', ({ data }: MessageEvent<Read>) => {
      if (!current) return;
      if ('share' in data) return setReading({ state: 'reading', share: data.share });
      worker.terminate();
      void import('@/core/formats/icalendar').then(
        (reader) => current && setReading({ state: 'read', file: data.file, reader }),
        () => current && setReading({ state: 'failed' }),
      );
    });
    worker.addEventListener('error', (event) => {
      event.preventDefault();
      worker.terminate();
      if (current) setReading({ state: 'failed' });
    });
    worker.postMessage({ text, zones: view.zones } satisfies ToRead);
    return () => {
      current = false;
      worker.terminate();
    };
  }, [text, view.zones]);
  return reading;
}
