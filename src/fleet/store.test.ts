import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Asset } from '@/core/playing';
import { FleetStore } from './store';

const folder = mkdtempSync(join(tmpdir(), 'lanternpost-fleet-'));
afterAll(() => rmSync(folder, { recursive: true }));

const asset = (n: number) => ({ sha256: `hash-${n}`, bytes: n }) as Asset;

test('what is written at once is written one after the other, and the last state is the one that is kept', async () => {
  const path = join(folder, 'players', 'hall.json');
  const store = new FleetStore(path);
  const writes = Array.from({ length: 40 }, (_, n) =>
    n % 2 === 0 ? store.save({ token: `token-${n}` }) : store.complete(asset(n)),
  );
  expect((await Promise.allSettled(writes)).map(({ status }) => status)).toEqual(writes.map(() => 'fulfilled'));
  const again = new FleetStore(path);
  expect((await again.load()).token).toBe('token-38');
  expect((await again.files()).size).toBe(20);
});
