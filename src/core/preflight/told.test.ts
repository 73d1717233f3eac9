import { formatInstant, parseInstant } from '../instant';
import { orThrow } from '../refusal';
import { readPlan, withPatches } from '../plan';
import { readRows } from '../tests/rows';
import { findings, type Finding } from '.';
import { smallPlan } from '../tests/small-plan';

/** What findings say, word for word, and where the line is between what is told and what is not: the rows of `told.jsonl`. */

interface Row {
  readonly what: string;
  /** What is added to the plan. */
  readonly given: {
    readonly network?: object;
    readonly profiles?: readonly object[];
    readonly screens?: Readonly<Record<string, object>>;
    readonly playlists?: readonly object[];
    readonly bookings?: readonly { readonly id: string }[];
  };
  /** All that is found, with labels for fixes. */
  readonly findings: readonly object[];
}
const rows = readRows<Row>('preflight/told.jsonl');

const at = (text: string) => parseInstant(text) as number;
const [from, to] = [at('2026-12-01T00:00:00Z'), at('2026-12-08T00:00:00Z')];
const hours = {
  weekly: Object.fromEntries(['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'].map((day) => [day, [['06:00', '22:00']]])),
};

/** Halls a and b with opening hours of 06 to 22, a deck without; a backdrop; and what a row adds. */
const planOf = ({ network, profiles = [], screens, playlists = [], bookings = [] }: Row['given']) =>
  smallPlan({
    profiles,
    playlists,
    network: { ...(network ?? { backdrop: { media: 'flag' } }) },
    sites: [
      { id: 'quay', name: 'Quay', timeZone: 'UTC', hours },
      { id: 'sea', name: 'Sea', timeZone: 'UTC' },
    ],
    screens: ['a', 'b', 'deck'].map((id) => ({
      ...{ id, name: id, site: id === 'deck' ? 'sea' : 'quay', width: 2, height: 1 },
      ...{ tags: id === 'deck' ? ['deck'] : ['hall', id] },
      ...screens?.[id],
    })),
    media: ['flag', 'card', 'film', 'gone'].map((id) => ({
      ...{ id, name: id.toUpperCase(), kind: 'image', width: 1, height: 1, bytes: 1, added: '2026-01-01T00:00:00Z' },
      ...(id === 'gone' ? { when: { to: '2026-01-01' } } : {}),
    })),
    bookings: bookings.map((one, i) => ({
      ...{
        name: one.id.toUpperCase(),
        content: { media: 'card' },
        where: 'hall',
        created: `2026-01-01T00:0${i}:00Z`,
      },
      ...one,
    })),
  });

/** A finding with its fixes' labels in place of what they change. */
const whole = ({ fixes, times: _, span, ...rest }: Finding) => ({
  ...{ ...rest, span: span?.map((one) => formatInstant(one)) ?? null },
  fixes: fixes.map((fix) => fix.label),
});

test.each(rows)('$what', ({ given, findings: expected }) => {
  expect(findings(planOf(given), from, to).map(whole)).toEqual(expected);
});

test.each(rows.filter((row) => row.findings.length > 0))(
  'what is found is over by each of its fixes: $what',
  ({ given }) => {
    const plan = planOf(given);
    for (const { fixes, kind, about, screens } of findings(plan, from, to))
      for (const { edits } of fixes) {
        const fixed = orThrow(readPlan(withPatches(plan, edits)));
        expect(findings(fixed, from, to)).not.toContainEqual(expect.objectContaining({ kind, about, screens }));
      }
  },
);

test('swapped hours of screens are swapped back for all of them', () => {
  const { given } = rows.find(({ what }) => what.includes('told once for screens of one site')) as Row;
  expect(findings(planOf(given), from, to)[0]?.fixes[0]?.edits.map((one) => one.id)).toEqual(['a', 'b']);
});
