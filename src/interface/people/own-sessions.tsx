'use client';

import { endSessionAction } from '@/web/people-actions';
import { Button } from '@/interface/kit/controls/button';
import { dateTime } from '@/interface/kit/words/format';
import type { Session } from '@/services/people';
import type { RunAndTell } from './act';
import { agentName } from './words';

/** Where you are logged in: each window can be logged out from here. */
export function OwnSessions({ sessions, zone, act }: { sessions: readonly Session[]; zone: string; act: RunAndTell }) {
  return (
    <section aria-labelledby="own-sessions">
      <h2 id="own-sessions" className="text-lg">
        Where you are logged in
      </h2>
      <ul className="mt-2 border-y border-rule">
        {sessions.map(({ id, here, agent, address, seenAt }) => (
          <li key={id} className="flex items-center gap-3 border-b border-rule/60 py-2 last:border-b-0">
            <span className="min-w-0 flex-1">
              <span className="block truncate" title={agent ?? undefined}>
                {agentName(agent)}
                {here && <strong> · here</strong>}
              </span>
              <span className="block text-sm text-faint">
                {address ?? 'unknown address'} · {dateTime(Date.parse(seenAt), zone)}
              </span>
            </span>
            {!here && (
              <Button
                variant="grave"
                aria-label={`Log out ${agentName(agent)} at ${address ?? 'an unknown address'}`}
                onClick={() => void act(endSessionAction(id), 'That window is logged out.')}
              >
                Log out
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
