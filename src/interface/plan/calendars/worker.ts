import { adoptZones, type ZoneTable } from '@/core/when';
import { readCalendar, type CalendarFile } from '@/core/formats/icalendar';

/** Reads one calendar file off the page's thread, and ends with it. */

export interface ToRead {
  readonly text: string;
  readonly zones: readonly ZoneTable[];
}
export type Read = { readonly share: number } | { readonly file: CalendarFile };

const TOLD_EVERY_MS = 100;

const tell = (message: Read) => self.postMessage(message);

self.addEventListener('message', ({ data: { text, zones } }: MessageEvent<ToRead>) => {
  adoptZones(zones);
  let told = performance.now();
  const file = readCalendar(text, (share) => {
    if (performance.now() - told < TOLD_EVERY_MS) return;
    told = performance.now();
    tell({ share });
  });
  tell({ file });
});
