import type { LoosePatch } from '@/core/plan';
import { refused } from '@/core/refusal';
import type { EditResult } from '@/services/plan';
import { editInBatches, inBatches } from './batches';

const patch = (name: string): LoosePatch => ({ kind: 'playlist', add: { name, items: [] } });
const many = (count: number) => Array.from({ length: count }, (_, i) => patch(`P${i}`));
const RESULT: EditResult = { change: 1, previous: 0, changes: [1], ids: [], patches: [], media: [], act: 'the act' };

test('parts have so many patches and characters at most, and together are the whole, in order', () => {
  expect(inBatches([])).toEqual([]);
  expect(inBatches(many(5), { patches: 2, characters: 1e6 }).map((part) => part.length)).toEqual([2, 2, 1]);
  const { length } = JSON.stringify(patch('P0'));
  expect(inBatches(many(5), { patches: 9, characters: 2 * length }).map((part) => part.length)).toEqual([2, 2, 1]);
  // One that is too large alone goes alone: the server tells what is wrong with it.
  expect(inBatches(many(2), { patches: 9, characters: 1 }).map((part) => part.length)).toEqual([1, 1]);
  expect(inBatches(many(1001)).flat()).toEqual(many(1001));
});

test('all parts go on with the act of the first, and what is made is told', async () => {
  const acts: (string | undefined)[] = [];
  const told: number[] = [];
  const edit = (_: readonly LoosePatch[], goesOn?: string) => {
    acts.push(goesOn);
    return Promise.resolve({ ok: true as const, value: RESULT });
  };
  const done = await editInBatches(many(1001), edit, (made) => told.push(made), new AbortController().signal);
  expect(done).toEqual({ made: 1001, refused: null });
  expect([acts, told]).toEqual([
    [undefined, 'the act', 'the act'],
    [400, 800, 1001],
  ]);
});

test('a refusal, or a wish to stop, ends it: what was made before is told', async () => {
  let calls = 0;
  const edit = () =>
    Promise.resolve(++calls === 2 ? refused([], 'Somebody removed it.', 409) : { ok: true as const, value: RESULT });
  expect(await editInBatches(many(1001), edit, () => {}, new AbortController().signal)).toEqual({
    made: 400,
    refused: 'Somebody removed it.',
  });
  const stop = new AbortController();
  calls = 2;
  expect(await editInBatches(many(1001), edit, () => stop.abort(), stop.signal)).toEqual({ made: 400, refused: null });
});
