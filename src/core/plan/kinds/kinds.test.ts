import { ALL_KINDS, collectionOf, fieldLabel, kindOf, readDocument, type Kind } from '..';
import { fieldSaid } from '../sentences';
import { readRows } from '../../tests/rows';

/** What people read of each kind, and what each refuses: the words are part of the interface. */

const LABELS: Record<Kind, [noun: string, labels: Record<string, string>]> = {
  network: [
    'network',
    {
      name: 'name',
      withoutInput: 'where an input is missing',
      defaultDurationMs: 'usual duration',
      backdrop: 'backdrop',
    },
  ],
  calendar: ['calendar', { name: 'name', dates: 'dates', holidays: 'public holidays' }],
  media: [
    'media file',
    {
      ...{ name: 'name', tags: 'tags', when: 'available', durationMs: 'duration', kind: 'kind', width: 'width' },
      ...{
        focus: 'focus',
        archived: 'archived',
        audio: 'has sound',
        height: 'height',
        bytes: 'bytes',
        added: 'added',
        sha256: 'file',
        type: 'type',
        codec: 'codec',
      },
    },
  ],
  board: ['board', { name: 'name', buttons: 'buttons' }],
  bulletin: ['bulletin', { name: 'name', kind: 'kind', text: 'text', durationMs: 'duration' }],
  cue: ['cue', { name: 'name', key: 'key', lateMs: 'counts if it comes within' }],
  layout: [
    'layout',
    {
      ...{ name: 'name', width: 'width', height: 'height', durationMs: 'duration' },
      ...{ background: 'background', zones: 'zones' },
    },
  ],
  playlist: [
    'playlist',
    { name: 'name', order: 'order', archived: 'archived', waits: 'waits for a key', music: 'music', items: 'items' },
  ],
  profile: [
    'profile',
    {
      ...{ name: 'name', plays: 'plays', codecs: 'codecs', most: 'largest', sound: 'loudspeakers' },
      ...{ touch: 'touch', keys: 'keys', inputs: 'inputs', layers: 'videos at once' },
      ...{ storageBytes: 'storage', watts: 'power', by: 'files come by', stillMs: 'a picture stands' },
      ...{ lacks: 'not from afar', paper: 'electronic paper' },
    },
  ],
  site: [
    'site',
    {
      ...{ name: 'name', timeZone: 'time zone', tags: 'tags', location: 'location' },
      ...{ hours: 'opening hours', backdrop: 'backdrop' },
    },
  ],
  screen: [
    'screen',
    {
      ...{ name: 'name', site: 'site', width: 'width', height: 'height', tags: 'tags' },
      ...{
        profile: 'profile',
        backdrop: 'backdrop',
        keysOff: 'number keys off',
        stepRestMs: 'arrow keys step, and it goes on after',
        lightsOut: 'lights-out',
        notes: 'notes',
        private: 'private',
        glimpseMinutes: 'pictures of it',
        wall: 'wall',
      },
    },
  ],
  booking: [
    'booking',
    {
      ...{ name: 'name', content: 'what', where: 'where', when: 'when', priority: 'priority', takeover: 'takeover' },
      ...{ wake: 'wakes displays', onHold: 'on hold', weave: 'woven in', prepared: 'prepared', drill: 'drill' },
      ...{ cue: 'waits for', forMs: 'lasts', overlay: 'over everything', created: 'created' },
    },
  ],
};

test.each(ALL_KINDS.map((kind) => [kind] as const))('%s: every field has its word', (kind) => {
  const [noun, labels] = LABELS[kind];
  expect(kindOf(kind).noun).toBe(noun);
  expect(Object.fromEntries(Object.keys(kindOf(kind).fields).map((field) => [field, fieldLabel(kind, field)]))).toEqual(
    labels,
  );
});

test('where each kind stands in a plan file', () => {
  const listed = ALL_KINDS.flatMap((kind) => (kind === 'network' ? [] : [collectionOf(kind)]));
  expect(listed).toEqual([
    ...[
      'calendars',
      'media',
      'bulletins',
      'cues',
      'playlists',
      'layouts',
      'profiles',
      'sites',
      'screens',
      'bookings',
      'boards',
    ],
  ]);
});

test('what of a media file is measured and stays', () => {
  expect(kindOf('media').measured).toEqual([
    ...['kind', 'audio', 'width', 'height', 'bytes', 'added', 'sha256', 'type', 'codec'],
  ]);
  expect(kindOf('booking').measured).toBeUndefined();
});

test.each<[Kind, object, string | null]>([
  ['calendar', {}, 'network'],
  ['playlist', {}, 'network'],
  ['layout', {}, 'network'],
  ['cue', {}, 'network'],
  ['bulletin', {}, 'network'],
  ['site', {}, 'network'],
  ['booking', {}, 'network'],
  ['screen', { site: 'quay' }, 'quay'],
  ['media', {}, null],
  ['network', {}, null],
])('names of %s are unique in their scope', (kind, document, scope) =>
  expect(kindOf(kind).nameScope(document as never)).toBe(scope),
);

const GOOD: { readonly [K in Kind]?: object } = {
  calendar: { id: 'a', name: 'A', dates: ['2026-01-01'] },
  media: { id: 'a', name: 'A', kind: 'image', width: 1, height: 1, bytes: 0, added: '2026-01-01T00:00:00Z' },
  site: { id: 'a', name: 'A', timeZone: 'UTC' },
  screen: { id: 'a', name: 'A', site: 's', width: 1, height: 1 },
  bulletin: { id: 'a', name: 'A', kind: 'notice', text: 'Hello' },
  cue: { id: 'a', name: 'A' },
  layout: { id: 'a', name: 'A', width: 1920, height: 1080, zones: [] },
  booking: { id: 'a', name: 'A', content: { media: 'm' }, where: 'all', created: '2026-01-01T00:00:00Z' },
};

const A_SOUND = { kind: 'sound', width: undefined, height: undefined, durationMs: 1000 };
const A_CENTURY = ['2026-01-01', '2125-12-31'];

test.each<[Kind, object, string | null]>([
  ...readRows<[Kind, object, string | null]>('plan/kinds/fields.jsonl'),
  // What JSON can’t say, or only at length. A hundred years have 36 524 or 36 525 days, by the Gregorian calendar’s leap years.
  ['calendar', { dates: Array.from({ length: 4000 }, () => '2026-01-01') }, null],
  [
    'calendar',
    { dates: Array.from({ length: 4001 }, () => '2026-01-01') },
    'A calendar has at most 4000 dates and spans.',
  ],
  ['calendar', { dates: [A_CENTURY, '2126-01-01'] }, null],
  [
    'calendar',
    { dates: [A_CENTURY, '2126-01-01', '2126-01-02'] },
    'A calendar covers at most 36525 days. For longer, give the booking itself first and last dates.',
  ],
  ['media', { width: undefined }, 'A picture or video has a width.'],
  ['media', { kind: 'video', height: undefined }, 'A picture or video has a height.'],
  ['media', { ...A_SOUND }, null],
  ['media', { ...A_SOUND, durationMs: undefined }, 'A sound has a duration.'],
  ['media', { ...A_SOUND, width: 1 }, 'A sound has no width. Remove it.'],
  ['media', { ...A_SOUND, height: 1 }, 'A sound has no height. Remove it.'],
  ['media', { ...A_SOUND, focus: [0, 0] }, 'A sound has no focus. Remove it.'],
  ['media', { sha256: 'a'.repeat(64), type: 'image/svg+xml' }, null],
  ['media', { sha256: 'a'.repeat(63) }, 'A SHA-256 has 64 digits 0-9 and a-f.'],
  ['media', { sha256: `x${'a'.repeat(64)}` }, 'A SHA-256 has 64 digits 0-9 and a-f.'],
  ['media', { sha256: `${'a'.repeat(64)}0` }, 'A SHA-256 has 64 digits 0-9 and a-f.'],
  ['screen', { lightsOut: Array.from({ length: 50 }, () => ({})) }, null],
  ['screen', { lightsOut: Array.from({ length: 51 }, () => ({})) }, 'A screen has at most 50 lights-out times.'],
])('%s with %j', (kind, fields, sentence) => {
  const read = readDocument(kind, { ...GOOD[kind], ...fields });
  expect(read.ok ? null : read.problems.map(({ message }) => message)).toEqual(sentence === null ? null : [sentence]);
});

test('a priority is 3 and a time is always where nothing is said', () => {
  expect(readDocument('booking', GOOD.booking ?? {})).toMatchObject({ ok: true, value: { priority: 3, when: {} } });
});

const days = Array.from({ length: 8 }, (_, i) => `2026-01-0${i + 1}`);

test.each<[Kind, string, unknown, string]>([
  ['calendar', 'dates', [], 'none'],
  ['calendar', 'dates', ['2026-01-01', ['2026-02-01', '2026-02-03']], '2026-01-01, 2026-02-01 to 2026-02-03'],
  ['calendar', 'dates', days.slice(0, 6), days.slice(0, 6).join(', ')],
  ['calendar', 'dates', days, `${days.slice(0, 6).join(', ')} and 2 more`],
  ['calendar', 'holidays', { country: 'NO' }, 'NO'],
  ['calendar', 'holidays', { country: 'DE', region: 'BY' }, 'DE-BY'],
  ['site', 'location', { latitude: 59.9, longitude: 10.7 }, '59.9, 10.7'],
  ['screen', 'site', 'quay', '“QUAY”'],
  ['screen', 'lightsOut', [], 'never'],
  [
    'screen',
    'wall',
    { rows: 2, columns: 3, widthMm: 1210, heightMm: 680.5, betweenMm: 3.5 },
    '2 × 3 displays of 1210 × 680.5 mm, 3.5 mm between them',
  ],
  [
    'screen',
    'lightsOut',
    [{ windows: [['23:00', '05:00']] }, { windows: [['12:00', '13:00']] }],
    'daily 23:00–05:00; daily 12:00–13:00',
  ],
  ['booking', 'takeover', true, 'yes'],
  ['booking', 'onHold', false, 'no'],
  ['booking', 'weave', { share: 0.125 }, '12.5 % of the time'],
  ['booking', 'weave', { every: 300_000 }, 'every 5 min'],
  ['booking', 'prepared', { words: 'Call the harbour', lasts: 1_800_000 }, '“Call the harbour”, for 30 min'],
  ['booking', 'prepared', {}, 'until the all-clear'],
])('%s: %s %j is said', (kind, field, value, said) =>
  expect(fieldSaid(kind, field, value, (_, id) => id.toUpperCase())).toBe(said),
);
