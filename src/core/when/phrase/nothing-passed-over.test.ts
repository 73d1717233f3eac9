import { orThrow } from '../../refusal';
import { SAID, SAID_CONTEXT } from '../../tests/said-phrases';
import { readWhen, readingsOf } from '..';

/** What is written is read whole: nothing of it is passed over, and how it is spaced or capitalised makes no difference. */

const read = (text: string) => orThrow(readWhen(text, SAID_CONTEXT));
/** A word that means nothing in any calendar. */
const WORD = 'zxq';

test.each(SAID)('"%s" means the same however it is spaced and capitalised', (text, meant) => {
  expect(read(text.replaceAll(' ', '   '))).toEqual(meant);
  expect(read(`  ${text}\t`)).toEqual(meant);
  expect(read(text.toUpperCase())).toEqual(meant);
  expect(read(text.toLowerCase())).toEqual(meant);
});

test.each(SAID)('"%s" with a word in it that means nothing is refused, wherever it stands', (text) => {
  const words = text.split(' ');
  const places = Array.from({ length: words.length + 1 }, (_, i) => [...words.slice(0, i), WORD, ...words.slice(i)]);
  for (const written of [...places.map((list) => list.join(' ')), `${text}${WORD}`, `${WORD}${text}`]) {
    expect([written, readWhen(written, SAID_CONTEXT).ok]).toEqual([written, false]);
    expect(readingsOf(written, SAID_CONTEXT)).toEqual([]);
  }
});
