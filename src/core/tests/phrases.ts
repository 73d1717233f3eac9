import { parseDate, type LocalDate, type LocalTime, type PhraseContext, type When } from '../when';
import { readRows } from './rows';

/** What people write of time, and what they mean: rows of `when/phrase/phrases.jsonl`. */
interface Row {
  /** When it is read: `2026-11-26 11:50`, or a day alone. */
  readonly on: string;
  readonly say: string;
  /** Calendars by their ids, where others are known than usual. */
  readonly calendars?: Readonly<Record<string, string>>;
  /** What it is read as. */
  readonly means?: When;
  /** All that it can be meant as, in words; or what else besides the first. */
  readonly ways?: readonly string[];
  readonly also?: readonly string[];
  /** Why it isn't read, and at which letter. */
  readonly refused?: string;
  readonly place?: number;
}

const USUAL = { 'storm-days': 'Storm timetable', 'public-holidays-norway': 'Public holidays, Norway' };

function contextOf({ on, calendars = USUAL }: Pick<Row, 'on' | 'calendars'>): PhraseContext {
  const [day = '', clock] = on.split(' ');
  const [hours = 0, minutes = 0] = (clock ?? '').split(':').map(Number);
  return {
    today: parseDate(day) as LocalDate,
    ...(clock === undefined ? {} : { time: ((hours * 60 + minutes) * 60_000) as LocalTime }),
    calendars: Object.entries(calendars).map(([id, name]) => ({ id, name })),
    zones: ['Europe/Oslo', 'America/New_York'],
  };
}

/** The usual time and calendars: a Thursday, ten to noon. */
export const SAID_ON = '2026-11-26 11:50';
export const SAID_CONTEXT = contextOf({ on: SAID_ON });

const ROWS = readRows<Row>('when/phrase/phrases.jsonl').map((row) => ({ ...row, context: contextOf(row) }));

type Of<K extends keyof Row> = (typeof ROWS)[number] & { readonly [P in K]-?: NonNullable<Row[P]> };

/** The rows that tell a thing: what a phrase means, in which ways it can be meant, or why it is refused. */
export const phrasesWith = <K extends keyof Row>(field: K): readonly Of<K>[] =>
  ROWS.filter((row): row is Of<K> => row[field] !== undefined);
