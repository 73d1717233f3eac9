import { weaveWords } from './say';
import { readWeave, type Weave } from './weave';

test.each<[string, Weave | undefined]>([
  [' ', undefined],
  ['10 %', { share: 0.1 }],
  ['12,5% of the time', { share: 0.125 }],
  ['90 percent', { share: 0.9 }],
  ['0.1 %', { share: 0.001 }],
  ['every 5 min', { every: 300_000 }],
  ['once every minute', { every: 60_000 }],
  ['Every 1:30', { every: 90_000 }],
  ['every 10', { every: 10_000 }],
])('%j is %j', (text, weave) => {
  expect(readWeave(text)).toEqual({ ok: true, value: weave });
});

test.each([
  ['91 %', 'A share is from 0.1 % to 90 %.'],
  ['0 %', 'A share is from 0.1 % to 90 %.'],
  ['often', 'Write a share like 10 %, or how often it comes, like every 5 min.'],
  ['every 9', 'It can come every 10 seconds at the most.'],
  ['every moon', '“moon” isn’t a duration. Write seconds as 12 or 2.5, or write 1:30, or 2 min.'],
])('%j is refused: %s', (text, message) => {
  expect(readWeave(text)).toMatchObject({ ok: false, message });
});

test.each<Weave>([{ share: 0.125 }, { share: 0.3 }, { every: 90_000 }, { every: 12_500 }])(
  '%j is read back',
  (weave) => {
    expect(readWeave(weaveWords(weave))).toEqual({ ok: true, value: weave });
  },
);
