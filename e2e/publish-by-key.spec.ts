import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { planFile, type Plan } from '@/core/plan';
import { draft, ternholm } from './support/plan';
import { server, signIn } from './support/session';
import { expect, test } from './support/test';

/** A plan file in version control is checked and published by a program, by a personal key that may. */
test.describe.configure({ mode: 'serial' });

let page: Page;
const keys: Record<'files' | 'publishing', string> = { files: '', publishing: '' };
test.beforeAll(async ({ browser }) => {
  page = await browser.newPage();
  await signIn(page);
});
test.afterAll(() => page.close());

const folder = mkdtempSync(join(tmpdir(), 'lanternpost-by-key-'));
function lanternpost(command: string, ...args: string[]) {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ['bin/lanternpost.mjs', command, '--server', server('/'), ...args],
    { encoding: 'utf8', env: { ...process.env, LANTERNPOST_KEY: keys.publishing } },
  );
  return { status, said: stdout === '' ? null : (JSON.parse(stdout) as Record<string, unknown>), stderr };
}
const file = (plan: object, name = 'plan.json') => {
  writeFileSync(join(folder, name), JSON.stringify(plan));
  return join(folder, name);
};
const newest = async () => {
  const { editions } = await import('@/services/editions');
  return (await editions(await ternholm()))[0];
};
const withBooking = (plan: Plan, id: string, where = 'all'): Plan => ({
  ...plan,
  bookings: [
    ...plan.bookings,
    {
      ...{ id, name: id, content: { media: 'route-map' }, where, priority: 5, when: {} },
      created: '2026-01-01T00:00:00Z',
    },
  ],
});

test('a key is made that may publish; another may not', async () => {
  for (const name of ['files', 'publishing'] as const) {
    await page.goto(server('/people'));
    await page.getByLabel('What the new key is for').fill(name);
    const may = page.getByRole('checkbox', { name: 'Read and replace the plan, and publish' });
    await may.setChecked(name === 'publishing');
    await page.getByRole('button', { name: 'Create key' }).click();
    const shown = page.getByLabel(`The key ${name}`, { exact: true });
    await expect(shown).toHaveValue(/^lanternpost_/);
    keys[name] = await shown.inputValue();
  }
  await expect(page.getByText(/^library, publishing · made/)).toHaveCount(1);
});

test('without the right nothing of the plan is read, replaced or published', async ({ request }) => {
  const headers = { authorization: `Bearer ${keys.files}` };
  for (const path of ['/api/plan', '/api/docket', '/api/editions', '/api/editions/1'])
    expect((await request.get(server(path), { headers })).status()).toBe(403);
  expect((await request.put(server('/api/plan'), { headers, data: planFile(await draft()) })).status()).toBe(403);
  expect((await request.post(server('/api/editions'), { headers, data: { basedOn: 1 } })).status()).toBe(403);
  // Nor does a key that may publish open what is a person's own.
  const other = { authorization: `Bearer ${keys.publishing}` };
  expect((await request.get(server('/api/people'), { headers: other })).status()).toBe(403);
});

test('a plan file is checked against what is out: what looks different, and what is worse', async () => {
  const now = await draft();
  const same = lanternpost('preflight', '--plan', file(planFile(now)));
  expect(same).toMatchObject({ status: 0, said: { screens: 0, groups: [], findings: [], misfits: [], problems: [] } });
  const worse = withBooking(withBooking(now, 'one-more'), 'two-more');
  const { status, said } = lanternpost('preflight', '--plan', file(planFile(worse)), '--days', '1');
  expect([status, said?.screens]).toEqual([0, now.screens.length]);
  expect(said?.findings).toEqual(
    expect.arrayContaining([expect.objectContaining({ kind: 'clash', about: expect.arrayContaining(['two-more']) })]),
  );
  expect(said?.misfits).toContainEqual(
    expect.objectContaining({ media: 'route-map', fit: 'whole', size: { width: 1080, height: 1920 } }),
  );
  // It was a look: nothing was changed.
  expect(await draft()).toEqual(now);
});

test('it is published, with a note, by the name of whose key it is; and once', async () => {
  const before = (await newest())?.number ?? 0;
  const plan = file(planFile(withBooking(await draft(), 'by-program')));
  const published = lanternpost('publish', '--plan', plan, '--note', 'Commit 3f2a');
  expect(published).toMatchObject({ status: 0, said: { edition: before + 1, changes: 1 } });
  expect(await newest()).toMatchObject({ number: before + 1, note: 'Commit 3f2a', person: 'Ida Lunde' });
  expect(lanternpost('publish', '--plan', plan).said).toEqual({ edition: null, changes: 0, screens: 0 });
  const list = lanternpost('editions').said as unknown as { number: number }[];
  expect(list[0]).toMatchObject({ number: before + 1, note: 'Commit 3f2a', whole: true });
});

test('errors that it brings stop it, and nothing is changed, unless they may go out', async () => {
  const before = [await draft(), (await newest())?.number];
  const plan = file(planFile(withBooking(await draft(), 'nowhere-at-all', 'no-such-tag')));
  const stopped = lanternpost('publish', '--plan', plan);
  expect([stopped.status, stopped.said]).toEqual([1, null]);
  expect(stopped.stderr).toContain('“nowhere-at-all” reaches no screen');
  expect([await draft(), (await newest())?.number]).toEqual(before);
  expect(lanternpost('publish', '--plan', plan, '--despite-errors')).toMatchObject({ status: 0, said: { changes: 1 } });
  // They are no longer new, and stop nothing.
  expect(lanternpost('publish')).toMatchObject({ status: 0, said: { edition: null } });
  expect(lanternpost('publish', '--plan', file(planFile(before[0] as Plan)))).toMatchObject({ said: { changes: 1 } });
});

test('it is planned for an instant, and waits for it', async () => {
  const before = (await newest())?.number ?? 0;
  const plan = file(planFile(withBooking(await draft(), 'planned-by-program')));
  const at = new Date(Math.ceil(Date.now() / 1000) * 1000 + 3_600_000).toISOString();
  expect(lanternpost('publish', '--plan', plan, '--at', 'tomorrow').stderr).toContain('isn’t a time');
  const planned = lanternpost('publish', '--plan', plan, '--note', 'For later', '--at', at);
  expect(planned).toMatchObject({ status: 0, said: { edition: null, planned: at, changes: 1 } });
  expect((await newest())?.number).toBe(before);
  const { callOffPlanned, plannedEditions } = await import('@/services/editions');
  const [one] = await plannedEditions(await ternholm());
  expect(one).toMatchObject({ at, note: 'For later', person: 'Ida Lunde' });
  expect(lanternpost('publish', '--plan', plan).said).toMatchObject({ edition: null, changes: 0 });
  await callOffPlanned(await ternholm(), one?.id ?? '');
  // By the clocks at each site: in Iceland an hour after Norway, and two after Finland.
  const day = new Date(Date.now() + 48 * 3_600_000).toISOString().slice(0, 10);
  expect(lanternpost('publish', '--plan', plan, '--at', `${day}T06:00`)).toMatchObject({
    ...{ status: 0, said: { edition: null, planned: `${day}T06:00:00.000Z` } },
  });
  const [bySites] = await plannedEditions(await ternholm());
  expect(bySites).toMatchObject({ siteTime: `${day}T06:00:00` });
  await callOffPlanned(await ternholm(), bySites?.id ?? '');
  expect(lanternpost('publish', '--plan', plan).said).toMatchObject({ edition: before + 1 });
});

test('a file with mistakes, a file that is none, and a server that is none change nothing', async () => {
  const before = [await draft(), (await newest())?.number];
  const wrong = withBooking(await draft(), 'wrong');
  const dangling = { ...planFile(wrong), playlists: [{ id: 'x', name: 'X', items: [{ media: 'gone' }] }] };
  for (const path of [
    file(dangling, 'dangling.json'),
    file({ format: 'other' }, 'other.json'),
    join(folder, 'no.json'),
  ]) {
    const { status, stderr } = lanternpost('publish', '--plan', path);
    expect(status).toBe(2);
    expect((JSON.parse(stderr) as { errors: unknown[] }).errors).not.toEqual([]);
  }
  // A file that the library does not have: the server says so.
  const [media] = wrong.media;
  const unknown = { ...planFile(wrong), media: [...wrong.media, { ...media, id: 'odd', sha256: 'f'.repeat(64) }] };
  const refused = lanternpost('publish', '--plan', file(unknown, 'unknown.json'));
  expect(refused.status).toBe(2);
  expect(refused.stderr).toContain('isn’t in your library');
  expect(
    spawnSync(process.execPath, ['bin/lanternpost.mjs', 'publish', '--server', 'http://127.0.0.1:9', '--key', 'x'], {
      encoding: 'utf8',
    }).stderr,
  ).toContain('isn’t answering');
  expect([await draft(), (await newest())?.number]).toEqual(before);
});
