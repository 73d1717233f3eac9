import { formatInstant } from '../../instant';
import { startOfDate, toInstant, zoneTable, type LocalDate } from '../../when';

/** Changes of clocks are written for so many years: after them the last offset holds. */
const YEARS = 12;
const YEAR_MS = 366 * 86_400_000;

/**
 * A zone as a VTIMEZONE (RFC 5545 section 3.6.5), from a year before `from` on: every change of its clocks by date, as the zone's
 * own data has it. No rule is guessed from them, since zones change theirs.
 */
export function timezoneLines(zone: string, from: LocalDate): string[] {
  const table = zoneTable(zone);
  const begin = toInstant(table, startOfDate(from)) - YEAR_MS;
  const end = begin + YEARS * YEAR_MS;
  const before = table.changes.filter((at) => at <= begin).length;
  const observances = new Map<string, { from: number; to: number; daylight: boolean; walls: number[] }>();
  const observe = (wall: number, offsetFrom: number, offsetTo: number) => {
    const daylight = offsetTo > offsetFrom;
    const key = `${offsetFrom} ${offsetTo}`;
    const known = observances.get(key);
    if (known) known.walls.push(wall);
    else observances.set(key, { from: offsetFrom, to: offsetTo, daylight, walls: [wall] });
  };
  // What holds at the beginning is an observance too, in place of the change that brought it.
  const first = table.offsets[before] ?? 0;
  observe(begin + first, first, first);
  table.changes.forEach((at, i) => {
    if (at <= begin || at >= end) return;
    const [offsetFrom, offsetTo] = [table.offsets[i] ?? 0, table.offsets[i + 1] ?? 0];
    // DTSTART of an observance is the onset by the clock before it.
    observe(at + offsetFrom, offsetFrom, offsetTo);
  });
  return [
    'BEGIN:VTIMEZONE',
    `TZID:${zone}`,
    ...[...observances.values()].flatMap(({ from: offsetFrom, to, daylight, walls: [onset, ...rest] }) => {
      const name = daylight ? 'DAYLIGHT' : 'STANDARD';
      return [
        `BEGIN:${name}`,
        `DTSTART:${local(onset ?? 0)}`,
        `TZOFFSETFROM:${offsetText(offsetFrom)}`,
        `TZOFFSETTO:${offsetText(to)}`,
        ...(rest.length > 0 ? [`RDATE:${rest.map(local).join(',')}`] : []),
        `END:${name}`,
      ];
    }),
    'END:VTIMEZONE',
  ];
}

const local = (wall: number) => formatInstant(wall).slice(0, 19).replace(/[-:]/g, '');

function offsetText(ms: number): string {
  const seconds = Math.abs(ms) / 1000;
  const two = (n: number) => String(Math.floor(n)).padStart(2, '0');
  const tail = seconds % 60 === 0 ? '' : two(seconds % 60);
  return `${ms < 0 ? '-' : '+'}${two(seconds / 3600)}${two((seconds / 60) % 60)}${tail}`;
}
