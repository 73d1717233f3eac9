'use client';

import Link from 'next/link';
import { KINDS, keyText } from '@/core/plan';
import { useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { counted, dateTime } from '@/interface/kit/words/format';
import { pathTo } from '@/interface/kit/content/path-to';
import type { DocketEntry } from '@/services/editions';
import type { Choice } from './use-choice';

/** The unpublished changes, each with a box: publish all of them, your own, another person's, or a few. */
export function DocketList({ entries, choice }: { entries: readonly DocketEntry[]; choice: Choice }) {
  return (
    <>
      {entries.length > 1 && <Choose entries={entries} choice={choice} />}
      <ul className="mt-3 border-y border-rule" aria-label="Unpublished changes">
        {entries.map((entry) => (
          <Entry key={keyText(entry)} entry={entry} entries={entries} choice={choice} />
        ))}
      </ul>
    </>
  );
}

/** All of them, or those of one of the people who made them. */
function Choose({ entries, choice }: { entries: readonly DocketEntry[]; choice: Choice }) {
  const { person } = useNetwork('person');
  const people = [...new Set(entries.flatMap((entry) => entry.people))];
  const others = people.filter((name) => name !== person).sort((a, b) => a.localeCompare(b));
  const of = (name: string) => entries.filter((entry) => entry.people.includes(name));
  const ways = [
    { name: 'All', list: entries },
    ...(people.includes(person) && others.length > 0 ? [{ name: 'Yours', list: of(person) }] : []),
    ...(others.length > 0 && people.length > 1 ? others.map((name) => ({ name, list: of(name) })) : []),
    { name: 'None', list: [] },
  ];
  const isChosen = (list: readonly DocketEntry[]) =>
    list.length === choice.chosen.length && list.every((entry) => choice.has(entry));
  return (
    <div role="group" aria-label="Changes to publish" className="mt-3 flex flex-wrap items-center gap-2 text-sm">
      <span className="text-faint">Publish:</span>
      {ways.map(({ name, list }) => (
        <button
          key={name}
          type="button"
          aria-pressed={isChosen(list)}
          onClick={() => choice.choose(list)}
          className={`border px-2.5 py-1 ${isChosen(list) ? 'border-ink bg-well font-semibold' : 'border-rule hover:border-ink'}`}
        >
          {name} {list.length > 0 && <span className="text-faint">{list.length}</span>}
        </button>
      ))}
    </div>
  );
}

function Entry({ entry, entries, choice }: { entry: DocketEntry; entries: readonly DocketEntry[]; choice: Choice }) {
  const { what, kind, id, name, sentences, people, at } = entry;
  const zone = useZone();
  const on = choice.has(entry);
  const along = on ? undefined : choice.along.get(keyText(entry));
  const by = along && entries.find((one) => keyText(one) === keyText(along));
  return (
    <li
      className="flex flex-wrap items-baseline gap-x-3 border-b border-rule/60 py-2 last:border-b-0"
      data-testid="change"
    >
      {entries.length > 1 && (
        <label className="-my-1 flex size-6 shrink-0 items-center justify-center">
          <input
            type="checkbox"
            aria-label={`Publish ${name}`}
            checked={on || along !== undefined}
            disabled={along !== undefined}
            onChange={(event) => choice.set(entry, event.target.checked)}
            className="size-4 accent-dusk"
          />
        </label>
      )}
      <span className={`text-sm md:w-16 ${what === 'removed' ? 'text-brick' : 'text-tide'}`}>{what}</span>
      <span className="text-sm text-faint md:w-20">{KINDS[kind].noun}</span>
      <div className="min-w-0 flex-1 max-md:w-full max-md:flex-none">
        <p className={on || along ? 'font-semibold' : 'text-faint'}>
          {what === 'removed' ? (
            name
          ) : (
            <Link
              href={pathTo({ kind, id })}
              className="inline-block py-0.5 underline decoration-rule underline-offset-2 hover:decoration-ink"
            >
              {name}
            </Link>
          )}
        </p>
        {sentences.length > 0 && (
          <ul className="text-sm text-faint">
            {sentences.map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ul>
        )}
        {along && (
          <p className="text-sm">
            included, because {by ? `${KINDS[by.kind].noun} “${by.name}”` : 'what you chose'} needs it
          </p>
        )}
      </div>
      <span className="text-sm text-faint">
        {people.length > 0 && `${people.join(', ')} · `}
        {dateTime(Date.parse(at), zone)}
      </span>
    </li>
  );
}

/** What of it goes out, in words. */
export const chosenWords = ({ chosen, along, isWhole }: Choice, all: number): string =>
  isWhole ? counted(all, 'change') : `${chosen.length + along.size} of ${counted(all, 'change')}`;
