'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMoment } from '@/interface/data/moment';
import { useKept } from '@/interface/data/queries';
import { useZone } from '@/interface/data/zone';
import { Button } from '@/interface/kit/controls/button';
import { counted, dateTime } from '@/interface/kit/words/format';
import type { Edition } from '@/services/editions';
import { spanWords } from './arrival';
import { Word } from '@/interface/kit/words/word';

/** What went out, the newest first: by whom and when, what for; to go back to, or to compare. */
export function Editions({
  editions,
  busy,
  onCompare,
  onAgain,
}: {
  editions: readonly Edition[];
  busy: boolean;
  onCompare: (number: number) => void;
  onAgain: (number: number) => void;
}) {
  const kept = useKept();
  return (
    <aside aria-label="Editions">
      <h2 className="text-lg">
        <Word of="edition">Editions</Word>
      </h2>
      <ol className="mt-2">
        {editions.map((edition, i) => (
          <EditionRow
            key={edition.number}
            edition={edition}
            newest={i === 0}
            busy={busy}
            onCompare={() => onCompare(edition.number)}
            onAgain={() => onAgain(edition.number)}
          />
        ))}
        {editions.length === 0 && <li className="text-faint">None yet.</li>}
      </ol>
      {kept && (
        <p className="mt-3 text-sm text-faint">
          Kept: the {counted(kept.editions, 'newest edition', 'newest editions')}, and all of the last{' '}
          {counted(kept.days, 'day')}.{' '}
          <Link href="/network" className="inline-block py-1 text-tide underline underline-offset-2">
            Change that
          </Link>
        </p>
      )}
    </aside>
  );
}

function EditionRow({
  edition,
  newest,
  busy,
  onCompare,
  onAgain,
}: {
  edition: Edition;
  newest: boolean;
  busy: boolean;
  onCompare: () => void;
  onAgain: () => void;
}) {
  const { number, publishedAt, plannedFor, person, again, whole, note, touched } = edition;
  const zone = useZone();
  const { lookAtEdition } = useMoment();
  const router = useRouter();
  return (
    <li className="border-t border-rule py-2">
      <p className="flex items-baseline justify-between">
        <span className="font-heading text-lg font-bold">
          {number}
          {newest && <span className="ml-2 font-text text-sm font-normal text-lamp-ink">on the screens</span>}
        </span>
        {!newest && (
          <span className="flex">
            <Button
              variant="quiet"
              aria-label={`View edition ${number}`}
              onClick={() => {
                void lookAtEdition(number);
                router.push('/');
              }}
            >
              {' '}
              View{' '}
            </Button>
            <Button variant="quiet" aria-label={`Compare edition ${number}`} onClick={onCompare}>
              Compare
            </Button>
            <Button
              needs="publish"
              variant="quiet"
              aria-label={`Publish again: edition ${number}`}
              disabled={busy}
              onClick={onAgain}
            >
              Publish again…
            </Button>
          </span>
        )}
      </p>
      {note && <p className="break-words">{note}</p>}
      <p className="text-sm text-faint">
        {dateTime(Date.parse(publishedAt), zone)}, {person ?? 'someone'}; {counted(touched, 'screen')} changed
        {!newest && touched > 0 && `, ${reachedWords(edition)}`}
        {plannedFor !== null && (publishedAt === plannedFor ? '; as it was planned' : '; planned for later')}
        {again !== null && `; edition ${again} again`}
        {!whole && '; other changes were left out'}
      </p>
    </li>
  );
}

/** How far an edition came that is over. */
function reachedWords({ touched, reached, reachedAt, publishedAt }: Edition): string {
  if (reached === 0 || reachedAt === null) return 'no screen was updated';
  const span = spanWords(Math.max(0, Date.parse(reachedAt) - Date.parse(publishedAt)));
  return reached === touched
    ? `all were updated within ${span}`
    : `${reached} ${reached === 1 ? 'was' : 'were'} updated`;
}
