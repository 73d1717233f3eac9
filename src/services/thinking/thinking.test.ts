import { Worker } from 'node:worker_threads';
import { orThrow } from '@/core';
import { compile } from '../editions/compile';
import { draftPlan, lastChange } from '../plan';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { serveTasks, think } from '.';
import { Thinker, type Answered, type Asked } from './thinker';

useDatabase();

/** A thread that answers after its own fashion: with what it was asked, or not at all, or by its end. */
const thread = (body: string) =>
  new Worker(
    `const { parentPort } = require('node:worker_threads'); parentPort.on('message', (asked) => { ${body} });`,
    {
      eval: true,
    },
  );
const ECHO = 'parentPort.postMessage({ id: asked.id, result: { ok: true, value: asked.name + asked.args.length } })';
const actor = { networkId: 'n', personId: null, name: '' };

test('without a thread a task is done here', async () => {
  const ida = await newNetwork();
  await newPlan(ida);
  const change = await lastChange(ida.networkId);
  expect(await think('docketSums', ida)).toEqual({ change, entries: expect.any(Number) as number, screens: 2 });
  expect(await think('publishEdition', ida, change)).toEqual({ number: 1 });
  expect((await think('glancesAt', ida, Date.now())).map((one) => one.screen).sort()).toEqual(['deck', 'hall']);
  await expect(think('publishEdition', ida, change - 1)).rejects.toMatchObject({ status: 409 });
});

test("the thread's end answers with values, and with refusals by their sentences", async () => {
  const ida = await newNetwork();
  await newPlan(ida);
  let ask: (asked: Asked) => void = () => {};
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
  serveTasks({
    on: ((_: string, hear: typeof ask) => (ask = hear)) as never,
    postMessage: (one: Answered) => answers.push(one),
  });
  ask({ id: 1, name: 'docketSums', args: [ida] });
  ask({ id: 2, name: 'publishEdition', args: [ida, -1] });
  ask({ id: 3, name: 'publishAgain', args: [{ ...ida, networkId: 'no uuid' }, 1] });
  expect(await answered(1)).toEqual({ id: 1, result: { ok: true, value: expect.objectContaining({ screens: 2 }) } });
  expect((await answered(2)).result).toMatchObject({
    ok: false,
    status: 409,
    message: expect.stringMatching(/review/),
  });
  // What the database does not take is told as what it is, and not as a fault.
  expect((await answered(3)).result).toMatchObject({ ok: false, status: 422 });
});

test('a thread answers each who asked', async () => {
  const thinker = new Thinker(() => thread(ECHO));
  expect(await Promise.all([thinker.ask('docket', [actor]), thinker.ask('publishEdition', [actor, 1])])).toEqual([
    { ok: true, value: 'docket1' },
    { ok: true, value: 'publishEdition2' },
  ]);
  await thinker.close();
});

test.each([
  ['ends', 'process.exit(1)'],
  ['fails', "throw new Error('no more')"],
  ['takes all memory', 'const all = []; for (;;) all.push({ one: [all.length] })'],
  ['stands still', 'for (;;);'],
])('a thread that %s: who waits is told, and the next is answered by a new one', async (_, body) => {
  let started = 0;
  const thinker = new Thinker(() => {
    started++;
    if (started > 1) return thread(ECHO);
    return new Worker(
      `const { parentPort } = require('node:worker_threads'); parentPort.on('message', () => { ${body} });`,
      { eval: true, resourceLimits: { maxOldGenerationSizeMb: 40 } },
    );
  }, 4000);
  expect(await thinker.ask('docket', [actor])).toMatchObject({ ok: false, status: 503 });
  expect(await thinker.ask('docket', [actor])).toEqual({ ok: true, value: 'docket1' });
  expect(started).toBe(2);
  await thinker.close();
});

test('a plan that takes longer than its deadline is given up with a sentence', async () => {
  const ida = await newNetwork();
  await newPlan(ida);
  const { plan } = await draftPlan(ida);
  orThrow(await compile(plan));
  await expect(compile(plan, undefined, 0, -1)).rejects.toMatchObject({
    status: 503,
    message: expect.stringMatching(/make it smaller/),
  });
});
