import { orThrow } from '../../refusal';
import { SAID_ON, phrasesWith } from '../../tests/phrases';
import { describeWhen, readWhen, readingsOf, type When } from '..';

/** What people write is read as they mean it, or refused with what to do; whole, and however it is spaced. */

/** A rule that leaves out no day is not said. */
const everyDay = (when: When): When =>
  'repeat' in when && when.repeat === 'FREQ=DAILY' ? { ...when, repeat: undefined } : when;

test.each(phrasesWith('means'))('$on, "$say"', ({ say, means, context }) => {
  expect(orThrow(readWhen(say, context))).toEqual(means);
  // What the form then says is read as the same.
  expect(orThrow(readWhen(describeWhen(means), context))).toEqual(everyDay(means));
});

test.each(phrasesWith('ways'))('$on, "$say" can be meant as $ways', ({ say, ways, context }) => {
  expect(readingsOf(say, context).map((when) => describeWhen(when))).toEqual(ways);
});

test.each(phrasesWith('also'))('$on, "$say" can also be meant as $also', ({ say, also, context }) => {
  expect(
    readingsOf(say, context)
      .slice(1)
      .map((when) => describeWhen(when)),
  ).toEqual(also);
});

test.each(phrasesWith('refused'))('$on, "$say" is refused: $refused', ({ say, refused, place, context }) => {
  expect(readWhen(say, context)).toMatchObject({
    ok: false,
    message: refused,
    ...(place === undefined ? {} : { problems: [{ message: refused, at: place }] }),
  });
});

test.each(phrasesWith('refused'))('$on, "$say" has no reading', ({ say, context }) => {
  expect(readingsOf(say, context)).toEqual([]);
});

/** Said at the usual time: enough of all kinds, as these two try each in many ways. */
const USUAL = phrasesWith('means').filter(({ on }) => on === SAID_ON);

test.each(USUAL)('"$say" means the same however it is spaced and capitalised', (row) => {
  const read = (text: string) => orThrow(readWhen(text, row.context));
  for (const written of [
    row.say.replaceAll(' ', '   '),
    `  ${row.say}\t`,
    row.say.toUpperCase(),
    row.say.toLowerCase(),
  ])
    expect(read(written)).toEqual(row.means);
});

/** A word that means nothing in any calendar. */
const WORD = 'zxq';

test.each(USUAL)('"$say" with a word that means nothing is refused', ({ say, context }) => {
  const words = say.split(' ');
  const places = Array.from({ length: words.length + 1 }, (_, i) => [...words.slice(0, i), WORD, ...words.slice(i)]);
  for (const written of [...places.map((list) => list.join(' ')), `${say}${WORD}`, `${WORD}${say}`]) {
    expect([written, readWhen(written, context).ok]).toEqual([written, false]);
    expect(readingsOf(written, context)).toEqual([]);
  }
});
