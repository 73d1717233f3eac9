import { group } from 'd3-array';
import type { Screen } from '@/core/plan';

/** A selector of these screens: all of them, whole sites by the site, others one by one. */
export function whereOf(chosen: readonly Screen[], all: readonly Screen[]): string {
  if (chosen.length > 0 && chosen.length === all.length) return 'all';
  const whole = group(all, ({ site }) => site);
  return [...group(chosen, ({ site }) => site)]
    .flatMap(([site, list]) =>
      list.length > 1 && list.length === whole.get(site)?.length
        ? [`site:${site}`]
        : list.map(({ id }) => `screen:${id}`),
    )
    .join(' or ');
}
