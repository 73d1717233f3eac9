import { spawn, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { truncateSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { MediaFilesRow, UploadRow } from '@/database';
import { ProtocolClient } from '@/protocol/client';
import type { Report } from '@/protocol/schemas';
import { SimulatedPlayer } from '@/fleet';
import { publishEdition, publishedPrograms } from '@/services/editions';
import { processUpload } from '@/services/library';
import { storedPath } from '@/services/library/store';
import { draftPlan, edit, lastChange } from '@/services/plan';
import { pairScreen, screenStatuses } from '@/services/screens';
import { newNetwork, newPlan, useDatabase } from '@/services/tests/database';
import { film, picture, send } from '@/services/tests/files';

useDatabase();
jest.setTimeout(240_000);

const children: ChildProcess[] = [];
afterEach(async () => {
  for (const child of children.splice(0)) {
    if (child.exitCode !== null || child.signalCode !== null) continue;
    const ended = new Promise((done) => child.once('exit', done));
    child.kill('SIGKILL');
    await ended;
  }
});

/** Starts a command in a process of its own; resolves with it and the line that says that it runs. */
async function start(args: string[], sign: RegExp): Promise<{ child: ChildProcess; line: string }> {
  const child = spawn(process.execPath, ['bin/lanternpost.mjs', ...args], {
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, LANTERNPOST_LOG: 'info' },
  });
  children.push(child);
  const said: string[] = [];
  for await (const line of createInterface({ input: child.stderr as NodeJS.ReadableStream })) {
    said.push(line);
    if (sign.test(line)) {
      (child.stderr as NodeJS.ReadableStream).resume();
      return { child, line };
    }
  }
  throw new Error(`${args.join(' ')} ended: ${said.join('\n')}`);
}

async function gateway(): Promise<string> {
  const { line } = await start(['gateway', '--port', '0'], /gateway runs/);
  return `http://127.0.0.1:${(JSON.parse(line) as { port: number }).port}`;
}

/** Looks again until something holds. */
async function until<T>(look: () => Promise<T | false | null | undefined>): Promise<T> {
  for (let tries = 0; tries < 1200; tries++) {
    const found = await look();
    if (found) return found;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error('it never came to hold');
}

async function networkWithFlag() {
  const actor = await newNetwork();
  await newPlan(actor);
  const received = await send(actor, 'Flag.jpg', await picture(640, 360, '#E3A008'));
  if ('upload' in received) await processUpload(received.upload.id);
  await edit(actor, [
    { kind: 'playlist', id: 'house', set: { name: 'House', items: [{ media: 'flag' }] } },
    { kind: 'network', id: 'network', set: { name: 'Two gateways', backdrop: { playlist: 'house' } } },
  ]);
  return actor;
}

test('two server processes both reach every player, and either takes its reports', async () => {
  const actor = await networkWithFlag();
  const [one, two] = await Promise.all([gateway(), gateway()]);
  const programs = new Map<string, number>();
  const players = [one, two].map((server, i) => {
    const screen = i === 0 ? 'hall' : 'deck';
    const player = new SimulatedPlayer({
      server,
      onCode: (code) => void pairScreen(actor, screen, code, '127.0.0.1'),
      onProgram: (program) => program && programs.set(screen, (programs.get(screen) ?? 0) + 1),
    });
    return { player, ended: player.run() };
  });
  await until(async () => (await screenStatuses(actor)).every((status) => status.state === 'behind'));
  await publishEdition(actor, await lastChange(actor.networkId));
  await until(async () => programs.size === 2);
  await until(async () => (await screenStatuses(actor)).every((status) => status.state === 'lit'));

  // A second edition, published in this third process, reaches both by their event streams.
  await edit(actor, [
    {
      kind: 'booking',
      id: 'b',
      add: {
        name: 'B',
        content: { media: 'flag', durationMs: 5000 },
        where: 'all',
        created: '2026-01-01T00:00:00Z',
        when: {},
      },
    },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  await until(async () => [...programs.values()].every((count) => count === 2));
  players.forEach(({ player }) => player.stop());
  await Promise.all(players.map(({ ended }) => ended));
});

test('a gateway that is killed: its players go on with another', async () => {
  const actor = await networkWithFlag();
  await publishEdition(actor, await lastChange(actor.networkId));
  const { child, line } = await start(['gateway', '--port', '0'], /gateway runs/);
  const { port } = JSON.parse(line) as { port: number };
  let lit = false;
  const player = new SimulatedPlayer({
    server: `http://127.0.0.1:${port}`,
    onCode: (code) => void pairScreen(actor, 'hall', code, '127.0.0.1'),
    onProgram: (program) => (lit ||= program !== null),
  });
  const ended = player.run();
  await until(async () => lit);
  child.kill('SIGKILL');
  await edit(actor, [
    { kind: 'playlist', id: 'house', set: { name: 'House', items: [{ media: 'flag', durationMs: 3000 }] } },
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  await start(['gateway', '--port', String(port)], /gateway runs/);
  const wanted = (await publishedPrograms(actor.networkId)).get('hall');
  await until(async () =>
    (await screenStatuses(actor)).find((status) => status.id === 'hall' && status.state === 'lit'),
  );
  expect(wanted).toBeDefined();
  player.stop();
  await ended;
});

test('a worker that is killed in a film: another finishes it, once', async () => {
  const actor = await newNetwork();
  const received = await send(actor, 'Long.mp4', film(40, '1280x720'));
  if (!('upload' in received)) throw new Error('known');
  const { child } = await start(['worker'], /worker runs/);
  const upload = () => UploadRow.findByPk(received.upload.id);
  await until(async () => ((await upload())?.progress ?? 0) > 10);
  child.kill('SIGKILL');
  expect((await upload())?.state).toBe('working');
  await start(['worker'], /worker runs/);
  await until(async () => (await upload())?.state === 'ready');
  expect(await MediaFilesRow.count({ where: { networkId: actor.networkId } })).toBe(1);
  expect((await draftPlan(actor)).plan.media[0]).toMatchObject({ durationMs: 40_000 });
});

test('a file that turns out broken in the worker fails with a sentence', async () => {
  const actor = await newNetwork();
  const bytes = film(3, '640x360');
  const received = await send(actor, 'Noise.mp4', bytes);
  if (!('upload' in received)) throw new Error('known');
  // Receiving found it sound; by the time the worker takes it, a part of it is gone from the disk.
  truncateSync(storedPath(createHash('sha256').update(bytes).digest('hex')), Math.floor(bytes.length * 0.6));
  await start(['worker'], /worker runs/);
  const failed = await until(async () => {
    const row = await UploadRow.findByPk(received.upload.id);
    return row?.state === 'failed' && row;
  });
  expect(failed.error).toBe('This video is damaged or incomplete. Export it again, then upload it.');
  expect(await MediaFilesRow.count({ where: { networkId: actor.networkId } })).toBe(0);
});

test('heartbeats of many players come through one gateway', async () => {
  const actor = await networkWithFlag();
  const server = await gateway();
  const client = new ProtocolClient(server);
  const pairing = await client.startPairing();
  await pairScreen(actor, 'hall', pairing.user_code, '127.0.0.1');
  client.useToken(await client.collectToken(pairing.device_code));
  const report: Report = {
    state: 'empty',
    edition: null,
    program: null,
    playing: null,
    download: null,
    clockOffsetMs: 0,
    storage: null,
    errors: [],
    software: 'test',
  };
  await Promise.all(Array.from({ length: 50 }, () => client.heartbeat(report)));
  await until(async () =>
    (await screenStatuses(actor)).find((status) => status.id === 'hall' && status.state === 'behind'),
  );
});
