import type { ProgramDocument } from '../edition/compile';
import { compileEdition } from '../edition';
import { orThrow } from '../refusal';
import { smallPlan } from '../tests/small-plan';
import { fieldsOf, looksAt, placedOn, verdictOf, type Fields, type Look, type Looks } from '.';

type Colour = readonly [number, number, number];

/** A picture of two halves, 80 × 40 pixels: left and right. */
const halves = (left: Colour, right: Colour): Fields =>
  fieldsOf({
    ...{ width: 80, height: 40 },
    data: Uint8Array.from({ length: 80 * 40 * 3 }, (_, i) => (Math.floor(i / 3) % 80 < 40 ? left : right)[i % 3] ?? 0),
  });
const RED = [200, 40, 40] as const;
const BLUE = [40, 60, 200] as const;
const WHITE = [240, 240, 230] as const;
const mixed = (share: number): Colour =>
  [0, 1, 2].map((c) => (RED[c] ?? 0) * (1 - share) + (BLUE[c] ?? 0) * share) as unknown as Colour;

test('fields have the mean colour of their part', () => {
  const fields = halves(RED, BLUE);
  expect([fields.length, fields[0], fields[3], fields[4], fields[63]]).toEqual([64, RED, RED, BLUE, BLUE]);
  expect(() => fieldsOf({ width: 7, height: 9, data: new Uint8Array(189) })).toThrow(RangeError);
});

test.each([
  ['the same', halves(RED, WHITE), [halves(RED, WHITE)], false, 'alike'],
  [
    'a little brighter all over, as a codec or a camera makes it',
    halves([208, 50, 46], WHITE),
    [halves(RED, WHITE)],
    false,
    'alike',
  ],
  ['another picture', halves(BLUE, WHITE), [halves(RED, WHITE)], false, 'differs'],
  ['one half wrong', halves(RED, BLUE), [halves(RED, WHITE)], false, 'differs'],
  ['black', halves([2, 2, 2], [0, 3, 0]), [halves(RED, WHITE)], false, 'black'],
  ['black in lights-out hours', halves([2, 2, 2], [0, 3, 0]), [halves([0, 0, 0], [0, 0, 0])], false, 'alike'],
  ['the picture before, near a change', halves(RED, RED), [halves(RED, RED), halves(BLUE, BLUE)], false, 'alike'],
  ['half way through a fade', halves(mixed(0.5), mixed(0.5)), [halves(RED, RED), halves(BLUE, BLUE)], true, 'alike'],
  ['a wipe that is half way', halves(RED, BLUE), [halves(RED, RED), halves(BLUE, BLUE)], true, 'alike'],
  [
    'the same mixture where nothing changes',
    halves(mixed(0.5), mixed(0.5)),
    [halves(RED, RED), halves(BLUE, BLUE)],
    false,
    'differs',
  ],
  ['something else during a transition', halves(WHITE, WHITE), [halves(RED, RED), halves(BLUE, BLUE)], true, 'unsure'],
] as const)('%s', (_what, seen, looks, changing, verdict) => {
  expect(verdictOf(seen, looks, changing)).toBe(verdict);
});

/** A screen that shows two pictures of ten seconds in turn, the second with a fade of a second. */
function program(): ProgramDocument {
  const plan = smallPlan({
    media: ['a', 'b'].map((id) => ({
      ...{ id, name: id, kind: 'image' as const, width: 1920, height: 1080, bytes: 10 },
      ...{ sha256: id.repeat(64), type: 'image/png', focus: [0.5, 0] as [number, number] },
    })),
    playlists: [
      {
        ...{ id: 'loop', name: 'Loop' },
        items: [
          { media: 'a', durationMs: 10_000 },
          { media: 'b', durationMs: 10_000, transition: { kind: 'fade', ms: 1000 } },
        ],
      },
    ],
    screens: [
      {
        id: 'hall',
        name: 'Hall',
        site: 'quay',
        width: 1920,
        height: 1080,
        backdrop: { playlist: 'loop' },
        lightsOut: [{ windows: [['23:00', '05:00']] }],
      },
    ],
  });
  const { programs } = orThrow(compileEdition(plan));
  return JSON.parse([...programs.values()][0] ?? '') as ProgramDocument;
}

test('what may be seen at an instant: what is due, the neighbour of a change, and both during a transition', () => {
  const made = program();
  const noon = Date.UTC(2026, 11, 1, 12);
  const at = (ms: number) => {
    const { looks, due, changing } = looksAt(made, noon + ms);
    const name = (look: (typeof looks)[number] | null) => (look?.kind === 'file' ? look.media : (look?.kind ?? 'card'));
    return `${looks.map(name).join()} ${name(due)}${changing ? ' changing' : ''}`;
  };
  // A day's loop begins at its midnight: noon is at the beginning of a pass.
  expect(at(5000)).toBe('a a');
  expect(at(9600)).toBe('a,b a changing');
  expect(at(10_500)).toBe('a,b b changing');
  expect(at(11_500)).toBe('a,b b changing');
  expect(at(11_800)).toBe('b b');
  // From the second back to the first is a cut: either counts, for a moment.
  expect(at(19_500)).toBe('b,a b');
  expect(at(20_400)).toBe('b,a a');
  expect(at(12 * 3_600_000)).toBe('black black');
});

test('of a layout each zone has what may be seen in it, and an overlay is above; a card and an input are known by name alone', () => {
  const image = (id: string) => ({
    ...{ id, name: id, kind: 'image' as const, width: 1920, height: 1080, bytes: 10 },
    ...{ sha256: id.repeat(64), type: 'image/png' },
  });
  const box = { x: 0, y: 0, width: 960, height: 1080 };
  const plan = smallPlan({
    media: ['a', 'b', 'c'].map(image),
    bulletins: ['words'],
    profiles: [{ id: 'tv', inputs: [{ id: 'hdmi-1', name: 'Television' }] }],
    playlists: [
      {
        ...{ id: 'loop', name: 'Loop' },
        items: [
          { media: 'a', durationMs: 10_000 },
          { media: 'b', durationMs: 10_000, transition: { kind: 'fade', ms: 4000 } },
        ],
      },
    ],
    layouts: [
      {
        ...{ id: 'board', name: 'Board', width: 1920, height: 1080, background: '#102030' },
        zones: [
          { id: 'main', ...box, content: { playlist: 'loop' } },
          { id: 'side', ...box, x: 960, height: 540, content: { bulletin: 'words' } },
          {
            id: 'foot',
            ...box,
            x: 960,
            y: 540,
            height: 270,
            when: { windows: [['13:00', '14:00']] },
            content: { media: 'c' },
          },
          { id: 'tv', ...box, x: 960, y: 810, height: 270, content: { input: 'hdmi-1' } },
        ],
      },
      {
        ...{ id: 'badge', name: 'Badge', width: 1920, height: 1080 },
        zones: [{ id: 'corner', ...box, content: { media: 'c' } }],
      },
    ],
    screens: [
      { ...{ id: 'hall', name: 'Hall', site: 'quay', width: 1920, height: 1080 }, backdrop: { layout: 'board' } },
    ],
    bookings: [
      {
        ...{ id: 'corner', content: undefined, overlay: { layout: 'badge' } },
        when: { windows: [['15:00', '16:00']] },
      },
    ],
  });
  const { programs } = orThrow(compileEdition(plan));
  const made = JSON.parse([...programs.values()][0] ?? '') as ProgramDocument;
  const nameOf = (look: Look): string =>
    look.kind === 'file' ? look.media : look.kind === 'layout' ? look.zones.map(placeOf).join(' | ') : look.kind;
  const placeOf = ({ looks, due, changing }: Looks): string =>
    `${looks.map(nameOf).join()} due ${nameOf(due)}${changing ? ' changing' : ''}`;
  const noon = Date.UTC(2026, 11, 1, 12);
  const mainAt = (ms: number) => {
    const { due } = looksAt(made, noon + ms);
    return due.kind === 'layout' && due.zones[0] ? placeOf(due.zones[0]) : '';
  };
  const { due, above } = looksAt(made, noon + 5000);
  expect(nameOf(due)).toBe('a due a | words due words | nothing due nothing | input due input');
  expect(due).toMatchObject({
    background: '#102030',
    zones: [{ x: 0 }, { due: { text: 'Hello' } }, {}, { due: { text: 'hdmi-1' } }],
  });
  expect(above).toEqual([]);
  expect([9500, 13_000, 14_900].map(mainAt)).toEqual(['a,b due a changing', 'a,b due b changing', 'b due b']);
  // The foot begins and ends at its own times.
  const footAt = (ms: number) => {
    const { due: board } = looksAt(made, noon + ms);
    return board.kind === 'layout' && board.zones[2] ? placeOf(board.zones[2]) : '';
  };
  expect([3_600_000 - 300, 3_600_000 + 300, 3_605_000].map(footAt)).toEqual([
    'c,nothing due nothing',
    'c,nothing due c',
    'c due c',
  ]);
  const over = (ms: number) => looksAt(made, noon + 3 * 3_600_000 + ms).above.map(placeOf);
  expect([over(-300), over(5000)]).toEqual([['c,nothing due nothing,nothing due nothing'], ['c due c due c due c']]);
});

test.each([
  ['whole', { width: 100, height: 100, left: 50, top: 0 }],
  ['fill', { width: 200, height: 200, left: 0, top: -25 }],
  ['stretch', { width: 200, height: 100, left: 0, top: 0 }],
  ['exact', { width: 400, height: 400, left: -100, top: -75 }],
] as const)('a square file on a wide screen: %s, its focus a quarter from its top', (fit, placed) => {
  expect(placedOn({ width: 200, height: 100 }, { width: 400, height: 400 }, fit, [0.5, 0.25])).toEqual(placed);
});
