'use client';

import { useId, useMemo, useState, type ReactNode } from 'react';
import type { DifferenceGroup } from '@/core/edition';
import { HOUR } from '@/core/instant';
import { done, misread, type Result } from '@/core/refusal';
import {
  addDays,
  parseDate,
  readWhen,
  setsOf,
  startOfDate,
  toInstant,
  zoneTable,
  type LocalDate,
  type PhraseContext,
} from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import type { NamedPlan } from '@/interface/data/state';
import { useZone } from '@/interface/data/zone';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Input } from '@/interface/kit/controls/field';
import { counted, dateTime } from '@/interface/kit/words/format';
import { Ribbons } from './ribbons';
import { GlassRuler } from './glass-ruler';
import { useDifferences } from './use-differences';

/** More dates than this would be a year's plan rather than a preview. */
const MOST_DAYS = 92;

/**
 * What looks different on some screens by one plan than by another: those that change alike in one group, what shows before and after as
 * ribbons on one ruler, over a day, a week or some dates; and who shows the same.
 */
export function Comparison({
  name,
  before,
  after,
  screens,
  sameWords,
  children,
}: {
  name: string;
  before: NamedPlan;
  after: NamedPlan;
  screens: readonly string[];
  /** What is said of so many screens that show the same; their names follow. */
  sameWords: (count: number) => string;
  children?: ReactNode;
}) {
  const zone = useZone();
  const { range, ...ranged } = useRange();
  const { groups, compared } = useDifferences(before, after, screens, range);
  const label = useScreenLabels(before, after);
  const differs = new Set(groups.flatMap((group) => group.screens));
  const same = compared < screens.length ? [] : screens.filter((id) => !differs.has(id));
  return (
    <section className="mt-6" aria-label={name}>
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-2">
        <h2 className="text-lg">{name}</h2>
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
                <Ribbons group={group} range={range} before={before.plan} after={after.plan} />
              </li>
            ))}
          </ul>
        </div>
      )}
      {same.length > 0 && (
        <p className="mt-3 text-sm text-faint">
          {sameWords(same.length)}: <Names ids={same} label={label} />.
        </p>
      )}
      {children}
    </section>
  );
}

/** Screens by their sites and names, as the later plan has them, else the earlier one. */
export function useScreenLabels(before: NamedPlan | null, after: NamedPlan): (id: string) => string {
  return useMemo(() => {
    const names = new Map<string, string>();
    for (const plan of [before?.plan, after.plan]) {
      const sites = new Map(plan?.sites.map(({ id, name }) => [id, name]));
      for (const { id, name, site } of plan?.screens ?? []) names.set(id, `${sites.get(site) ?? ''} · ${name}`);
    }
    return (id) => names.get(id) ?? id;
  }, [before, after]);
}

const NAMED = 4;

export function Names({ ids, label }: { ids: readonly string[]; label: (id: string) => string }) {
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
  const [set, ...more] = setsOf(read.value);
  const [first, last] = [set?.from, more.length > 0 ? undefined : set?.to].map((date) => parseDate(date ?? ''));
  if (first == null || last == null) return misread('Write the first and the last day, e.g. “24 to 26 Dec”.');
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
          placeholder="or e.g. 24 to 26 Dec"
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
