import { execFileSync } from 'node:child_process';
import { XMLParser } from 'fast-xml-parser';
import fc from 'fast-check';
import { screenProgram, forecast } from '../../forecast';
import type { Item, Media } from '../../plan/schema';
import { orThrow } from '../../refusal';
import { parseDate, startOfDate, toInstant, zoneTable, type LocalDate } from '../../when';
import { matchEntries, readM3u8, readXspf, writeM3u8, writeSmil, writeXspf } from '.';
import { smallPlan } from '../../tests/small-plan';

const FILE = { bytes: 1, added: '2026-01-01T00:00:00Z' };
const SIZE = { width: 1920, height: 1080 };
const media = [
  { id: 'flag', name: 'House flag', kind: 'image', ...SIZE, ...FILE, type: 'image/png', tags: ['brand'] },
  { id: 'fares', name: 'Fares & "offers", <new>', kind: 'image', ...SIZE, ...FILE, type: 'image/webp' },
  { id: 'buoy', name: 'Buoy', kind: 'video', durationMs: 8_000, ...SIZE, ...FILE, type: 'video/mp4' },
  { id: 'bell', name: 'Bell', kind: 'sound', durationMs: 3_000, ...FILE, type: 'audio/mp4' },
  { id: 'old', name: 'Old', kind: 'image', ...SIZE, ...FILE, type: 'image/png', archived: true },
];
const planOf = (items: object[], more: object = {}) =>
  smallPlan({
    network: { defaultDurationMs: 6_000 },
    media,
    sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo' }],
    screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 1920, height: 1080 }],
    playlists: [
      { id: 'inner', name: 'Inner', items: [{ collect: 'brand' }, { media: 'bell' }] },
      { id: 'loop', name: 'Loop "1"', items },
    ],
    ...more,
  });
const playlistOf = (plan: ReturnType<typeof planOf>) =>
  plan.playlists.find(({ id }) => id === 'loop') as (typeof plan.playlists)[number];
const plain = (items: readonly Item[]) => items.map(({ id: _, ...item }) => item);

const plan = planOf([
  { media: 'flag', durationMs: 12_500 },
  { media: 'buoy', clip: [500, 2_500] },
  { playlist: 'inner' },
  { media: 'old' },
  { media: 'fares' },
]);

test('a playlist is written as M3U8: nested and collected files in their turn, lengths in seconds, cuts as fragments', () => {
  expect(writeM3u8(plan, playlistOf(plan))).toBe(
    [
      ...['#EXTM3U', '#PLAYLIST:Loop "1"', '#EXTINF:12.5,House flag', 'flag.png', '#EXTINF:2,Buoy'],
      ...['buoy.mp4#t=0.5,2.5', '#EXTINF:6,House flag', 'flag.png', '#EXTINF:3,Bell', 'bell.m4a'],
      ...['#EXTINF:6,Fares & "offers", <new>', 'fares.webp', ''],
    ].join('\n'),
  );
});

test('a playlist is written as XSPF 1: a namespace, a version, tracks with milliseconds', () => {
  const text = writeXspf(plan, playlistOf(plan));
  const read = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '@' }).parse(text) as {
    playlist: { '@xmlns': string; '@version': string; trackList: { track: unknown[] } };
  };
  expect(read.playlist).toMatchObject({ '@xmlns': 'http://xspf.org/ns/0/', '@version': '1', title: 'Loop "1"' });
  expect(read.playlist.trackList.track.slice(0, 2)).toEqual([
    { location: 'flag.png', title: 'House flag', duration: 12_500 },
    { location: 'buoy.mp4#t=0.5,2.5', title: 'Buoy', duration: 2_000 },
  ]);
  expect(() => execFileSync('xmllint', ['--nonet', '--noout', '-'], { input: text })).not.toThrow();
});

test('what is written is read again as the same items, whatever they are (property)', () => {
  const item = fc.oneof(
    fc.record({ media: fc.constantFrom('flag', 'fares'), durationMs: fc.integer({ min: 100, max: 86_400_000 }) }),
    fc.constant({ media: 'buoy' }),
    fc.constant({ media: 'bell' }),
    fc
      .tuple(fc.integer({ min: 0, max: 7_000 }), fc.integer({ min: 1, max: 999 }))
      .map(([begin, lasts]) => ({ media: 'buoy', clip: [begin, begin + lasts] })),
  );
  fc.assert(
    fc.property(fc.array(item, { minLength: 1, maxLength: 30 }), (items) => {
      const made = planOf(items);
      for (const [write, read] of [
        [writeM3u8, readM3u8],
        [writeXspf, readXspf],
      ] as const) {
        const listed = orThrow(read(write(made, playlistOf(made))));
        expect(listed.title).toBe('Loop "1"');
        const { items: again, missing } = matchEntries(listed.entries, made.media);
        expect(missing).toEqual([]);
        expect(plain(again)).toEqual(items);
      }
    }),
    { numRuns: 60 },
  );
});

// https://www.xspf.org/spec, section 4.1: an example document.
const EXAMPLE = `<?xml version="1.0" encoding="UTF-8"?>
<playlist version="1" xmlns="http://xspf.org/ns/0/">
  <trackList>
    <track><location>file:///mp3s/House_Flag.mp3</location></track>
    <track><location>http://www.example.com/music/bar.ogg</location></track>
  </trackList>
</playlist>`;

test('files of other programs are found by their names, however the path is written; the rest is told by its place', () => {
  const found = (text: string) => {
    const { entries } = orThrow(text.startsWith('<') ? readXspf(text) : readM3u8(text));
    const { items, missing } = matchEntries(entries, plan.media);
    return [plain(items), missing.map(({ place, location }) => `${place}: ${location}`)];
  };
  expect(found(EXAMPLE)).toEqual([[{ media: 'flag' }], ['track 2: http://www.example.com/music/bar.ogg']]);
  expect(
    found(
      [
        '\uFEFF#EXTM3U',
        '#EXTINF:15 logo="x",House flag',
        'C:\\signs\\2026\\HOUSE_FLAG.PNG',
        '',
        '# a note',
        '#EXTINF:-1,Buoy',
        'https://cdn.example/a%20b/unknown.mp4?x=1#t=9,1',
        '#EXTINF:2.5',
        '../buoy.mp4#t=npt:1,3',
        'buoy.mp4#t=1,99',
        'missing.png',
      ].join('\r\n'),
    ),
  ).toEqual([
    [
      { media: 'flag', durationMs: 15_000 },
      { media: 'buoy' },
      { media: 'buoy', clip: [1_000, 3_000] },
      { media: 'buoy' },
    ],
    ['line 11: missing.png'],
  ]);
});

test('of several files of one name the newest is meant; an id goes ahead of a name', () => {
  const file = (id: string, name: string, added: string) => ({ ...plan.media[0], id, name, added }) as Media;
  const files = [
    file('a', 'Tide', '2026-03-01T00:00:00Z'),
    file('b', 'Tide', '2026-05-01T00:00:00Z'),
    file('tide-2', 'b', '2026-01-01T00:00:00Z'),
  ];
  const entry = (location: string) => ({ location, title: null, durationMs: null, place: 'line 1' });
  const { items } = matchEntries([entry('Tide.png'), entry('b.png')], files);
  expect(items.map(({ media: id }) => id)).toEqual(['b', 'b']);
});

test.each([
  ['#EXTM3U\n#EXT-X-VERSION:3\nseg.ts', 'This lists the parts of a stream (HLS). Choose a playlist of files.'],
  ['#EXTM3U\n', 'This playlist has no entries.'],
  ['a.png\n'.repeat(5_001), 'This playlist has 5001 entries. At most 5000 are read, so split it.'],
])('an M3U that is none is refused with a sentence (%#)', (text, message) => {
  expect(readM3u8(text)).toMatchObject({ ok: false, message });
});

test.each([
  ['<playlist><trackList></playlist>', 'This isn’t XSPF: line 1 is broken. Export the playlist again, then read it.'],
  ['<html><body/></html>', 'This isn’t XSPF: it has no list of tracks.'],
  ['<playlist><trackList/></playlist>', 'This playlist has no entries.'],
  [
    '<!DOCTYPE p [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><playlist><trackList><track><title>&b;</title></track></trackList></playlist>',
    'This playlist has definitions of its own (DOCTYPE). Save it without them.',
  ],
  [`<playlist>${' '.repeat(8_000_001)}</playlist>`, 'This playlist is larger than 8 MB. Split it.'],
])('an XSPF that is none, or means harm, is refused with a sentence (%#)', (text, message) => {
  expect(readXspf(text)).toMatchObject({ ok: false, message });
});

describe('a screen’s day as SMIL 3.0', () => {
  const day = parseDate('2026-10-25') as LocalDate; // The day has 25 hours in Oslo.
  const whole = planOf(
    [
      { media: 'flag', durationMs: 900_000, transition: { kind: 'fade', ms: 600 } },
      { media: 'buoy', clip: [500, 2_500], volume: 0.4, transition: { kind: 'wipe', ms: 300 }, fit: 'fill' },
      { media: 'fares', durationMs: 300_000, transition: { kind: 'slide', ms: 500 }, fit: 'exact' },
      { media: 'buoy', fit: 'stretch' },
    ],
    {
      bookings: [
        {
          ...{ id: 'b', name: 'B', content: { playlist: 'loop' }, where: 'all', created: FILE.added },
          when: {
            windows: [
              ['01:30', '04:00'],
              ['20:00', '21:00'],
            ],
          },
        },
      ],
    },
  );
  const text = writeSmil(whole, 'hall', day);

  test('is valid by the DTD of the W3C’s recommendation of 1 December 2008 (Debian package w3c-sgml-lib), read by libxml2', () => {
    const dtd = '/usr/share/xml/w3c-sgml-lib/schema/dtd/REC-SMIL3-20081201/SMIL30Language.dtd';
    expect(
      execFileSync('xmllint', ['--nonet', '--noout', '--dtdvalid', dtd, '-'], { input: text, encoding: 'utf8' }),
    ).toBe('');
    // The check can fail: an attribute that the profile does not know.
    expect(() =>
      execFileSync('xmllint', ['--nonet', '--noout', '--dtdvalid', dtd, '-'], {
        ...{ input: text.replace(' region=', ' place='), stdio: ['pipe', 'pipe', 'ignore'] },
      }),
    ).toThrow();
  });

  test('says what the forecast says, to the millisecond, as another parser reads it', () => {
    const parser = new XMLParser({
      ...{ ignoreAttributes: false, attributeNamePrefix: '', preserveOrder: true, parseAttributeValue: false },
    });
    type Node = Record<string, Node[]> & { ':@'?: Record<string, string> };
    const inside = (nodes: readonly Node[], name: string) => nodes.find((one) => name in one)?.[name] ?? [];
    const body = inside(inside(inside(parser.parse(text) as Node[], 'smil'), 'body'), 'par');
    const told = body.flatMap((seq) => {
      let at = Date.parse(/wallclock\((.+)\)/.exec(seq[':@']?.begin ?? '')?.[1] ?? '');
      return (seq.seq ?? []).map((node) => {
        const from = at;
        at += Math.round(Number.parseFloat(node[':@']?.dur ?? '') * 1000);
        return [node[':@']?.src, from, at];
      });
    });
    const zone = zoneTable('Europe/Oslo');
    const [from, to] = [toInstant(zone, startOfDate(day)), toInstant(zone, startOfDate((day + 1) as LocalDate))];
    expect(to - from).toBe(25 * 3_600_000);
    const names: Record<string, string> = { flag: 'flag.png', buoy: 'buoy.mp4', fares: 'fares.webp' };
    const { plays } = forecast(screenProgram(whole, 'hall'), from, to, { plays: true });
    expect(told.length).toBeGreaterThan(20);
    expect(told).toEqual(plays.map((play) => [names[play.media ?? ''], play.from, play.to]));
  });

  test('says how each stands, comes and sounds', () => {
    expect(text).toContain('<transition xml:id="fade-600" type="fade" subtype="crossfade" dur="0.6s"/>');
    expect(text).toContain('<transition xml:id="slide-500" type="pushWipe" subtype="fromRight" dur="0.5s"/>');
    expect(text).toMatch(
      /<video src="buoy.mp4" region="screen" dur="2s" fit="slice" mediaAlign="center" clipBegin="0.5s" soundLevel="40%" transIn="wipe-300" title="Buoy"\/>/,
    );
    expect(text).toMatch(
      /<img src="fares.webp" region="screen" dur="300s" fit="hidden" mediaAlign="center" transIn="slide-500"/,
    );
    expect(text).toMatch(/<video src="buoy.mp4" region="screen" dur="8s" fit="fill" soundLevel="0%"/);
    expect(text).toContain('begin="wallclock(2026-10-25T01:30:00.000+02:00)"');
    expect(text).toContain('begin="wallclock(2026-10-25T20:00:00.000+01:00)"');
  });

  test('a day without anything is valid too', () => {
    const none = writeSmil(planOf([]), 'hall', day);
    const dtd = '/usr/share/xml/w3c-sgml-lib/schema/dtd/REC-SMIL3-20081201/SMIL30Language.dtd';
    expect(none).not.toContain('<seq');
    execFileSync('xmllint', ['--nonet', '--noout', '--dtdvalid', dtd, '-'], { input: none });
  });

  test('a screen that is not in the plan has none', () => {
    expect(() => writeSmil(whole, 'nowhere', day)).toThrow(RangeError);
  });
});
