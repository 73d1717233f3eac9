'use client';

import { MINUTE, type Instant } from '@/core/instant';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useLines } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { megabytes, timeNear } from '@/interface/kit/words/format';
import { placedName } from '@/interface/kit/words/placed-name';
import type { Fetches } from '@/services/editions';
import { NamedScreens } from './named-screens';
import { readiness, readyWords } from './readiness';

/** A sentence about some players; `screens` are named before it. */
interface Told {
  readonly key: string;
  readonly screens: readonly string[];
  readonly text: string;
  /** It isn't a problem. */
  readonly quiet?: true;
}

/** What the players of these screens have to do, by when, and which of them can't for now. */
export function PreflightPlayers({
  screens,
  fetches,
  goesOut,
}: {
  screens: readonly string[];
  fetches: Fetches | undefined;
  goesOut: Instant | null;
}) {
  const { statuses, draft } = useNetwork('statuses', 'draft');
  const index = useIndex(draft);
  const zone = useZone();
  const lines = useLines();
  const { now } = useMoment();
  // In whole minutes: how long it takes does not change with each second.
  const minute = Math.floor(now / MINUTE) * MINUTE;
  const stateOf = (id: string) => statuses.get(id)?.state ?? 'unpaired';
  const meant = new Set(screens);
  const heard = new Set(screens.filter((id) => ['lit', 'behind', 'resting'].includes(stateOf(id))));
  const when = fetches && lines && readiness(fetches, new Map(lines.map((line) => [line.id, line])), heard, minute);
  const ready = when
    ? readyWords(
        when,
        minute,
        (id) => placedName(index, id),
        (at) => timeNear(at, minute, zone),
      )
    : '';
  const late = goesOut === null || !when ? [] : when.ready.filter(({ at }) => at > goesOut).map(({ screen }) => screen);
  const told: Told[] = [
    ...inAll('fetch', fetches && fetches.all > 0 ? fetchWords(fetches) : ''),
    ...inAll('ready', ready),
    ...about(
      'unknown',
      when?.unknown ?? [],
      'it isn’t known how soon. A line is measured with the first larger file.',
      true,
    ),
    ...about('late', late, 'not ready by the time it goes out. They will switch when they are.'),
    ...(when?.short ?? []).flatMap(({ screen, bytes }) =>
      about(`short ${screen}`, [screen], `storage ${megabytes(bytes)} too small for it.`),
    ),
    ...about(
      'dark',
      screens.filter((id) => stateOf(id) === 'dark'),
      'offline. They will update when they reconnect.',
    ),
    ...about(
      'unpaired',
      draft.screens.flatMap(({ id }) => (meant.has(id) && stateOf(id) === 'unpaired' ? [id] : [])),
      'no player is paired, so nothing shows there.',
    ),
    ...screens.flatMap((id) =>
      (statuses.get(id)?.troubles ?? []).flatMap((text) => about(`${id} ${text}`, [id], text)),
    ),
  ];
  if (told.length === 0) return null;
  return (
    <ul className="mt-2 text-sm" aria-label="Players">
      {told.map(({ key, screens: named, text, quiet }) => (
        <li key={key} className={`border-l-2 py-0.5 pl-3 ${quiet ? 'border-rule' : 'border-dusk'}`}>
          {named.length > 0 && (
            <>
              <NamedScreens ids={named} index={index} />:{' '}
            </>
          )}
          {text}
        </li>
      ))}
    </ul>
  );
}

const fetchWords = ({ most, all }: Fetches) =>
  `Players download at most ${megabytes(most)} each, ${megabytes(all)} in total, and switch when they have it.`;

/** A sentence about all of them, if there is anything to say. */
const inAll = (key: string, text: string): Told[] => (text === '' ? [] : [{ key, screens: [], text, quiet: true }]);

/** Without screens there isn't a sentence. */
const about = (key: string, screens: readonly string[], text: string, quiet?: true): Told[] =>
  screens.length === 0 ? [] : [{ key, screens, text, ...(quiet ? { quiet } : {}) }];
