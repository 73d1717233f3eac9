import { counted, timeNear } from '@/interface/kit/words/format';
import type { Edition, Planned } from '@/services/editions';

/** The notice for a waiting edition that goes out; `zone` is the reader's. */
export function wentOutWords(
  { at, siteTime, pilot, steps }: Planned,
  { number, publishedAt }: Edition,
  zone: string,
): string {
  const out = Date.parse(publishedAt);
  if (pilot) {
    const tried = new Set(steps.flatMap((step) => step.screens)).size;
    return `Edition ${number} is out on all screens, after its pilot on ${counted(tried, 'screen')}.`;
  }
  const planned = at === null ? out : Date.parse(at);
  if (out < planned) return `Edition ${number} is out, ahead of its time.`;
  return siteTime === null
    ? `Edition ${number} is out, as planned for ${timeNear(planned, out, zone)}.`
    : `Edition ${number} is out at the last site, as planned.`;
}
