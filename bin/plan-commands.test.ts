import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { draftPlan, edit } from '@/services/plan';
import { newNetwork, newPlan, useDatabase } from '@/services/testing/database';

useDatabase();
jest.setTimeout(60_000);

const folder = mkdtempSync(join(tmpdir(), 'lanternpost-cli-'));
const file = (name: string) => join(folder, name);
const lanternpost = (...args: string[]) =>
  spawnSync(process.execPath, ['bin/lanternpost.mjs', ...args], { encoding: 'utf8', env: process.env });

test('export, change, diff, check, why, import: a plan goes out and comes back with nothing lost', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const original = await draftPlan(actor);
  expect(lanternpost('export', '--out', file('plan.json')).status).toBe(0);
  expect(JSON.parse(readFileSync(file('plan.json'), 'utf8'))).toEqual(original.plan);

  await edit(actor, [
    { kind: 'screen', id: 'hall', document: null },
    { kind: 'playlist', id: 'more', document: { name: 'More', items: [] } },
  ]);
  const span = ['--from', '2026-12-01T00:00:00Z', '--to', '2026-12-02T00:00:00Z'];
  expect(lanternpost('export', '--out', file('after.json')).status).toBe(0);
  const diff = lanternpost('diff', '--before', file('plan.json'), '--after', file('after.json'), ...span);
  expect([diff.status, diff.stdout]).toEqual([
    1,
    'hall\n  2026-12-01T00:00Z to 2026-12-02T00:00Z  nothing → no such screen\n',
  ]);

  const check = lanternpost('check', '--plan', file('plan.json'), ...span, '--json');
  expect(check.status).toBe(1);
  expect(JSON.parse(check.stdout)).toMatchObject({
    findings: [
      {
        kind: 'gap',
        severity: 'error',
        screens: ['deck', 'hall'],
        span: ['2026-12-01T00:00:00.000Z', '2026-12-02T00:00:00.000Z'],
      },
    ],
  });
  const why = lanternpost('why', '--plan', file('plan.json'), '--screen', 'hall', '--at', '2026-12-01T06:00:00Z');
  expect([why.status, why.stdout]).toEqual([
    0,
    'Nothing, because no booking applies and no backdrop has anything to show.\n',
  ]);

  expect(lanternpost('import', '--plan', file('plan.json'))).toMatchObject({
    status: 0,
    stdout: expect.stringMatching(/^2 changes\./),
  });
  expect((await draftPlan(actor)).plan).toEqual(original.plan);
  writeFileSync(file('wrong.json'), JSON.stringify({ ...original.plan, bookings: [{ id: 'b' }] }));
  const refused = lanternpost('import', '--plan', file('wrong.json'));
  expect([refused.status, refused.stdout]).toEqual([2, '']);
  expect(JSON.parse(refused.stderr)).toMatchObject({
    errors: expect.arrayContaining([{ path: '/bookings/0/name', message: expect.any(String) }]),
  });
  expect((await draftPlan(actor)).plan).toEqual(original.plan);
});
