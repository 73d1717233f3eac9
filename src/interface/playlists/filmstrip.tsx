'use client';

import { firstFile } from '@/interface/kit/content/content';
import type { Item, Plan } from '@/core/plan';
import { itemLength } from '@/core/forecast';
import { useThumbnails } from '@/interface/data/provider';
import { duration } from '@/interface/kit/words/format';
import { itemName } from './item-name';

/** A playlist in true proportion of time: each item as wide as it lasts. */
export function Filmstrip({ plan, items }: { plan: Plan; items: readonly Item[] }) {
  const thumbnail = useThumbnails();
  const lengths = items.map((item) => itemLength(plan, item).durationMs);
  const total = lengths.reduce((sum, one) => sum + one, 0);
  if (total === 0) return <div className="hatch h-12 bg-well text-faint" aria-label="Nothing to show" role="img" />;
  return (
    <div
      className="flex h-12 gap-px bg-ink"
      role="img"
      aria-label={items.map((item, i) => `${itemName(plan, item)} ${duration(lengths[i] ?? 0)}`).join(', ')}
    >
      {items.map((item, i) => (
        <div
          key={i}
          className="hatch min-w-0 bg-well text-faint"
          style={{ flexGrow: lengths[i] ?? 0, flexBasis: 0, ...frames(thumbnail(firstFile(plan, item))) }}
          title={`${itemName(plan, item)}, ${duration(lengths[i] ?? 0)}`}
        ></div>
      ))}
    </div>
  );
}

/** A picture again and again, as on film. */
const frames = (src: string | undefined) =>
  src ? { backgroundImage: `url(${src})`, backgroundSize: 'auto 100%', backgroundRepeat: 'repeat-x' } : {};
