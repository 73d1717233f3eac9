import { describeWhen, parseDate, type LocalDate, type PhraseContext, type When } from '@/core/when';
import { readSaid } from './read-said';

const context: PhraseContext = {
  ...{ today: parseDate('2026-11-26') as LocalDate, time: 0, calendars: [], zones: ['Europe/Oslo'] },
};

test('nothing is always, and what is said is read', () => {
  expect(readSaid('  ', context)).toEqual({ ok: true, value: undefined });
  expect(readSaid('until 28 feb 2027', context)).toMatchObject({ ok: true, value: { to: '2027-02-28' } });
  expect(readSaid('until the ice', context)).toMatchObject({ ok: false });
});

test('what was said before stays what it was, though its words would mean another day today', () => {
  const before: When = { from: '2026-01-05', repeat: 'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO' };
  const said = describeWhen(before);
  expect(readSaid(` ${said} `, context, before)).toEqual({ ok: true, value: before });
});
