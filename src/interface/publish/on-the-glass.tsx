'use client';

import { useId, useState } from 'react';
import {
  HOUR,
  addDays,
  done,
  misread,
  parseDate,
  readWhen,
  startOfDate,
  toInstant,
  zoneTable,
  type DifferenceGroup,
  type LocalDate,
  type ObjectKey,
  type PhraseContext,
  type Result,
} from '@/core';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { useZone } from '@/interface/data/zone';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Input } from '@/interface/kit/field';
import { counted, dateTime } from '@/interface/kit/format';
import { Ribbons } from './ribbons';
import { usePlanOf } from './use-plan-of';
import { GlassRuler } from './glass-ruler';
import { useDifferences } from './use-differences';

/** More dates than that are no look ahead any more, but a year's plan. */
const MOST_DAYS = 92;

/**
 * What looks different on the screens that receive another program: those that change alike in one group, what shows before and after as
 * ribbons on one ruler, over a day, a week or some dates; and who shows the same. With all changes, or with a choice of them.
 */
export function OnTheGlass({
  screens,
  chosen,
}: {
  screens: readonly string[];
  /** Null for all changes. */
  chosen: readonly ObjectKey[] | null;
}) {
  const { draft, published } = useNetwork('draft', 'published');
  const zone = useZone();
  const index = useIndex(draft);
  const { range, ...ranged } = useRange();
  const after = usePlanOf(chosen);
  const { groups, compared } = useDifferences(published, after, screens, range);
  const label = (id: string) => {
    const screen = index.screens.get(id) ?? published?.plan.screens.find((one) => one.id === id);
    return screen ? `${index.sites.get(screen.site)?.name ?? ''} · ${screen.name}` : id;
  };
  if (screens.length === 0)
    return <p className="mt-4 text-faint">No screen receives anything else by these changes.</p>;
  if (!published)
    return (
      <p className="mt-4">
        {counted(screens.length, 'screen')} will receive the first edition: <Names ids={screens} label={label} />.
      </p>
    );
  const differs = new Set(groups.flatMap((group) => group.screens));
  const same = compared < screens.length ? [] : screens.filter((id) => !differs.has(id));
  const untouched = draft.screens.filter(({ id }) => !screens.includes(id)).length;
  return (
    <section className="mt-6" aria-label="On the glass">
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-2">
        <h2 className="text-lg">On the glass</h2>
        <p className="text-sm text-faint" role="status">
          {compared < screens.length
            ? `${compared} of ${counted(screens.length, 'screen')} compared…`
            : `${counted(differs.size, 'screen')} ${differs.size === 1 ? 'looks' : 'look'} different from ${dateTime(range[0], zone)} to ${dateTime(range[1], zone)}`}
        </p>
        <RangeChoice {...ranged} />
      </div>
      {groups.length > 0 && (
        <div className="mt-3 border-t border-rule">
          <GlassRuler range={range} edges={edgesOf(groups)} />
          <ul>
            {groups.map((group) => (
              <li key={group.screens[0]} className="border-t border-rule py-2" data-testid="alike">
                <p className="text-sm">
                  {group.screens.length > 1 && (
                    <span className="font-semibold">{counted(group.screens.length, 'screen')} </span>
                  )}
                  <Names ids={group.screens} label={label} />
                </p>
                <Ribbons group={group} range={range} />
              </li>
            ))}
          </ul>
        </div>
      )}
      {same.length > 0 && (
        <p className="mt-3 text-sm text-faint">
          {counted(same.length, 'screen')} {same.length === 1 ? 'receives' : 'receive'} the edition and{' '}
          {same.length === 1 ? 'shows' : 'show'} the same in this time: <Names ids={same} label={label} />.
        </p>
      )}
      {untouched > 0 && (
        <p className="mt-1 text-sm text-faint">
          {counted(untouched, 'other screen')} {untouched === 1 ? 'is' : 'are'} not touched.
        </p>
      )}
    </section>
  );
}

const NAMED = 4;

function Names({ ids, label }: { ids: readonly string[]; label: (id: string) => string }) {
  const [open, setOpen] = useState(false);
  const names = ids.map(label);
  if (open || ids.length <= NAMED) return names.join(', ');
  return (
    <>
      {names.slice(0, NAMED - 1).join(', ')} and{' '}
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="inline-block py-0.5 text-tide underline underline-offset-2"
      >
        {ids.length - NAMED + 1} more
      </button>
    </>
  );
}

/** From and to when it is compared: the hours to come, or the dates that are said, on one's own clock. */
function useRange() {
  const { now } = useMoment();
  const table = zoneTable(useZone());
  const context = usePhraseContext();
  const [hours, setHours] = useState(24);
  const [said, setSaid] = useState('');
  const begin = Math.floor(now / HOUR) * HOUR;
  const dates = datesOf(said, context);
  const range: readonly [number, number] = dates.ok
    ? [toInstant(table, startOfDate(dates.value[0])), toInstant(table, startOfDate(addDays(dates.value[1], 1)))]
    : [begin, begin + hours * HOUR];
  return {
    range,
    said,
    hours: dates.ok ? null : hours,
    problem: said.trim() === '' || dates.ok ? undefined : dates.message,
    onSay: setSaid,
    onHours: (next: number) => {
      setSaid('');
      setHours(next);
    },
  };
}

/** The first and last of the dates that are said. */
function datesOf(said: string, context: PhraseContext): Result<readonly [LocalDate, LocalDate]> {
  const read = readWhen(said, context);
  if (!read.ok) return read;
  const [first, last] = [read.value.from, read.value.to].map((date) => parseDate(date ?? ''));
  if (first == null || last == null) return misread('Say the first and the last day, as "24 to 26 Dec".');
  if (last - first >= MOST_DAYS) return misread(`At most ${MOST_DAYS} days are compared at once.`);
  return done([first, last] as const);
}

const WAYS = [
  ['Day', 24],
  ['Week', 7 * 24],
] as const;

function RangeChoice({ hours, said, problem, onHours, onSay }: Omit<ReturnType<typeof useRange>, 'range'>) {
  const id = useId();
  return (
    <div role="group" aria-label="How far ahead" className="ml-auto flex flex-wrap items-center gap-2 text-sm">
      {WAYS.map(([name, length]) => (
        <button
          key={name}
          type="button"
          aria-pressed={hours === length}
          onClick={() => onHours(length)}
          className={`border px-2.5 py-1 ${hours === length ? 'border-ink bg-well font-semibold' : 'border-rule hover:border-ink'}`}
        >
          {name}
        </button>
      ))}
      <div className="w-44">
        <Input
          aria-label="Other days"
          aria-describedby={problem === undefined ? undefined : id}
          placeholder="or: 24 to 26 Dec"
          value={said}
          invalid={problem !== undefined}
          onChange={({ target }) => onSay(target.value)}
        />
      </div>
      {problem !== undefined && (
        <p id={id} className="w-full text-right text-brick">
          {problem}
        </p>
      )}
    </div>
  );
}

/** The instants at which any of the groups changes, in order. */
const edgesOf = (groups: readonly DifferenceGroup[]): readonly number[] =>
  [...new Set(groups.flatMap(({ differences }) => differences.flatMap(({ from, to }) => [from, to])))].sort(
    (a, b) => a - b,
  );
