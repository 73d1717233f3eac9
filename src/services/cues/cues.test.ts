import { DAY, MINUTE, SECOND } from '@/core/instant';
import type { Content } from '@/core/plan';
import { rows, subscribe } from '@/database';
import { publishEdition } from '../editions';
import { addPerson, trail, type Actor } from '../people';
import { edit, lastChange, type Edit } from '../plan';
import { playerBackend } from '../screens';
import { useBus } from '../tests/bus';
import { newNetwork, newPlan, useDatabase } from '../tests/database';
import { pairedPlayer } from '../tests/players';
import { refusal } from '../tests/refusal';
import {
  boardsAccess,
  clearFirings,
  cuesOn,
  endBoardLink,
  fireCue,
  firingsWithin,
  floods,
  lastFired,
  makeBoardLink,
  noteFirings,
  openBoard,
  pressButton,
  pressByLink,
  setBoardPeople,
  writeFloods,
} from '.';

useDatabase();
useBus();

const INPUT: Content = { input: 'hdmi-1' };
const ADDRESS = '192.0.2.9';

/** The hall and the deck, a song on both, a television by key 2 in the hall, a way back by key 1, and a board; published. */
async function network(...more: Edit[]): Promise<Actor> {
  const actor = await newNetwork();
  await newPlan(actor);
  const waits = { priority: 5, created: '2026-01-01T00:00:00Z', content: INPUT };
  await edit(actor, [
    { kind: 'cue', id: 'song', add: { name: 'Song', lateMs: 30 * SECOND } },
    { kind: 'cue', id: 'ours', add: { name: 'Our programme', key: 1 } },
    { kind: 'cue', id: 'tv', add: { name: 'Television', key: 2 } },
    { kind: 'booking', id: 'song', add: { ...waits, name: 'Song', where: 'all', cue: 'song', forMs: 30 * SECOND } },
    { kind: 'booking', id: 'tv', add: { ...waits, name: 'TV', where: 'hall', cue: 'tv', forMs: 10 * MINUTE } },
    {
      kind: 'board',
      id: 'bridge',
      add: { name: 'Bridge', buttons: [{ cue: 'song', where: 'deck', colour: 'tide' }, { cue: 'tv' }] },
    },
    ...more,
  ]);
  await publishEdition(actor, await lastChange(actor.networkId));
  return actor;
}

const told = async (player: Parameters<typeof playerBackend.targetOf>[0]) =>
  ((await playerBackend.targetOf(player)).firings ?? []).map(({ cue, end }) => (end ? `end ${cue}` : cue));

/** Does something that fires or ends a cue, and waits until this process has heard of it, as a gateway would. */
async function heard<T>(work: Promise<T>): Promise<T> {
  const message = new Promise<void>((come) => {
    const stop = subscribe(({ kind }) => {
      if (kind !== 'cues') return;
      stop();
      come();
    });
  });
  const [done] = await Promise.all([work, message]);
  return done;
}

test('a cue that is fired is told to the players that it reaches, and to no others; ended, that is told too', async () => {
  const actor = await network();
  const [hall, deck] = [await pairedPlayer(actor, 'hall'), await pairedPlayer(actor, 'deck')];
  const now = Date.now();
  const fired = await heard(fireCue(actor, { cue: 'song', where: 'hall' }, {}, now));
  expect(fired).toMatchObject({
    name: 'Song',
    screens: 1,
    by: actor.name,
    until: new Date(now + 30 * SECOND).toISOString(),
  });
  expect([await told(hall), await told(deck)]).toEqual([['song'], []]);
  const woken: string[] = [];
  const stop = playerBackend.onChange(deck, (what) => woken.push(what));
  await heard(fireCue(actor, { cue: 'tv' }, {}, now));
  expect(woken).toEqual([]);
  const { firings } = await playerBackend.targetOf(hall);
  expect(firings?.[0]).toEqual({ id: fired.id, cue: 'song', at: now, late: now + 30 * SECOND });
  expect(await cuesOn(actor, now + SECOND)).toContainEqual(
    expect.objectContaining({ cue: 'song', screens: ['hall'], until: fired.until }),
  );
  await heard(fireCue(actor, { cue: 'song', end: true }, {}, now + 5 * SECOND));
  // What ends in the future is told then.
  expect(await told(hall)).toEqual(['song', 'tv']);
  expect((await cuesOn(actor, now + 6 * SECOND)).map(({ cue }) => cue)).toEqual(['tv']);
  expect(await firingsWithin(actor.networkId, now - DAY, now + DAY)).toMatchObject([
    { cue: 'song', where: 'hall' },
    { cue: 'tv' },
    { cue: 'song', end: true },
  ]);
  expect((await lastFired(actor)).map(({ cue, end, screens }) => [cue, end, screens])).toEqual([
    ['song', true, 2],
    ['tv', false, 1],
    ['song', false, 1],
  ]);
  expect(woken).toEqual(['target']);
  stop();
  expect(await clearFirings(new Date(now + 91 * DAY))).toBe(3);
});

test('what can’t be fired says why', async () => {
  const actor = await network(
    { kind: 'cue', id: 'nobody', add: { name: 'Nobody waits' } },
    {
      kind: 'booking',
      id: 'night',
      add: {
        ...{ name: 'Night', content: INPUT, where: 'all', created: '2026-01-01T00:00:00Z', priority: 1, cue: 'night' },
        when: { windows: [['02:00', '03:00']] },
      },
    },
    { kind: 'cue', id: 'night', add: { name: 'Night' } },
  );
  await edit(actor, [{ kind: 'cue', id: 'draft', add: { name: 'Only drafted' } }]);
  const why = (order: unknown, now = Date.parse('2026-06-01T12:00:00Z')) => refusal(fireCue(actor, order, {}, now));
  expect(await why({ cue: 'none' })).toMatch(/^404 /);
  expect(await why({ cue: 'draft' })).toBe('409 “Only drafted” isn’t published yet. Publish it, then fire it.');
  expect(await why({ cue: 'nobody' })).toBe('422 “Nobody waits” reaches no screen: no published booking waits for it.');
  expect(await why({ cue: 'tv', where: 'deck' })).toBe('422 “Television” reaches no screen at “deck”.');
  expect(await why({ cue: 'night' })).toBe(
    '422 “Night” has nothing to show now: its bookings or their files have other times.',
  );
  expect(await why({ cue: 'song', where: 'hall and' })).toMatch(/^422 /);
  expect(await why({ cue: 'song', at: '2020-01-01T00:00:00Z' })).toMatch(/^422 /);
  expect(await refusal(fireCue({ ...actor, may: ['plan'] }, { cue: 'song' }))).toMatch(/^403 /);
  const other = await newNetwork();
  expect(await refusal(fireCue(other, { cue: 'song' }))).toMatch(/^404 /);
  expect(await lastFired(actor)).toEqual([]);
});

test('the same press is one firing: under one key, by two at once, and by a finger that bounces', async () => {
  const actor = await network();
  const under = (key: string) => fireCue(actor, { cue: 'song' }, { idempotencyKey: key });
  const [a, b] = await Promise.all([under('k1'), under('k1')]);
  expect(b).toEqual(a);
  expect(await refusal(fireCue(actor, { cue: 'tv' }, { idempotencyKey: 'k1' }))).toBe(
    '422 This idempotency key was used for “Song”. Use another key for another firing.',
  );
  expect((await fireCue(actor, { cue: 'song' })).id).toBe((await fireCue(actor, { cue: 'song' })).id);
  expect(await lastFired(actor)).toHaveLength(2);
});

test('a flood is held up before the database, said, and no other hand is held up with it', async () => {
  const actor = await network();
  const mad = { ...actor, name: 'Panel', personId: null };
  const results = await Promise.allSettled(
    Array.from({ length: 1000 }, (_, n) => fireCue(mad, { cue: 'song' }, { idempotencyKey: `n${n}`, byKey: true })),
  );
  expect(results.filter(({ status }) => status === 'fulfilled')).toHaveLength(10);
  expect(results.find(({ status }) => status === 'rejected')).toMatchObject({ reason: { status: 429 } });
  expect((await fireCue(actor, { cue: 'song' })).by).toBe(actor.name);
  await writeFloods();
  expect(await floods(actor)).toMatchObject([{ cue: 'song', said: 'a program with a key of Panel', count: 990 }]);
  expect(await lastFired(actor)).toHaveLength(11);
});

describe('what is pressed at a screen', () => {
  const layout = (where?: string): Edit => ({
    kind: 'layout',
    id: 'kiosk',
    add: {
      ...{ name: 'Kiosk', width: 1920, height: 1080 },
      zones: [
        { id: 'greet', x: 0, y: 0, width: 960, height: 1080, touch: { cue: 'song', ...(where ? { where } : {}) } },
      ],
    },
  });
  const id = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
  const touched = { layout: 'kiosk', zone: 'greet' };

  test('a key fires on its own screen alone, a touch where its zone says; told twice it is one', async () => {
    const actor = await network(layout('deck'));
    const [hall, deck] = [await pairedPlayer(actor, 'hall'), await pairedPlayer(actor, 'deck')];
    const at = Date.now() - SECOND;
    await heard(noteFirings(hall, [{ id: id(1), cue: 'tv', at }]));
    await noteFirings(hall, [{ id: id(1), cue: 'tv', at }]);
    await heard(noteFirings(hall, [{ id: id(2), cue: 'song', at, touched }]));
    expect([await told(hall), await told(deck)]).toEqual([['tv'], ['song']]);
    expect((await lastFired(actor)).map(({ by }) => by)).toEqual(['Hall, by touch', 'Hall, by key']);
    expect((await trail(actor)).map(({ act, about }) => `${act}: ${about}`).slice(0, 2)).toEqual([
      'cue-fired: Song, on 1 screen, by Hall, by touch',
      'cue-fired: Television, on 1 screen, by Hall, by key',
    ]);
    expect(await cuesOn(actor)).toContainEqual(
      expect.objectContaining({ cue: 'tv', isLocal: true, screens: ['hall'] }),
    );
    await heard(noteFirings(hall, [{ id: id(3), cue: 'tv', at: at + 500, end: true }]));
    expect(await told(hall)).toEqual(['tv', 'end tv']);
  });

  test('told late, it counts where it was seen and nowhere else', async () => {
    const actor = await network(layout());
    const [hall, deck] = [await pairedPlayer(actor, 'hall'), await pairedPlayer(actor, 'deck')];
    const now = Date.now();
    await heard(noteFirings(hall, [{ id: id(1), cue: 'song', at: now - 31 * SECOND, touched }], now));
    expect(await told(deck)).toEqual([]);
    expect(await firingsWithin(actor.networkId, now - DAY, now)).toMatchObject([{ where: 'screen:hall' }]);
    await heard(noteFirings(hall, [{ id: id(2), cue: 'song', at: now - 29 * SECOND, touched }], now));
    expect(await told(deck)).toEqual(['song']);
    // A clock that is far ahead fires nothing in the future.
    await noteFirings(hall, [{ id: id(3), cue: 'tv', at: now + DAY }], now);
    expect(Date.parse((await lastFired(actor))[0]?.at ?? '')).toBe(now + 2 * SECOND);
  });

  test('a player that lies, has another plan, or whose keys are off fires nothing', async () => {
    const actor = await network(layout('deck'), { kind: 'screen', id: 'hall', set: { keysOff: true } });
    const hall = await pairedPlayer(actor, 'hall');
    const at = Date.now();
    await noteFirings(hall, [
      { id: id(1), cue: 'tv', at },
      { id: id(2), cue: 'song', at },
      { id: id(3), cue: 'none', at },
      { id: id(4), cue: 'tv', at, touched },
      { id: id(5), cue: 'song', at, touched: { layout: 'kiosk', zone: 'none' } },
      { id: id(6), cue: 'song', at: at - 2 * DAY, touched },
    ]);
    expect(await lastFired(actor)).toEqual([]);
  });

  test('a panel gone mad is held up, and its screen is named', async () => {
    const actor = await network(layout('deck'));
    const hall = await pairedPlayer(actor, 'hall');
    const presses = Array.from({ length: 50 }, (_, n) => ({
      ...{
        id: `00000000-0000-4000-8000-0000000001${String(n).padStart(2, '0')}`,
        cue: 'song',
        at: Date.now(),
        touched,
      },
    }));
    await noteFirings(hall, presses);
    await writeFloods();
    expect(await floods(actor)).toMatchObject([{ said: 'Hall, by touch', count: 40 }]);
  });
});

describe('boards', () => {
  const press = (button: string, end = false) => ({ button, end });

  test('each button says what it would do, and is lit while that is on', async () => {
    const actor = await network();
    const { token } = await makeBoardLink(actor, { board: 'bridge', name: 'Steward’s phone' });
    const before = await openBoard(token, ADDRESS);
    expect(before).toMatchObject({
      name: 'Bridge',
      buttons: [
        { id: 'e1', label: 'Song', colour: 'tide', screens: 1, lastsMs: 30 * SECOND, onUntil: null },
        { id: 'e2', label: 'Television', screens: 1, lastsMs: 10 * MINUTE, onUntil: null },
      ],
    });
    const fired = await pressByLink(token, ADDRESS, press('e1'));
    expect(fired).toMatchObject({ by: 'Steward’s phone, on “Bridge”', where: 'deck', screens: 1 });
    expect((await openBoard(token, ADDRESS)).buttons.map(({ onUntil }) => onUntil)).toEqual([fired.until, null]);
    await pressByLink(token, ADDRESS, press('e1', true));
    expect((await openBoard(token, ADDRESS)).buttons.map(({ onUntil }) => onUntil)).toEqual([null, null]);
  });

  test('a link opens its board and nothing else, until it is ended', async () => {
    const actor = await network({ kind: 'board', id: 'other', add: { name: 'Other', buttons: [{ cue: 'tv' }] } });
    const { token } = await makeBoardLink(actor, { board: 'bridge', name: 'Phone' });
    expect(await refusal(pressByLink(token, ADDRESS, press('e9')))).toMatch(/^404 /);
    expect(await refusal(openBoard('x'.repeat(43), ADDRESS))).toMatch(/^404 /);
    const { links } = await boardsAccess(actor);
    expect(links).toMatchObject([{ board: 'bridge', name: 'Phone', madeBy: actor.name }]);
    expect(JSON.stringify(links)).not.toContain(token);
    const stranger = await newNetwork();
    expect(await refusal(endBoardLink(stranger, links[0]?.id ?? ''))).toMatch(/^404 /);
    await endBoardLink(actor, links[0]?.id ?? '');
    expect(await refusal(openBoard(token, ADDRESS))).toBe('404 This link no longer opens anything. Ask for a new one.');
    expect(await refusal(pressByLink(token, ADDRESS, press('e1')))).toMatch(/^404 /);
    await rows('DELETE FROM attempts');
    const tries = Array.from({ length: 31 }, () => refusal(openBoard('y'.repeat(43), '192.0.2.77')));
    expect((await Promise.all(tries)).filter((one) => one.startsWith('429 '))).toHaveLength(1);
  });

  test('a board for some people is for these, and for owners', async () => {
    const actor = await network();
    const operator: Actor = { ...actor, may: ['operate'] };
    await setBoardPeople(actor, 'bridge', []);
    await pressButton(operator, 'bridge', press('e1'));
    const someone = await addPerson(actor.networkId, {
      ...{ name: 'Someone', email: 'someone@example.org', password: 'a long password' },
    });
    await setBoardPeople(actor, 'bridge', [someone.personId ?? '']);
    expect(await refusal(pressButton(operator, 'bridge', press('e2')))).toMatch(/^403 “Bridge” is for other people/);
    expect(await refusal(makeBoardLink(operator, { board: 'bridge', name: 'Mine' }))).toMatch(/^403 /);
    await pressButton({ ...operator, personId: someone.personId }, 'bridge', press('e2'));
    await pressButton(actor, 'bridge', press('e1'));
  });
});
