'use client';

import Link from 'next/link';
import { useMemo } from 'react';
import type { Plan } from '@/core/plan';
import { usesOf, type Used } from './uses';

/** Where a file or playlist is used, each with a way there. */
export function UsedIn({ plan, ...used }: { plan: Plan } & Used) {
  const { kind, object } = used;
  // eslint-disable-next-line react-hooks/exhaustive-deps -- `used` is these two
  const uses = useMemo(() => usesOf(plan, used), [plan, kind, object]);
  if (uses.length === 0) return <p className="text-sm text-faint">Nothing uses it.</p>;
  return (
    <ul className="text-sm">
      {uses.map(({ what, path }) => (
        <li key={`${what} ${path}`}>
          <Link href={path} className="inline-block py-1 text-tide underline underline-offset-2">
            {what}
          </Link>
        </li>
      ))}
    </ul>
  );
}
