import { quoted, withPlaceTerms } from '../selector';
import { describeWhen } from '../when/words';
import type { OpeningHours, When } from '../when/schema';
import { CONTENTS, knownContent, type Content } from './contents';
import type { FieldWords, Names } from './kind';
import type { Weave } from './weave';

/** How values that several kinds have are spoken in sentences about changes. */

export const text = (label: string): FieldWords<string> => ({ label, say: (value) => `“${value}”` });
export const plain = (label: string): FieldWords<string | number> => ({ label, say: (value) => String(value) });
export const yesNo = (label: string): FieldWords<boolean> => ({
  label,
  say: (value) => (value ? 'yes' : 'no'),
  became: (value) => (value ? label : `no longer ${label}`),
});
export const tags: FieldWords<readonly string[]> = { label: 'tags', say: (list) => list.join(' ') || 'none' };
export const pixels = (label: string): FieldWords<number> => ({ label, say: (value) => `${value} px` });
export const when = (label: string): FieldWords<When> => ({ label, say: whenWords });
export const selector = (label: string): FieldWords<string> => ({ label, say: selectorWords });

/** A selector with sites and screens by their names. */
const selectorWords = (value: string, names: Names): string =>
  withPlaceTerms(value, (_term, kind, id) => {
    const name = names(kind, id);
    return name === id ? undefined : quoted(name);
  });

/** Milliseconds as "20 s", "1 min 30 s", "0.5 s". */
export function durationWords(ms: number): string {
  if (ms < 60_000) return `${ms / 1000} s`;
  const [minutes, rest] = [Math.floor(ms / 60_000), (ms % 60_000) / 1000];
  return rest === 0 ? `${minutes} min` : `${minutes} min ${rest} s`;
}
export const duration = (label = 'duration'): FieldWords<number> => ({ label, say: durationWords });

/** A weave in words: "12.5 % of the time", "every 5 min". */
export const weaveWords = (weave: Weave): string =>
  'share' in weave ? `${Math.round(weave.share * 1000) / 10} % of the time` : `every ${durationWords(weave.every)}`;

/** A `When` in words, its calendars by their names. */
export const whenWords = (value: When, names: Names) => describeWhen(value, (id) => names('calendar', id));

export const content = (label: string): FieldWords<Content> => ({ label, say: contentWords });

export function contentWords(value: Content, names: Names): string {
  const { kind, id, durationMs } = knownContent(value);
  const time = CONTENTS[kind].timed && durationMs !== undefined ? ` for ${durationWords(durationMs)}` : '';
  return `“${names(kind, id)}”${time}`;
}

/** Opening hours by weekday; days alike are joined: "MO–FR 05:30–22:00, SA SU closed". */
export function hoursWords({ weekly = {}, dates = {} }: OpeningHours): string {
  const spoken = (periods: readonly (readonly [string, string])[] | undefined) =>
    periods && periods.length > 0 ? periods.map(([opens, closes]) => `${opens}–${closes}`).join(' ') : 'closed';
  const days = (['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const).map((day) => [day, spoken(weekly[day])] as const);
  const groups = new Map<string, string[]>();
  for (const [day, words] of days) groups.set(words, [...(groups.get(words) ?? []), day]);
  const weeks = [...groups].map(([words, list]) =>
    list.length === 7 ? `daily ${words}` : `${list.join(' ')} ${words}`,
  );
  return [...weeks, ...Object.entries(dates).map(([date, periods]) => `${date} ${spoken(periods)}`)].join(', ');
}
