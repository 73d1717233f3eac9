import { newNetwork, useDatabase } from '@/services/tests/database';
import { onBehalfOf, rows, transaction } from '.';

useDatabase();

test('a network that asks for many connections leaves some to the others, and gets all of its answers', async () => {
  const [busy, other] = [await newNetwork(), await newNetwork()];
  let open = () => {};
  const gate = new Promise<void>((done) => (open = done));
  let held = 0;
  let most = 0;
  const holding = Array.from({ length: 30 }, (_, i) =>
    onBehalfOf(busy.networkId, () =>
      transaction(async (within) => {
        most = Math.max(most, ++held);
        await rows('SELECT 1', [], within);
        await gate;
        held--;
        return i;
      }),
    ),
  );
  // More than what the pool has would wait for one of these to end, which waits for this.
  const answers = await Promise.all(
    Array.from({ length: 20 }, () => onBehalfOf(other.networkId, () => rows<{ one: number }>('SELECT 1 AS one'))),
  );
  expect(answers).toEqual(Array(20).fill([{ one: 1 }]));
  expect(await rows('SELECT 1 AS one')).toEqual([{ one: 1 }]);
  open();
  expect(await Promise.all(holding)).toEqual(Array.from({ length: 30 }, (_, i) => i));
  expect(most).toBe(6);
});

test('what asks inside a transaction waits for nobody, and a refusal gives the share back', async () => {
  const { networkId } = await newNetwork();
  const nested = () => onBehalfOf(networkId, () => transaction(() => rows<{ one: number }>('SELECT 1 AS one')));
  expect(await Promise.all(Array.from({ length: 5 }, nested))).toEqual(Array(5).fill([{ one: 1 }]));
  const failing = Array.from({ length: 20 }, () => onBehalfOf(networkId, () => rows('SELECT no such thing')));
  expect((await Promise.allSettled(failing)).every((one) => one.status === 'rejected')).toBe(true);
  expect(await onBehalfOf(networkId, () => rows('SELECT 1 AS one'))).toEqual([{ one: 1 }]);
});
