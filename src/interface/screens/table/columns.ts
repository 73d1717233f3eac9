import { STATES_BY_NEED, type Facts } from '@/core/health';
import type { Screen } from '@/core/plan';
import { describeWhen } from '@/core/when';
import { STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { dateTime, megabytes, spell } from '@/interface/kit/words/format';
import type { ScreenOverview } from '@/services/health';

/** All that the table says of a screen. */
export interface Row {
  readonly screen: Screen;
  /** Names; empty where there is none. */
  readonly site: string;
  readonly profile: string;
  readonly zone: string;
  /** The tags of its site. */
  readonly siteTags: readonly string[];
  readonly facts: Facts;
  readonly overview: ScreenOverview | undefined;
}

interface Column {
  readonly name: string;
  /** In pixels. */
  readonly width: number;
  /** What is written in a cell, and in a CSV file. `now` is in milliseconds. */
  text(row: Row, now: number): string;
  /** What rows are sorted by, where that isn't the text; null comes last. */
  order?(row: Row): number | null;
  /** Whether it is shown unless a person says otherwise. */
  readonly usual?: true;
}

const columns = <K extends string>(table: Record<K, Column>): Readonly<Record<K, Column>> => table;

/** The columns of the table, in their order. The screen's name is always shown. */
export const COLUMNS = columns({
  screen: { name: 'Screen', width: 220, text: ({ screen }) => screen.name, usual: true },
  state: {
    name: 'State',
    width: 110,
    text: ({ facts }) => STATE_WORDS[facts.state],
    order: ({ facts }) => STATES_BY_NEED.indexOf(facts.state),
    usual: true,
  },
  since: {
    name: 'Since',
    width: 110,
    text: ({ facts }, now) => (facts.since === null ? '' : spell(Math.max(0, now - facts.since))),
    order: ({ facts }) => facts.since,
    usual: true,
  },
  site: { name: 'Site', width: 180, text: ({ site }) => site, usual: true },
  trouble: { name: 'Trouble', width: 320, text: ({ facts }) => facts.troubles.join(' '), usual: true },
  tags: {
    name: 'Tags',
    width: 180,
    text: ({ screen, siteTags }) => [...new Set([...(screen.tags ?? []), ...siteTags])].join(', '),
    usual: true,
  },
  size: {
    name: 'Size',
    width: 120,
    text: ({ screen }) => `${screen.width} × ${screen.height}`,
    order: ({ screen }) => screen.width * screen.height,
    usual: true,
  },
  profile: { name: 'Profile', width: 200, text: ({ profile }) => profile, usual: true },
  lastSeen: {
    name: 'Last online',
    width: 150,
    text: ({ facts: { lastSeen, state }, zone }) =>
      lastSeen !== null ? dateTime(lastSeen, zone) : state === 'unpaired' || state === 'dark' ? '' : 'now',
    order: ({ facts: { lastSeen, state } }) => lastSeen ?? (state === 'unpaired' || state === 'dark' ? null : Infinity),
  },
  software: { name: 'Software', width: 220, text: ({ overview }) => overview?.software ?? '' },
  clock: {
    name: 'Clock',
    width: 110,
    text: ({ facts: { clockMs } }) =>
      clockMs === null
        ? ''
        : Math.abs(clockMs) < 1000
          ? 'right'
          : `${spell(Math.abs(clockMs))} ${clockMs > 0 ? 'slow' : 'fast'}`,
    order: ({ facts }) => facts.clockMs,
  },
  storage: {
    name: 'Storage free',
    width: 130,
    text: ({ facts, overview }) =>
      facts.freeStorage === null || !overview?.limitBytes
        ? ''
        : `${Math.round(facts.freeStorage * 100)} % of ${megabytes(overview.limitBytes)}`,
    order: ({ facts }) => facts.freeStorage,
  },
  temperature: {
    name: 'Temperature',
    width: 120,
    text: ({ overview }) => (overview?.temperature == null ? '' : `${Math.round(overview.temperature)} °C`),
    order: ({ overview }) => overview?.temperature ?? null,
  },
  lightsOut: {
    name: 'Lights out',
    width: 220,
    text: ({ screen }) => (screen.lightsOut ?? []).map((when) => describeWhen(when)).join('; '),
  },
  pictures: {
    name: 'Pictures',
    width: 130,
    text: ({ screen }) =>
      screen.private ? 'private' : screen.glimpseMinutes ? `every ${screen.glimpseMinutes} min` : 'when asked',
  },
  notes: { name: 'Notes', width: 260, text: ({ screen }) => screen.notes ?? '' },
});

export type ColumnKey = keyof typeof COLUMNS;
export const COLUMN_KEYS = Object.keys(COLUMNS) as ColumnKey[];
export const USUAL: readonly ColumnKey[] = COLUMN_KEYS.filter((key) => COLUMNS[key].usual);

/** By which column rows are sorted, and which way. */
export interface Sort {
  readonly by: ColumnKey;
  readonly down: boolean;
}

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Rows in the order of a column; what isn't known comes last either way, and equal ones stay as they were. */
export function sorted(rows: readonly Row[], { by, down }: Sort): readonly Row[] {
  const { order, text } = COLUMNS[by] as Column;
  const keyed = rows.map((row) => ({ row, key: order ? order(row) : text(row, 0) || null }));
  const sign = down ? -1 : 1;
  keyed.sort(({ key: a }, { key: b }) => {
    if (a === null || b === null) return Number(a === null) - Number(b === null);
    return sign * (typeof a === 'number' && typeof b === 'number' ? a - b : collator.compare(String(a), String(b)));
  });
  return keyed.map(({ row }) => row);
}

/** The rows as they are written into a CSV file, with the ids of the screens first. */
export const csvRows = (rows: readonly Row[], shown: readonly ColumnKey[], now: number): string[][] => [
  ['Id', ...shown.map((key) => COLUMNS[key].name)],
  ...rows.map((row) => [row.screen.id, ...shown.map((key) => COLUMNS[key].text(row, now))]),
];
