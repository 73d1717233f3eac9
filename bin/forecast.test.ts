import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const [first, second] = readFileSync('src/core/forecast/cases.jsonl', 'utf8')
  .split('\n')
  .slice(0, 2)
  .map(
    (line) =>
      JSON.parse(line) as {
        request: { plan: object; screen: string; from: string; to: string; plays: boolean };
        answer: unknown;
      },
  );

const lanternpost = (args: string[], input = '') =>
  spawnSync(process.execPath, ['bin/lanternpost.mjs', ...args], { input, encoding: 'utf8' });

test('forecast prints what a screen of a plan file shows', () => {
  if (!first) throw new Error('no case');
  const file = join(mkdtempSync(join(tmpdir(), 'lanternpost-cli-')), 'plan.json');
  writeFileSync(file, JSON.stringify(first.request.plan));
  const { screen, from, to } = first.request;
  const out = execFileSync(
    process.execPath,
    ['bin/lanternpost.mjs', 'forecast', '--plan', file, '--screen', screen, '--from', from, '--to', to],
    { encoding: 'utf8' },
  );
  expect(JSON.parse(out)).toEqual(first.answer);
});

test('a plan with mistakes prints them on standard error and exits 2', () => {
  const { status, stdout, stderr } = lanternpost(
    ['forecast', '--plan', '-', '--screen', 'x', '--from', '2026-01-01T00:00:00Z', '--to', '2026-01-02T00:00:00Z'],
    '{"format":"lanternpost/plan","version":2}',
  );
  expect([status, stdout]).toEqual([2, '']);
  expect(JSON.parse(stderr)).toEqual({
    errors: expect.arrayContaining([
      { path: '/version', message: expect.stringContaining('This plan file has another version.') },
    ]),
  });
});

test('--batch answers line by line, a bad one too', () => {
  const lines = [
    JSON.stringify(first?.request),
    'no json',
    JSON.stringify({ ...second?.request, screen: 'gone' }),
    JSON.stringify(second?.request),
  ];
  const { status, stdout } = lanternpost(['forecast', '--plan', '-', '--batch'], lines.join('\n'));
  const answers = stdout
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as unknown);
  expect(status).toBe(0);
  expect(answers).toEqual([
    first?.answer,
    { errors: [{ path: '', message: expect.stringContaining('This isn’t JSON: ') }] },
    { errors: [{ path: '/screen', message: 'The plan has no screen “gone”.' }] },
    second?.answer,
  ]);
});

test('an unknown command or option says how to use it', () => {
  expect(lanternpost(['dance'])).toMatchObject({
    status: 2,
    stderr: 'There’s no command “dance”. Type lanternpost --help for the list.\n',
  });
  expect(lanternpost(['forecast', '--loud'])).toMatchObject({
    status: 2,
    stderr: expect.stringContaining('Usage: lanternpost forecast'),
  });
  expect(lanternpost(['fleet', '--help'])).toMatchObject({
    status: 0,
    stdout: expect.stringContaining('simulated players'),
  });
});
