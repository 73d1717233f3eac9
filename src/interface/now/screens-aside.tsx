'use client';

import { group } from 'd3-array';
import { useState } from 'react';
import Link from 'next/link';
import { useMoment } from '@/interface/data/moment';
import { Word } from '@/interface/kit/words/word';
import { Button } from '@/interface/kit/controls/button';
import { counted } from '@/interface/kit/words/format';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { useKey } from '@/interface/shell/keys';
import type { Screen, Site } from '@/core/plan';
import type { ScreenStatus } from '@/services/screens';
import { CommandsMenu } from '@/interface/commands/commands-menu';
import { Outcomes } from '@/interface/commands/outcomes';
import { ChangeMany } from '@/interface/screens/change-many';
import { Sheet } from '@/interface/kit/controls/sheet';
import { Aside } from './aside';
import { PutOnForm } from './put-on-form';

/** So many screens are named in an address; more are meant by their tags. */
const MOST_NAMED = 40;

/** Several chosen screens: which they are, how they stand, and what can be done with them together. */
export function ScreensAside({
  screens,
  sites,
  status,
  putting,
  onPut,
  onOnly,
  onClose,
}: {
  screens: readonly Screen[];
  sites: ReadonlyMap<string, Site>;
  status: ReadonlyMap<string, ScreenStatus>;
  /** Whether something is being put on them at once. */
  putting: boolean;
  onPut: (putting: boolean) => void;
  /** Chooses one of them alone. */
  onOnly: (screen: string) => void;
  onClose: () => void;
}) {
  const { isNow } = useMoment();
  useKey('escape', 'Choose no screens', onClose);
  const ids = screens.map(({ id }) => id);
  const [changing, setChanging] = useState(false);
  const where = screens.map(({ id }) => `screen:${id}`).join(' or ');
  return (
    <Aside
      label={counted(screens.length, 'screen')}
      head={<h2 className="text-xl">{counted(screens.length, 'screen')}</h2>}
      onClose={onClose}
    >
      <p className="mt-1 text-sm text-faint">
        The time <Word of="rail">rail</Word> shows changes on these screens only.
      </p>
      {putting ? (
        <PutOnForm screens={screens} onClose={() => onPut(false)} />
      ) : (
        <p className="mt-3 flex flex-wrap items-center gap-2">
          <Button needs="operate" variant="main" className="!px-3 !py-1.5" onClick={() => onPut(true)}>
            Put on now
          </Button>
          {isNow && <CommandsMenu screens={ids} />}
          <Button needs="plan" onClick={() => setChanging(true)}>
            Change them
          </Button>
          {screens.length <= MOST_NAMED && (
            <Link
              href={`/plan?book=${encodeURIComponent(where)}`}
              className="inline-block border border-rule bg-sheet px-3 py-1.5 hover:border-ink"
            >
              Make a booking for them
            </Link>
          )}
        </p>
      )}
      <Sheet open={changing} title={`Change ${counted(screens.length, 'screen')}`} onClose={() => setChanging(false)}>
        <ChangeMany ids={ids} onDone={() => setChanging(false)} />
      </Sheet>
      {isNow && <Outcomes screens={ids} zone={sites.get(screens[0]?.site ?? '')?.timeZone ?? 'UTC'} />}
      {[...group(screens, ({ site }) => site)].map(([site, list]) => (
        <section key={site} className="mt-4" aria-label={sites.get(site)?.name ?? site}>
          <h3 className="text-base">{sites.get(site)?.name ?? site}</h3>
          <ul className="mt-1">
            {list.map(({ id, name }) => {
              const state = status.get(id)?.state ?? 'unpaired';
              return (
                <li key={id}>
                  <button
                    type="button"
                    onClick={() => onOnly(id)}
                    className="flex w-full items-center gap-2 py-0.5 text-left hover:text-tide"
                  >
                    {isNow && <Lantern state={state} size={16} />}
                    <span className="min-w-0 truncate">{name}</span>
                    {isNow && <span className="ml-auto text-sm text-faint">{STATE_WORDS[state]}</span>}
                  </button>
                </li>
              );
            })}
          </ul>
        </section>
      ))}
    </Aside>
  );
}
