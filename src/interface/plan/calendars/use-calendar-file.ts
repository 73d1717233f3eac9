'use client';

import { useEffect, useState } from 'react';
import type * as icalendar from '@/core/formats/icalendar';

/** The reader of calendar files: fetched when it is first needed. */
export type CalendarReader = typeof icalendar;

/** A file's events and problems as one types or chooses it; null while there is none. */
export function useCalendarFile(
  text: string,
): { readonly file: icalendar.CalendarFile; readonly reader: CalendarReader } | null {
  const [read, setRead] = useState<{ file: icalendar.CalendarFile; reader: CalendarReader } | null>(null);
  useEffect(() => {
    let current = true;
    if (text.trim() === '') setRead(null);
    else
      void import('@/core/formats/icalendar').then(
        (reader) => current && setRead({ file: reader.readCalendar(text), reader }),
      );
    return () => {
      current = false;
    };
  }, [text]);
  return read;
}
