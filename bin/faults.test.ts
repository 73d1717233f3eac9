import { readFileSync } from 'node:fs';
import { Readable } from 'node:stream';
import { patchesSchema, type LoosePatch } from '@/core/plan';
import { Refusal } from '@/core/refusal';
import { readWhen } from '@/core/when';
import { readCalendar } from '@/core/formats/icalendar';
import { publishEdition, publishAgain } from '@/services/editions';
import { openFeed, closeFeed, feedCalendar } from '@/services/calendars';
import { dismissUpload, libraryFile, processUpload, receiveUpload, uploads } from '@/services/library';
import {
  changePassword,
  claim,
  foundNetwork,
  invite,
  join,
  limitAttempts,
  offerReset,
  readInput,
  removePerson,
  signIn,
  withdraw,
  type Actor,
} from '@/services/people';
import { draftPlan, edit, importPlan, lastChange } from '@/services/plan';
import { collectToken, pairScreen, playerBackend, startPairing, unpairScreen } from '@/services/screens';
import { newNetwork, newPlan, useDatabase } from '@/services/tests/database';
import { picture, send } from '@/services/tests/files';
import { createPlayerApp } from '@/protocol/app';
import { faultRows, untold } from '../scripts/faults.mjs';

useDatabase();
jest.setTimeout(120_000);

/** Each fault of the table in docs/faults.md, as it is made here: what is answered must be what the table says. */

let ida: Actor;
let stranger: Actor;
let player = '';
const HERE = { address: '10.7.0.1', agent: null };
const app = createPlayerApp(playerBackend, () => '10.7.0.2');

beforeAll(async () => {
  [ida, stranger] = [await newNetwork(), await newNetwork()];
  await newPlan(ida);
  await newPlan(stranger);
  await publishEdition(stranger, await lastChange(stranger.networkId));
  const { deviceCode, userCode } = await startPairing('10.7.0.3');
  await pairScreen(stranger, 'hall', userCode, '10.7.0.3');
  const collected = await collectToken(deviceCode);
  player = typeof collected === 'string' ? '' : collected.token;
});

/** What is said of it: the status and the sentence, or that it was done. */
const said = async (work: () => unknown): Promise<string> => {
  try {
    await work();
    return 'done';
  } catch (error) {
    if (error instanceof Refusal) return `${error.status} ${error.message}`;
    throw error;
  }
};

/** An edit as a browser sends it. */
const sent = (...patches: unknown[]) => said(() => edit(ida, readInput(patchesSchema, patches) as LoosePatch[]));
const named = (name: unknown) => sent({ kind: 'playlist', add: { name, items: [] } });
const items = (list: unknown) => sent({ kind: 'playlist', add: { name: 'List', items: list } });
const screen = (set: object) => sent({ kind: 'screen', id: 'hall', set });
const site = (set: object) => sent({ kind: 'site', id: 'quay', set });
let cards = 0;
const booking = (fields: object) =>
  sent({
    kind: 'booking',
    add: {
      ...{ name: `Card ${++cards}`, content: { playlist: 'house' }, where: 'all', priority: 3, when: {} },
      ...{ created: '2026-01-01T00:00:00Z', ...fields },
    },
  });
const when = (text: string) => {
  const read = readWhen(text, { today: 20_800 as never, calendars: [], zones: [] });
  return read.ok ? 'done' : `${read.status} ${read.message}`;
};
const many = <T>(count: number, make: (i: number) => T): T[] => Array.from({ length: count }, (_, i) => make(i));
const file = (...lines: string[]) => ['BEGIN:VCALENDAR', ...lines, 'END:VCALENDAR'].join('\r\n');
let uid = 0;
const event = (...lines: string[]) => ['BEGIN:VEVENT', `UID:${++uid}`, ...lines, 'END:VEVENT'];
const HOUR_LONG = ['DTSTART:20261205T080000', 'DURATION:PT1H'];
const calendar = (text: string) => {
  const { events, problems } = readCalendar(text);
  return `${events.length} of it; ${problems[0] ? `line ${problems[0].line}: ${problems[0].message}` : 'nothing left out'}`;
};
const upload = async (name: string, bytes: Buffer | string) => {
  const received = await send(ida, name, Buffer.from(bytes));
  if (!('upload' in received)) return `known as ${received.known}`;
  await processUpload(received.upload.id);
  const failed = (await uploads(ida)).find((one) => one.id === received.upload.id);
  if (!failed) return 'done';
  await dismissUpload(ida, failed.id);
  return failed.error ?? failed.state;
};
const sentFile = (name: string, make: () => Promise<Buffer | string> | Buffer | string) => async () => {
  let told = '';
  const answer = await said(async () => (told = await upload(name, await make())));
  return answer === 'done' ? told : answer;
};
const protocol = async (path: string, init: RequestInit = {}, token = player) => {
  const response = await app.request(`/api/player/v1${path}`, {
    ...init,
    headers: { authorization: `Bearer ${token}`, ...(init.headers as object) },
  });
  if (response.ok) return 'done';
  const { title, error } = (await response.json()) as { title?: string; error?: string };
  return `${response.status} ${title ?? error ?? ''}`;
};
const REPORT = {
  ...{ state: 'playing', edition: 1, program: null, playing: null, download: null, clockOffsetMs: 0, storage: null },
  ...{ errors: [], software: 'test' },
};
const beat = (values: object, headers: object = { 'content-type': 'application/json' }) =>
  protocol('/heartbeat', {
    method: 'POST',
    headers: headers as Record<string, string>,
    body: JSON.stringify({ ...REPORT, ...values }),
  });
const FIRST = { network: 'Line', name: 'Una', email: 'una@example.org', password: 'a long password' };
const guess = (password: unknown, email: unknown = 'nobody@example.org') =>
  said(() => signIn({ email, password }, HERE));

const ACTS: Readonly<Record<string, () => Promise<string> | string>> = {
  // Text
  'a name with U+0000': () => named('A\0B'),
  'a name with half an emoji': () => named('A\ud83d'),
  'a name of nothing but zero-width characters': () => named('\u200b\u200d\ufeff'),
  'a name of blanks': () => named('   '),
  'a name of 121 letters': () => named('x'.repeat(121)),
  'a name of 60 families of four (420 code points)': () => named('👨‍👩‍👧‍👦'.repeat(60)),
  'a name of 120 letters with 40 marks each': () => named('a\u0301\u0302\u0303\u0304'.repeat(10).repeat(120)),
  'a name of 120 letters with marks, no two alike, as long as may be': () =>
    named(
      many(
        120,
        (i) =>
          `${String.fromCodePoint(0x4e00 + i * 37)}${many(5, (k) => String.fromCodePoint(0x300 + ((i * 7 + k * 13) % 100))).join('')}`,
      ).join(''),
    ),
  'a name with a line break': () => named('A\nB'),
  'a name with a bell': () => named('A\u0007B'),
  'a name that is a number': () => named(7),
  'no name': () => named(undefined),
  'a key with U+0000 in it': () => sent({ kind: 'playlist', add: { name: 'A', items: [], 'x\0': 1 } }),
  'a name that another has, in capitals': () => named('HOUSE'),
  'a tag with a blank': () => screen({ tags: ['two words'] }),
  'a tag of 200 letters': () => screen({ tags: ['x'.repeat(200)] }),
  'a list of 5 000 tags': () => screen({ tags: many(5000, (i) => `t${i}`) }),
  // Numbers
  'a screen 0 pixels wide': () => screen({ width: 0 }),
  'a screen 1e12 pixels wide': () => screen({ width: 1e12 }),
  'a screen 1.5 pixels wide': () => screen({ width: 1.5 }),
  'a screen -1 pixels high': () => screen({ height: -1 }),
  'a width in words': () => screen({ width: 'wide' }),
  'a width of Infinity': () => screen({ width: Infinity }),
  'an item of 0 seconds': () => items([{ id: 'a', collect: 'x', durationMs: 0 }]),
  'an item of 1e12 milliseconds': () => items([{ id: 'a', collect: 'x', durationMs: 1e12 }]),
  'a collection with a limit of 1e12': () => items([{ id: 'a', collect: 'x', limit: 1e12 }]),
  'a priority of 6': () => booking({ priority: 6 }),
  'a priority of 2.5': () => booking({ priority: 2.5 }),
  'a place at latitude 91': () => site({ location: { latitude: 91, longitude: 0 } }),
  // Kinds and shapes
  'an edit that is null': () => sent(null),
  'an edit that is a text': () => sent('rename everything'),
  'edits that are not a list': () => said(() => readInput(patchesSchema, { kind: 'screen' })),
  'a patch of no kind': () => sent({ add: { name: 'A' } }),
  'a patch of an unknown kind': () => sent({ kind: 'person', add: { name: 'A' } }),
  'a patch of a field that is not': () => screen({ colour: 'red' }),
  'a patch of the prototype': async () => {
    const before = await draftPlan(ida);
    const told = await sent(JSON.parse('{"kind":"screen","id":"hall","set":{"__proto__":{"width":1}}}'));
    return `${told}, and ${(await draftPlan(ida)) === before ? 'nothing' : 'something'} is changed`;
  },
  'a patch of an id that is a path': () => sent({ kind: 'screen', id: '../hall', set: { width: 9 } }),
  'a patch of something that is gone': () => sent({ kind: 'screen', id: 'nowhere', set: { width: 9 } }),
  'a patch of media with files of its own': () =>
    sent({ kind: 'media', add: { name: 'A' }, files: { originalSha256: 'a'.repeat(64) } }),
  '10 001 patches at once': () =>
    sent(...many(10_001, (i) => ({ kind: 'playlist', add: { name: `P${i}`, items: [] } }))),
  // References and lists
  'a screen at an unknown site': () => screen({ site: 'nowhere' }),
  'a booking of an unknown playlist': () => booking({ content: { playlist: 'nowhere' } }),
  'a booking of nothing': () => booking({ content: {} }),
  'a site removed while screens are there': () => sent({ kind: 'site', id: 'quay', remove: true }),
  'a playlist that holds itself': async () => {
    await sent({ kind: 'playlist', id: 'ring', add: { name: 'Ring', items: [] } });
    return sent({ kind: 'playlist', id: 'ring', set: { items: [{ id: 'a', playlist: 'ring' }] } });
  },
  'a playlist of 5 001 entries': () => items(many(5001, (i) => ({ id: `i${i}`, collect: 'x' }))),
  'two entries of one id': () =>
    items([
      { id: 'a', collect: 'x' },
      { id: 'a', collect: 'y' },
    ]),
  '26 playlists that each hold the one before twice': () =>
    sent(
      ...many(26, (i) => ({
        kind: 'playlist',
        id: `d${i}`,
        add: {
          name: `D${i}`,
          items: i === 0 ? [{ id: 'a', collect: 'x' }] : ['a', 'b'].map((id) => ({ id, playlist: `d${i - 1}` })),
        },
      })),
    ),
  'playlists 12 deep': () =>
    sent(
      ...many(12, (i) => ({
        kind: 'playlist',
        id: `n${i}`,
        add: { name: `N${i}`, items: i === 0 ? [] : [{ id: 'a', playlist: `n${i - 1}` }] },
      })),
    ),
  // Selectors
  'an empty selector': () => booking({ where: '' }),
  'a selector that ends in "and"': () => booking({ where: 'hall and' }),
  'a selector of 6 000 brackets': () => booking({ where: `${'('.repeat(3000)}hall${')'.repeat(3000)}` }),
  'a selector of 16 001 terms': () => booking({ where: many(16_001, (i) => `t${i}`).join(' or ') }),
  'a selector 60 brackets deep': () => booking({ where: `${'('.repeat(60)}hall${')'.repeat(60)}` }),
  'a selector with U+0000': () => booking({ where: 'hall\0' }),
  // Times
  'a booking from 30 February': () => booking({ when: { from: '2026-02-30' } }),
  'a booking that ends before it begins (it never shows, and To look at tells)': () =>
    booking({ when: { from: '2026-12-05', to: '2026-12-01' } }),
  'a booking at 25:00': () => booking({ when: { windows: [['24:30', '25:00']] } }),
  'a rule by hours': () => booking({ when: { repeat: 'FREQ=HOURLY' } }),
  'a rule of ten thousand semicolons': () => booking({ when: { repeat: ';'.repeat(10_000) } }),
  'a rule without end of its parts': () =>
    booking({ when: { repeat: `FREQ=DAILY;BYMONTHDAY=${many(5000, () => 1).join()}` } }),
  'a clock of a place that is not': () => booking({ when: { clock: 'Mars/One' } }),
  'an unknown calendar': () => booking({ when: { only: ['storm-days'] } }),
  '4 001 single dates': () => booking({ when: { also: many(4001, () => '2026-12-05') } }),
  'a site in a zone that is not': () => site({ timeZone: 'Europe/Atlantis' }),
  'a time said as "by the rule ;;;"': () => when('by the rule ;;;'),
  'a time said as "sometimes"': () => when('sometimes'),
  'a time said in 60 001 characters': () => when(' '.repeat(60_001)),
  // Of another network
  'publishing what another person has changed since': async () =>
    said(async () => publishEdition(ida, (await lastChange(ida.networkId)) - 1)),
  'publishing an edition again that is not': () => said(() => publishAgain(ida, 77)),
  'a file of another network, by its hash': async () => {
    const bytes = await picture(40, 30, '#204060');
    const received = await send(stranger, 'Theirs.jpg', bytes);
    if ('upload' in received) await processUpload(received.upload.id);
    const { createHash } = await import('node:crypto');
    return said(() => libraryFile(ida, createHash('sha256').update(bytes).digest('hex')));
  },
  'a file that no network has, by its hash': () => said(() => libraryFile(ida, 'e'.repeat(64))),
  'a feed of another network closed': async () => {
    await openFeed(stranger, { name: 'All', where: 'all' });
    const { feeds } = await import('@/services/calendars');
    const [theirs] = await feeds(stranger);
    return said(() => closeFeed(ida, theirs?.id ?? ''));
  },
  'a feed by a guessed secret': () => said(() => feedCalendar('x'.repeat(43), 0)),
  'a feed of a selector that is wrong': () => said(() => openFeed(ida, { name: 'All', where: 'not' })),
  'a person of another network removed': () => said(() => removePerson(ida, stranger.personId ?? '')),
  'a new password for a person of another network': () => said(() => offerReset(ida, stranger.personId ?? '')),
  'a link of another network withdrawn': async () => {
    await invite(stranger, { name: 'Ulf', email: 'ulf@example.org', role: 'planner' });
    const { invitations } = await import('@/services/people');
    const [theirs] = await invitations(stranger);
    return said(() => withdraw(ida, theirs?.id ?? ''));
  },
  'a screen of another network unpaired': () => said(() => unpairScreen(ida, 'nowhere')),
  // Files
  'an empty file': sentFile('Empty.png', () => ''),
  'a text by the name of a picture': sentFile('Text.png', () => 'This is no picture.'),
  'a picture cut in half': sentFile('Half.jpg', async () => {
    const whole = await picture(400, 300, '#123456');
    return whole.subarray(0, whole.length / 2);
  }),
  'a manifest by the name of a film': sentFile('Film.mp4', () => '#EXTM3U\n#EXTINF:1,\nfile:///etc/passwd\n'),
  'a name that is a path': sentFile('../../etc/passwd.png', () => picture(20, 20)),
  'a name with U+0000, of a file': sentFile('A\0.png', () => picture(20, 20)),
  'a name of zero-width characters, of a file': sentFile('\u200b.png', () => picture(20, 20)),
  'the same file twice': async () => {
    const bytes = await picture(33, 22, '#654321');
    await upload('Twice.jpg', bytes);
    return upload('Twice again.jpg', bytes);
  },
  'a line that breaks while sending': () =>
    said(() =>
      receiveUpload(
        ida,
        { name: 'Broken.png', bytes: 1000 },
        Readable.from(
          (function* () {
            yield Buffer.from('x');
            throw new Refusal(400, 'The line broke.');
          })(),
        ),
      ),
    ),
  // Calendar files
  'a calendar file that is none': () => calendar('hello'),
  'a calendar file without events': () => calendar(file()),
  'an event without a start': () => calendar(file(...event('SUMMARY:A'))),
  'an event without a length': () => calendar(file(...event('DTSTART:20261205T080000'))),
  'an event of a thousand years by hours': () =>
    calendar(file(...event('DTSTART:20000101T080000', 'DTEND:29990101T090000'))),
  'an event of 30 000 single dates': () =>
    calendar(file(...event(...HOUR_LONG, `RDATE:${many(30_000, () => '20270101T080000').join()}`))),
  '5 001 events': () => calendar(file(...many(5001, () => event(...HOUR_LONG)).flat())),
  'an event with two rules': () => calendar(file(...event(...HOUR_LONG, 'RRULE:FREQ=DAILY', 'RRULE:FREQ=WEEKLY'))),
  'an event by minutes': () => calendar(file(...event(...HOUR_LONG, 'RRULE:FREQ=MINUTELY'))),
  'an event in a zone that is not': () =>
    calendar(file(...event('DTSTART;TZID=Mars/One:20261205T080000', 'DURATION:PT1H'))),
  'an event on 99 January': () => calendar(file(...event('DTSTART:20260199T080000', 'DURATION:PT1H'))),
  // Plan files
  'a plan file that is a list': () => said(() => importPlan(ida, [])),
  'a plan file of another format': () => said(() => importPlan(ida, { format: 'something/else' })),
  'a plan file of a format to come': () => said(() => importPlan(ida, { format: 'lanternpost/plan', version: 99 })),
  // Players
  'a player without a token': () => protocol('/target', {}, ''),
  'a player with a token that is not': () => protocol('/target', {}, 'x'.repeat(43)),
  'a report with U+0000': () => beat({ software: 'A\0B' }),
  'a report as plain text': () => beat({}, { 'content-type': 'text/plain' }),
  'a report that is no JSON': () =>
    protocol('/heartbeat', { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{' }),
  'a report of 2 MB': () => beat({ software: 'x'.repeat(2_000_000) }),
  'a report of 2 MB without a token': () =>
    protocol(
      '/heartbeat',
      { method: 'POST', headers: { 'content-type': 'application/json' }, body: 'x'.repeat(2_000_000) },
      'x'.repeat(43),
    ),
  'a report of a state that is not': () => beat({ state: 'dancing' }),
  'a report of a clock 1e300 ms off': () => beat({ clockOffsetMs: 1e300 }),
  'a program of another screen': () => protocol(`/programs/${'a'.repeat(64)}`),
  'a program by a path': () => protocol('/programs/..%2f..%2fetc'),
  'a file that no edition gives the screen': () => protocol(`/assets/${'b'.repeat(64)}`),
  'an address that is not': () => protocol('/nothing'),
  'a device code that is not': () =>
    protocol('/pairing/token', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ device_code: 'x' }),
    }),
  'a code that no player showed': () => said(() => pairScreen(ida, 'hall', 'BCDF-GHJK', '10.7.0.5')),
  'a code of other letters': () => said(() => pairScreen(ida, 'hall', 'AEIOU', '10.7.0.5')),
  'the 21st guess at a code': async () => {
    for (let i = 0; i < 20; i++) await said(() => pairScreen(stranger, 'hall', 'BCDF-GHJK', '10.7.0.6'));
    return (await said(() => pairScreen(stranger, 'hall', 'BCDF-GHJK', '10.7.0.6'))).replace(
      /\d+ seconds/,
      'N seconds',
    );
  },
  // People
  'a login with a wrong password': () => guess('wrong'),
  'a login without a password': () => guess(''),
  'a login with a password of 10 000 letters': () => guess('x'.repeat(10_000)),
  'a login with an address that is none': () => guess('wrong', 'nobody'),
  'a login that is a list': () => said(() => signIn([], HERE)),
  'the 11th login by one address and name': async () => {
    for (let i = 0; i < 10; i++) await guess('wrong', 'una@example.org');
    return (await guess('wrong', 'una@example.org')).replace(/\d+ seconds/, 'N seconds');
  },
  'a first person where there is one': () => said(() => claim(FIRST, { ...HERE, address: '10.7.0.8' })),
  'a password of 9 letters': () =>
    said(() => claim({ ...FIRST, password: 'nine char' }, { ...HERE, address: '10.7.0.8' })),
  'an invitation without a name': () => said(() => invite(ida, { name: ' ', email: 'x' })),
  'a link that was never given': () =>
    said(() => join('x'.repeat(43), { name: 'A', password: 'a long password' }, HERE)),
  'oneself removed': () => said(() => removePerson(ida, ida.personId ?? '')),
  'a new password that is the old one': () =>
    said(() => changePassword(ida, { current: 'a long password', password: 'a long password' }, '')),
  'a new password without the present one': () =>
    said(() => changePassword(ida, { current: 'wrong', password: 'another password' }, '')),
  'a network without a name': () =>
    said(() =>
      foundNetwork({ network: '\u200b', name: 'A', email: 'a@example.org' }, { personId: null, name: '', may: [] }),
    ),
  'a limit that is reached': async () => {
    await limitAttempts('faults', 1, 60);
    return (await said(() => limitAttempts('faults', 1, 60))).replace(/\d+ seconds/, 'N seconds');
  },
};

const ROWS = faultRows(readFileSync('docs/faults.md', 'utf8'));
const TABLE = ROWS.filter((row) => row.test === 'here').map(({ fault, told }): [string, string] => [fault, told]);

test('every fault that is tried here stands in docs/faults.md, and the other way round', () => {
  expect(TABLE.map(([fault]) => fault)).toEqual(Object.keys(ACTS));
});

test.each(TABLE)('%s: %s', async (fault, told) => {
  expect(await ACTS[fault]?.()).toBe(told);
});

test('a row that names a test is true where that test passed, and only there', () => {
  const row = (name: string) => ({ fault: 'f', told: 't', test: name });
  const passed = new Set(['a.test.ts › one', 'a.test.ts › group › two']);
  expect(untold([row('a.test.ts › one'), row('a.test.ts › group'), row('here')], passed)).toEqual([]);
  expect(untold([row('a.test.ts › three'), row('b.test.ts › one')], passed)).toHaveLength(2);
});

test('a row names a test from its outermost group on', () => {
  const quoted = (title: string) => title.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const inner = ROWS.filter(({ test: named }) => {
    const [file = '', title] = named.split(' › ');
    if (!title) return false;
    const text = readFileSync(file, 'utf8');
    const begins = (indent: string) => new RegExp(`^${indent}(describe|it|test)\\(\\s*['"\`]${quoted(title)}`, 'm');
    return begins('\\s+').test(text) && !begins('').test(text);
  });
  expect(inner.map(({ test: named }) => named)).toEqual([]);
});
