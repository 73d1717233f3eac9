'use client';

import { useState } from 'react';
import { Button } from '@/interface/kit/controls/button';
import { dateTime } from '@/interface/kit/words/format';
import type { TrailLine } from '@/services/people';
import { trailSentence } from './words';

const AT_FIRST = 10;

/** What was done with people and their ways in, the newest first. */
export function TrailList({ lines, zone }: { lines: readonly TrailLine[]; zone: string }) {
  const [all, setAll] = useState(false);
  const shown = all ? lines : lines.slice(0, AT_FIRST);
  return (
    <section aria-labelledby="trail">
      <h2 id="trail" className="text-lg">
        What was done
      </h2>
      {lines.length === 0 ? (
        <p className="mt-1 text-faint">Nothing yet. Invitations, logins and removals will be listed here.</p>
      ) : (
        <ol className="mt-2 border-y border-rule text-sm">
          {shown.map((line) => (
            <li key={line.id} className="flex gap-4 border-b border-rule/60 py-1.5 last:border-b-0">
              <span className="w-36 shrink-0 font-code text-xs leading-5 text-faint">
                {dateTime(Date.parse(line.at), zone)}
              </span>
              <span className="min-w-0 break-words">
                {trailSentence(line)}
                {line.address && <span className="text-faint"> from {line.address}</span>}
              </span>
            </li>
          ))}
        </ol>
      )}
      {!all && lines.length > AT_FIRST && (
        <Button variant="quiet" onClick={() => setAll(true)}>
          Show all {lines.length}
        </Button>
      )}
    </section>
  );
}
