'use client';

import Link from 'next/link';
import { useMemo } from 'react';
import type { Plan } from '@/core';
import { usesOf } from './uses';

/** Where a file or playlist is used, each with a way there. */
export function UsedIn({ plan, kind, id }: { plan: Plan; kind: 'media' | 'playlist'; id: string }) {
  const uses = useMemo(() => usesOf(plan, { kind, id }), [plan, kind, id]);
  if (uses.length === 0) return <p className="text-sm text-faint">Nothing names it.</p>;
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
