import { fork, type ChildProcess } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { orThrow } from '@/core/refusal';
import { compile } from '../editions/compile';
import { draftPlan, lastChange } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { serveTasks, think } from '.';
import { Thinker, type Answered, type Question } from './thinker';

useDatabase();

const folder = mkdtempSync(join(tmpdir(), 'lanternpost-thinker-'));
let programs = 0;

/** A process that does something of its own with what it is asked. */
function beside(body: string): ChildProcess {
  const path = join(folder, `${++programs}.cjs`);
  writeFileSync(path, `process.on('message', (asked) => { ${body} }); process.on('disconnect', () => process.exit());`);
  return fork(path, [], { serialization: 'advanced', execArgv: ['--max-old-space-size=40'], silent: true });
}
const ECHO = 'process.send({ id: asked.id, result: { ok: true, value: asked.name + asked.args.length } })';
const actor = { networkId: 'n', personId: null, name: '', may: [] };

test('without a process beside a task is done here', async () => {
  const ida = await newNetwork();
  await newPlan(ida);
  const change = await lastChange(ida.networkId);
  expect(await think('docketSums', ida)).toEqual({ change, entries: expect.any(Number) as number, screens: 2 });
  expect(await think('publishEdition', ida, change)).toEqual({ number: 1 });
  expect((await think('glancesAt', ida, Date.now())).map((one) => one.screen).sort()).toEqual(['deck', 'hall']);
  await expect(think('publishEdition', ida, change - 1)).rejects.toMatchObject({ status: 409 });
});

test('the other end answers with values, and with refusals by their sentences', async () => {
  const ida = await newNetwork();
  await newPlan(ida);
  let ask: (asked: Question) => void = () => {};
  const answers: Answered[] = [];
  const answered = (id: number) =>
    new Promise<Answered>((done) => {
      const look = () => {
        const found = answers.find((one) => one.id === id);
        if (found) done(found);
        else setImmediate(look);
      };
      look();
    });
  serveTasks({ on: (_, hear) => (ask = hear), send: (one) => answers.push(one) });
  ask({ id: 1, name: 'docketSums', args: [ida] });
  ask({ id: 2, name: 'publishEdition', args: [ida, -1] });
  ask({ id: 3, name: 'publishAgain', args: [{ ...ida, networkId: 'no uuid' }, 1] });
  expect(await answered(1)).toEqual({ id: 1, result: { ok: true, value: expect.objectContaining({ screens: 2 }) } });
  expect((await answered(2)).result).toMatchObject({
    ok: false,
    status: 409,
    message: expect.stringMatching(/The plan has changed since you opened this page./),
  });
  // What the database does not take is told as what it is, and not as a fault.
  expect((await answered(3)).result).toMatchObject({ ok: false, status: 422 });
});

test('a process beside answers each who asked', async () => {
  const thinker = new Thinker(() => beside(ECHO));
  expect(await Promise.all([thinker.ask('docket', [actor]), thinker.ask('publishEdition', [actor, 1])])).toEqual([
    { ok: true, value: 'docket1' },
    { ok: true, value: 'publishEdition2' },
  ]);
  thinker.close();
});

const ENOUGH = 60_000;
test.each([
  ['ends', 'process.exit(1)', /This was interrupted./, ENOUGH],
  ['fails', "throw new Error('no more')", /This was interrupted./, ENOUGH],
  // It looks for memory for seconds before it gives up.
  ['takes all memory', 'const all = []; for (;;) all.push({ one: [all.length] })', /This was interrupted./, ENOUGH],
  ['stands still', 'for (;;);', /too long/, 4000],
])('one that %s: who waits is told, and the next is answered by a new one', async (_, body, message, limit) => {
  let started = 0;
  const thinker = new Thinker(() => {
    started++;
    return beside(started > 1 ? ECHO : body);
  }, limit);
  expect(await thinker.ask('docket', [actor])).toMatchObject({
    ...{ ok: false, status: 503 },
    message: expect.stringMatching(message),
  });
  expect(await thinker.ask('docket', [actor])).toEqual({ ok: true, value: 'docket1' });
  expect(started).toBe(2);
  thinker.close();
});

test('a plan that takes longer than its deadline is given up with a sentence', async () => {
  const ida = await newNetwork();
  await newPlan(ida);
  const { plan } = await draftPlan(ida);
  orThrow(await compile(plan));
  await expect(compile(plan, undefined, 0, -1)).rejects.toMatchObject({
    status: 503,
    message: expect.stringMatching(/Make it smaller/),
  });
});
