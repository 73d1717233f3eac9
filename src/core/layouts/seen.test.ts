import { parseInstant } from '../instant';
import { smallPlan, type Parts } from '../tests/small-plan';
import { leastLetterMm } from './legible';
import { layoutSeen } from './seen';

const NOON = parseInstant('2026-12-01T12:00:00Z') as number;
const HOUR = 3_600_000;

const PARTS = {
  screens: [
    { id: 'hall', width: 1920, height: 1080, tags: ['hall'] },
    { id: 'gate', width: 1920, height: 1080 },
    { id: 'tall', width: 1080, height: 1920 },
    { id: 'night', width: 1920, height: 1080, lightsOut: [{ windows: [['10:00', '14:00']] }] },
  ],
  media: ['other', { id: 'wide', width: 1920, height: 1080 }],
  playlists: [{ id: 'evening', items: [{ media: 'wide', when: { windows: [['18:00', '20:00']] } }] }],
  layouts: [
    {
      id: 'board',
      zones: [
        { id: 'main', width: 1440, height: 1080, content: { media: 'wide' } },
        { id: 'side', x: 1440, width: 480, content: { media: 'wide' }, where: 'hall' },
        { id: 'low', x: 1440, y: 540, width: 480, content: { playlist: 'evening' } },
        { id: 'late', y: 540, width: 40, content: { bulletin: 'tide' }, when: { windows: [['13:00', '24:00']] } },
        { id: 'bare', y: 540, width: 40 },
      ],
    },
  ],
  bulletins: [{ id: 'tide', text: 'High water at 14:10' }],
} satisfies Parts;

const seen = (more: Parts = {}) => layoutSeen(smallPlan({ ...PARTS, ...more }), 'board', NOON);

test('screens that see a layout alike are one, by size and by the zones that they have; the dark hours of a screen don’t count', () => {
  expect(seen().map(({ screens, isOn }) => [screens, isOn])).toEqual([
    [['gate', 'night'], false],
    [['hall'], false],
    [['tall'], false],
  ]);
  const [, hall, tall] = seen();
  expect(hall?.board.parts[1]).toMatchObject({ media: 'wide', x: 1440 });
  expect(tall?.zones[1]).toMatchObject({ zone: 'side', isThere: false, empty: [] });
});

test('where the layout is really on, the forecast is shown and not a trial', () => {
  const bookings = [{ id: 'b', content: { layout: 'board' }, where: 'hall' }];
  const [on] = seen({ bookings }).filter(({ isOn }) => isOn);
  expect(on?.screens).toEqual(['hall']);
  const overlay = { id: 'b', content: { layout: 'board' }, overlay: {}, where: 'hall' };
  const [above] = seen({ bookings: [overlay] }).filter(({ isOn }) => isOn);
  expect(above).toMatchObject({
    screens: ['hall'],
    board: { id: 'board', parts: [{ media: 'wide' }, {}, {}, {}, {}] },
  });
});

test('each zone says when it is empty in the day ahead, and why', () => {
  const [, hall] = seen();
  const empty = hall?.zones.map(({ zone, why, empty: times }) => [
    zone,
    why,
    times.map((time) => time.map((at) => (at - NOON) / HOUR)),
  ]);
  expect(empty).toEqual([
    ['main', null, []],
    ['side', null, []],
    [
      'low',
      'what it shows',
      [
        [0, 6],
        [8, 24],
      ],
    ],
    [
      'late',
      'its time',
      [
        [0, 1],
        [12, 24],
      ],
    ],
    ['bare', 'nothing chosen', [[0, 24]]],
  ]);
});

test('writing that can’t be read from 5 m is found: in a picture that is small on the glass, in words in a narrow zone', () => {
  // 16 minutes of arc at 5 m, worked out by hand: 5000 mm × 0.004654.
  expect(leastLetterMm(5)).toBeCloseTo(23.27, 2);
  const [, hall, tall] = seen();
  const small = (one: typeof hall) =>
    one?.zones.flatMap(({ zone, small: found }) => (found ? [[zone, Math.round(found.mm)]] : []));
  // 43 inches are 0.496 mm a pixel: a sixteenth of 810 and of 270 pixels.
  expect(small(hall)).toEqual([
    ['side', 8],
    ['late', 8],
  ]);
  // On a tall screen the layout is 9/16 as large.
  expect(small(tall)).toEqual([
    ['main', 14],
    ['late', 4],
  ]);
  const wall = { rows: 2, columns: 2, widthMm: 1500, heightMm: 844, betweenMm: 0 };
  const screens = [{ id: 'wall', width: 1920, height: 1080, tags: ['hall'], wall }];
  expect(small(seen({ screens })[0])).toEqual([]);
});
