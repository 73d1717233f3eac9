import Link from 'next/link';
import type { Index } from '@/interface/now/street';
import { pathTo } from '@/interface/kit/content/path-to';
import { placedName } from '@/interface/kit/words/placed-name';

/** So many names are read; of more it is enough to know how many. */
const NAMES = 6;

/** Screens by site and name, each a way to its place; of many the first. */
export function NamedScreens({ ids, index }: { ids: readonly string[]; index: Index }) {
  const named = ids.length <= NAMES ? ids : ids.slice(0, NAMES - 1);
  return (
    <>
      {named.map((id, i) => (
        <span key={id}>
          {i > 0 && ', '}
          <Link href={pathTo({ kind: 'screen', id })} className="text-tide underline underline-offset-2">
            {placedName(index, id)}
          </Link>
        </span>
      ))}
      {named.length < ids.length && ` and ${ids.length - named.length} more`}
    </>
  );
}
