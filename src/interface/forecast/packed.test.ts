import type { Finding } from '@/core/preflight';
import { pack, unpack } from './packed';

test.each([[[]], [['hall']], [['hall', 'deck-2']]])('a finding about %j comes out as it went in', (screens) => {
  const finding: Finding = {
    kind: 'gap',
    severity: 'error',
    about: ['b'],
    screens,
    times: [],
    span: [1, 2],
    sentence: 'Nothing is booked.',
    advice: 'Book something.',
    fixes: [],
  };
  expect(structuredClone(pack(finding)).screens).toBe(screens.join(' '));
  expect(unpack(structuredClone(pack(finding)))).toEqual(finding);
});
