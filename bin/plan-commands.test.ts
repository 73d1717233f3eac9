import { planFile } from '@/core/plan';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { draftPlan, edit } from '@/services/plan';
import { newNetwork, newPlan, useDatabase } from '@/services/tests/database';

useDatabase();
jest.setTimeout(60_000);

const folder = mkdtempSync(join(tmpdir(), 'lanternpost-cli-'));
const file = (name: string) => join(folder, name);
const lanternpost = (...args: string[]) =>
  spawnSync(process.execPath, ['bin/lanternpost.mjs', ...args], { encoding: 'utf8', env: process.env });

test('when reads a time as one says it, at an instant on a clock; or says what is wrong', () => {
  const at = ['--at', '2026-11-26T10:50:00Z', '--zone', 'Europe/Oslo'];
  const said = lanternpost('when', 'until 20:00', ...at);
  expect(said.status).toBe(0);
  expect(JSON.parse(said.stdout)).toEqual({
    when: { from: '2026-11-26', to: '2026-11-26', windows: [['11:50', '20:00']] },
    said: '11:50–20:00, 26 Nov 2026',
    or: [{ when: { from: '2026-11-26', windows: [['00:00', '20:00']] }, said: 'daily 00:00–20:00, from 26 Nov 2026' }],
  });
  // Half an hour before midnight by UTC it is the next day in Oslo.
  expect(
    JSON.parse(lanternpost('when', 'today', '--at', '2026-11-26T23:30:00Z', '--zone', 'Europe/Oslo').stdout),
  ).toEqual({
    when: { from: '2026-11-27', to: '2026-11-27' },
    said: '27 Nov 2026',
  });
  const wrong = lanternpost('when', 'wekdays 9-17', ...at);
  expect([wrong.status, JSON.parse(wrong.stdout)]).toEqual([
    1,
    { problem: '“wekdays” isn’t understood. Did you mean “weekdays”?' },
  ]);
  expect(lanternpost('when').status).toBe(2);
  expect(
    lanternpost('when', 'today', '--zone', 'Mars/Base').stdout +
      lanternpost('when', 'today', '--zone', 'Mars/Base').stderr,
  ).toContain('isn’t a time zone');
});

test('export, change, diff, check, why, import: a plan goes out and comes back with nothing lost', async () => {
  const actor = await newNetwork();
  await newPlan(actor);
  const original = await draftPlan(actor);
  expect(lanternpost('export', '--out', file('plan.json')).status).toBe(0);
  expect(JSON.parse(readFileSync(file('plan.json'), 'utf8'))).toEqual(planFile(original.plan));

  await edit(actor, [
    { kind: 'screen', id: 'hall', remove: true },
    { kind: 'playlist', id: 'more', add: { name: 'More', items: [] } },
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
  expect((await draftPlan(actor)).plan).toEqual(planFile(original.plan));
  writeFileSync(file('wrong.json'), JSON.stringify({ ...original.plan, bookings: [{ id: 'b' }] }));
  const refused = lanternpost('import', '--plan', file('wrong.json'));
  expect([refused.status, refused.stdout]).toEqual([2, '']);
  expect(JSON.parse(refused.stderr)).toMatchObject({
    errors: expect.arrayContaining([{ path: '/bookings/0/name', message: expect.any(String) }]),
  });
  expect((await draftPlan(actor)).plan).toEqual(planFile(original.plan));
});

test('a week of airtime, what never shows, and the bookings as iCalendar and back', async () => {
  const plan = file('small.json');
  writeFileSync(
    plan,
    JSON.stringify({
      format: 'lanternpost/plan',
      version: 1,
      network: { name: 'N' },
      sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo' }],
      screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 2, height: 1, tags: ['hall'] }],
      media: ['a', 'b'].map((id) => ({
        id,
        name: id,
        kind: 'image',
        width: 1,
        height: 1,
        bytes: 1,
        added: '2026-01-01T00:00:00Z',
      })),
      playlists: [{ id: 'loop', name: 'Loop', items: [{ media: 'a', durationMs: 60_000 }] }],
      bookings: [
        {
          id: 'morning',
          name: 'Morning',
          content: { playlist: 'loop' },
          where: 'hall',
          created: '2026-01-01T00:00:00Z',
          when: { from: '2026-12-01', to: '2026-12-02', windows: [['05:30', '10:00']] },
        },
      ],
    }),
  );
  const span = ['--from', '2026-12-01T00:00:00Z', '--to', '2026-12-08T00:00:00Z'];
  expect(lanternpost('airtime', '--plan', plan, '--playlist', 'loop', ...span).stdout).toBe(
    'hall: 9.00 h, 540 plays, first 2026-12-01T04:30:00.000Z\n',
  );
  expect(lanternpost('airtime', '--plan', plan, ...span).stdout).toBe('media b: not used\n');
  // By its name too, in any case; what there is not is told with the nearest.
  expect(lanternpost('airtime', '--plan', plan, '--booking', 'MORNING', ...span).stdout).toContain('hall: 9.00 h');
  const missing = lanternpost('airtime', '--plan', plan, '--playlist', 'lopp', ...span);
  expect([missing.status, missing.stderr]).toEqual([
    2,
    expect.stringContaining('The plan has no playlist “lopp”. Did you mean “loop”?'),
  ]);

  const written = lanternpost('ics', '--plan', plan, '--where', 'hall', '--site', 'quay');
  expect(written.stdout).toContain('DTSTART;TZID=Europe/Oslo:20261201T053000\r\n');
  writeFileSync(file('bookings.ics'), written.stdout);
  const read = lanternpost('ics', '--plan', plan, '--read', file('bookings.ics'));
  expect([read.status, read.stderr]).toEqual([0, '']);
  expect(JSON.parse(read.stdout)).toMatchObject({
    bookings: [
      {
        name: 'Morning (2)',
        content: { playlist: 'loop' },
        where: 'hall',
        when: { from: '2026-12-01', repeat: 'FREQ=DAILY;UNTIL=20261202', windows: [['05:30', '10:00']] },
      },
    ],
  });
  writeFileSync(file('bad.ics'), 'hello');
  const bad = lanternpost('ics', '--plan', plan, '--read', file('bad.ics'));
  expect([bad.status, bad.stderr]).toEqual([1, 'line 1: This isn’t a calendar file: it has no BEGIN:VCALENDAR.\n']);
});

test('every command tells its usage', () => {
  const { stdout } = lanternpost('--help');
  const names = [...stdout.matchAll(/^ {2}(\w+) /gm)].map((match) => match[1] ?? '');
  expect(names).toEqual(
    expect.arrayContaining([
      ...['forecast', 'why', 'check', 'diff', 'airtime', 'export', 'import', 'ics', 'schema', 'playlist', 'smil'],
    ]),
  );
  for (const name of ['forecast', 'airtime', 'ics', 'schema'])
    expect(lanternpost(name, '--help').stdout).toContain(`Usage: lanternpost ${name}`);
});

test('who reads only the beginning, as `head` does, ends a command without a word', () => {
  const added = '2026-01-01T00:00:00Z';
  const plan = {
    ...{ format: 'lanternpost/plan', version: 1, network: { name: 'N', backdrop: { playlist: 'loop' } } },
    sites: [{ id: 'quay', name: 'Quay', timeZone: 'UTC' }],
    screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 1, height: 1 }],
    media: ['a', 'b'].map((id) => ({ id, name: id, kind: 'image', width: 1, height: 1, bytes: 1, added })),
    playlists: [{ id: 'loop', name: 'Loop', items: [{ media: 'a' }, { media: 'b' }] }],
  };
  writeFileSync(file('loop.json'), JSON.stringify(plan));
  const week = '--from 2026-12-01T00:00:00Z --to 2026-12-08T00:00:00Z';
  const command = `"${process.execPath}" bin/lanternpost.mjs forecast --plan "${file('loop.json')}" --screen hall ${week} --plays | head -c 10`;
  const { stdout, stderr } = spawnSync('bash', ['-c', command], { encoding: 'utf8', env: process.env });
  expect([stdout.length, stderr]).toEqual([10, '']);
});
