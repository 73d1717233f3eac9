'use client';

import { useMemo, useState } from 'react';
import { PROBLEMS, STATES, type Problem, type State } from '@/core/health';
import { useMoment } from '@/interface/data/moment';
import { useIndex, useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { Empty } from '@/interface/kit/controls/empty';
import { SearchField, Select } from '@/interface/kit/controls/field';
import { Sheet } from '@/interface/kit/controls/sheet';
import { STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { csvOf, saveText } from '@/interface/kit/page/csv';
import { findScreens } from '@/interface/kit/screens/find-screens';
import { counted } from '@/interface/kit/words/format';
import { ScreenAside } from '@/interface/now/screen-aside';
import { ScreensAside } from '@/interface/now/screens-aside';
import { factsOf, useOverview } from '../facts';
import { ProblemFilter } from '../problem-filter';
import { ReadList } from '../read-list';
import { ScreenViews } from '../views';
import { ColumnsMenu } from './columns-menu';
import { COLUMN_KEYS, csvRows, sorted, type Row } from './columns';
import { useTableView } from './kept-view';
import { ScreensTable } from './screens-table';

const MINUTE_MS = 60_000;

/** What rows are narrowed to, besides words; null for all. */
interface Filter {
  readonly state: State | null;
  readonly problem: Problem | null;
  readonly profile: string | null;
  readonly software: string | null;
}
const EVERYTHING: Filter = { state: null, problem: null, profile: null, software: null };
/** How a filter names screens of which a field isn't known. */
const UNKNOWN = 'not known';

/** All screens in one table: sorted, filtered, chosen and changed together. */
export function TablePlace() {
  const { draft, statuses } = useNetwork('draft', 'statuses');
  const { now, selected, select } = useMoment();
  const index = useIndex(draft);
  const overview = useOverview();
  const [search, setSearch] = useState('');
  const [filter, setFilter] = useState(EVERYTHING);
  const [view, setView] = useTableView();
  const [putting, setPutting] = useState(false);
  const [reading, setReading] = useState(false);
  const minute = Math.floor(now / MINUTE_MS) * MINUTE_MS;

  const all = useMemo(() => {
    const profiles = new Map(draft.profiles.map(({ id, name }) => [id, name]));
    return new Map(
      draft.screens.map((screen): [string, Row] => {
        const site = index.sites.get(screen.site);
        const told = overview.get(screen.id);
        return [
          screen.id,
          {
            ...{ screen, site: site?.name ?? '', siteTags: site?.tags ?? [], zone: site?.timeZone ?? 'UTC' },
            ...{ profile: profiles.get(screen.profile ?? '') ?? '', overview: told },
            facts: factsOf(statuses.get(screen.id), told),
          },
        ];
      }),
    );
  }, [draft, index, statuses, overview]);
  const found = useMemo(() => findScreens(draft, search).flatMap(({ id }) => all.get(id) ?? []), [draft, search, all]);
  const shown = useMemo(() => {
    const { state, problem, profile, software } = filter;
    return found.filter(
      (row) =>
        (state === null || row.facts.state === state) &&
        (problem === null || PROBLEMS[problem].is(row.facts, minute)) &&
        (profile === null || (row.profile || UNKNOWN) === profile) &&
        (software === null || (row.overview?.software ?? UNKNOWN) === software),
    );
  }, [found, filter, minute]);
  const rows = useMemo(() => sorted(shown, view.sort), [shown, view.sort]);
  const columns = COLUMN_KEYS.filter((key) => key === 'screen' || view.columns.includes(key));

  const chosen = useMemo(() => draft.screens.filter(({ id }) => selected.has(id)), [draft, selected]);
  const [one] = chosen;
  const close = () => {
    setPutting(false);
    select(new Set());
  };
  const isNarrowed = search.trim() !== '' || Object.values(filter).some((value) => value !== null);
  const names = (of: (row: Row) => string) => [...new Set([...all.values()].map(of))].sort();
  return (
    <div className="flex h-full min-h-0">
      <Sheet open={reading} title="Add screens from a list" onClose={() => setReading(false)}>
        <ReadList onDone={() => setReading(false)} />
      </Sheet>
      <div className="flex min-w-0 flex-1 flex-col overflow-y-auto px-3 sm:px-6">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-2 py-3">
          <h1 className="sr-only">Table of screens</h1>
          <SearchField label="Find screens" placeholder="Find by name or tag" value={search} onChange={setSearch} />
          <ScreenViews here="/screens/table" />
          <div className="ml-auto flex flex-wrap gap-2">
            <Button needs="plan" onClick={() => setReading(true)}>
              Add from a list
            </Button>
            <ColumnsMenu columns={columns} onChange={(next) => setView({ ...view, columns: next })} />
            <Button
              disabled={rows.length === 0}
              onClick={() => saveText('screens.csv', csvOf(csvRows(rows, columns, now)))}
            >
              Save as CSV
            </Button>
          </div>
          <div className="flex w-full flex-wrap items-center gap-2">
            <Choice
              label="State"
              all="All states"
              value={filter.state}
              values={STATES.map((state) => [state, STATE_WORDS[state]])}
              onChange={(state) => setFilter({ ...filter, state: state as State | null })}
            />
            <ProblemFilter value={filter.problem} onChange={(problem) => setFilter({ ...filter, problem })} />
            <Choice
              label="Profile"
              all="All profiles"
              value={filter.profile}
              values={names((row) => row.profile || UNKNOWN).map((name) => [name, name])}
              onChange={(profile) => setFilter({ ...filter, profile })}
            />
            <Choice
              label="Software"
              all="All software"
              value={filter.software}
              values={names((row) => row.overview?.software ?? UNKNOWN).map((name) => [name, name])}
              onChange={(software) => setFilter({ ...filter, software })}
            />
            <p className="text-faint" role="status">
              {isNarrowed ? `${rows.length} of ${counted(all.size, 'screen')}` : counted(all.size, 'screen')}
            </p>
            {isNarrowed && (
              <Button
                variant="quiet"
                onClick={() => {
                  setSearch('');
                  setFilter(EVERYTHING);
                }}
              >
                Show all
              </Button>
            )}
            {rows.length > 1 && (
              <Button variant="quiet" onClick={() => select(new Set(rows.map(({ screen }) => screen.id)))}>
                Choose {rows.length === 2 ? 'both' : `all ${rows.length}`}
              </Button>
            )}
          </div>
        </div>
        {draft.screens.length === 0 ? (
          <Empty title="No screens yet">Add a site and its screens first, by “By site”.</Empty>
        ) : rows.length === 0 ? (
          <p className="py-6 text-faint">No screen is like this.</p>
        ) : (
          <ScreensTable
            {...{ rows, columns, now: minute, selected, select }}
            sort={view.sort}
            onSort={(sort) => setView({ ...view, sort })}
          />
        )}
      </div>
      {chosen.length > 1 ? (
        <ScreensAside
          screens={chosen}
          sites={index.sites}
          status={statuses}
          putting={putting}
          onPut={setPutting}
          onOnly={(id) => select(new Set([id]))}
          onClose={close}
        />
      ) : (
        one && (
          <ScreenAside
            screen={one}
            site={index.sites.get(one.site)}
            joins={false}
            status={statuses.get(one.id)}
            putting={putting}
            onPut={setPutting}
            onClose={close}
          />
        )
      )}
    </div>
  );
}

/** Narrows the rows to one value of a field. */
function Choice({
  label,
  all,
  value,
  values,
  onChange,
}: {
  label: string;
  all: string;
  value: string | null;
  values: readonly (readonly [value: string, words: string])[];
  onChange: (value: string | null) => void;
}) {
  return (
    <Select
      aria-label={label}
      className={`!w-auto max-w-56 ${value === null ? '' : 'border-dusk font-semibold'}`}
      value={value ?? ''}
      onChange={({ target }) => onChange(target.value || null)}
    >
      <option value="">{all}</option>
      {values.map(([one, words]) => (
        <option key={one} value={one}>
          {words}
        </option>
      ))}
    </Select>
  );
}
