import { rows } from '@/database';
import { newNetwork, useDatabase } from '../tests/database';
import { inTurn, inTurnMakingWay, inUrgentTurn, takeTurn } from '.';

useDatabase();

/** A door that is closed until somebody opens it. */
function door() {
  let open = () => {};
  const passed = new Promise<void>((done) => (open = done));
  return { open, passed };
}

/** Something long under way in a network, which stands still until `goOn`; and something urgent that comes meanwhile. */
async function meeting(kind: typeof inTurn) {
  const { networkId } = await newNetwork();
  const [begun, gate] = [door(), door()];
  const order: string[] = [];
  const long = kind(networkId, async (within) => {
    await takeTurn(networkId, within);
    order.push('long');
    begun.open();
    await gate.passed;
    await rows('UPDATE networks SET kept_days = kept_days + 1 WHERE id = $1', [networkId], within);
    return 'long';
  });
  await begun.passed;
  const urgent = inUrgentTurn(networkId, async () => {
    order.push('urgent');
    return 'urgent';
  });
  const days = async () =>
    (await rows<{ days: number }>('SELECT kept_days AS days FROM networks WHERE id = $1', [networkId]))[0]?.days;
  return { long, urgent, goOn: gate.open, order, days };
}

test('what is urgent puts aside what takes long: that begins again, and is done once', async () => {
  const { long, urgent, goOn, order, days } = await meeting(inTurnMakingWay);
  const before = (await days()) ?? 0;
  // The long one stands still all the while.
  expect(await urgent).toBe('urgent');
  goOn();
  expect(await long).toBe('long');
  expect(order).toEqual(['long', 'urgent', 'long']);
  expect(await days()).toBe(before + 1);
});

test('what does not make way is waited for', async () => {
  const { long, urgent, goOn, order } = await meeting(inTurn);
  // Others see it wait.
  for (;;) {
    const waiting = await rows(
      "SELECT 1 FROM pg_stat_activity WHERE datname = current_database() AND wait_event_type = 'Lock'",
    );
    if (waiting.length > 0) break;
  }
  expect(order).toEqual(['long']);
  goOn();
  expect(await Promise.all([long, urgent])).toEqual(['long', 'urgent']);
  expect(order).toEqual(['long', 'urgent']);
});

test('work that fails of itself is told at once, and what is cut again and again is given up', async () => {
  const { networkId } = await newNetwork();
  let times = 0;
  const failing = inTurnMakingWay(networkId, () => {
    times++;
    return Promise.reject(new Error('not today'));
  });
  await expect(failing).rejects.toThrow('not today');
  expect(times).toBe(1);
  const cut = inTurnMakingWay(networkId, () => {
    times++;
    return Promise.reject(Object.assign(new Error('terminating connection'), { code: '57P01' }));
  });
  await expect(cut).rejects.toThrow('terminating connection');
  expect(times).toBe(11);
});
