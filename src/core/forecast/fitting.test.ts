import { drawnSize, enlarged, misfits, newMisfits, standingOf, tooSmall } from './fitting';
import { smallPlan } from '../tests/small-plan';

test.each([
  [[960, 540], [1920, 1080], 'whole', 2],
  [[960, 540], [1080, 1920], 'whole', 1.125],
  [[960, 540], [1080, 1920], 'fill', 1920 / 540],
  [[960, 540], [1080, 1920], 'stretch', 1920 / 540],
  [[960, 540], [1080, 1920], 'exact', 1],
  [[3840, 2160], [1920, 1080], 'fill', 0.5],
] as const)('%j on %j, %s, is enlarged %d times', ([width, height], [w, h], fit, times) => {
  expect(enlarged({ width, height }, { width: w, height: h }, fit)).toBeCloseTo(times);
});

test('files that are too small for a screen that shows them are found, on every size of screens that are otherwise alike', () => {
  const file = (id: string, width: number, height: number) => ({
    ...{ id, name: id, kind: 'image', width, height, bytes: 1, added: '2026-01-01T00:00:00Z' },
  });
  const screen = (id: string, width: number, height: number, tags: string[] = []) => ({
    ...{ id, name: id, site: 'quay', width, height, tags },
  });
  const booking = { created: '2026-01-01T00:00:00Z' };
  const plan = smallPlan({
    network: { backdrop: { playlist: 'loop' } },
    sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo' }],
    screens: [screen('a', 800, 480), screen('b', 1920, 1080), screen('c', 384, 768, ['wall'])],
    media: [
      file('small', 800, 450),
      file('large', 1920, 1080),
      file('nearly', 1600, 900),
      file('pixels', 300, 300),
      file('idle', 10, 10),
      { ...file('gone', 10, 10), archived: true },
    ],
    playlists: [
      {
        ...{ id: 'loop', name: 'Loop' },
        items: [
          { media: 'small', where: 'not wall' },
          { media: 'large' },
          { media: 'nearly', where: 'not wall' },
          { media: 'pixels', where: 'wall', fit: 'fill' },
          { media: 'idle', fit: 'exact' },
          { media: 'gone' },
        ],
      },
    ],
    bookings: [
      { ...booking, id: 'held', name: 'Held', content: { media: 'idle' }, where: 'wall', onHold: true },
      {
        ...booking,
        id: 'far',
        name: 'Far',
        content: { media: 'large' },
        where: 'wall',
        when: { from: '2030-01-01' },
      },
    ],
  });
  expect([...tooSmall(plan)]).toEqual([
    ['small', 2.4],
    ['pixels', 2.56],
  ]);
});

// CSS Images 3, section 5.5 (object-fit): contain, cover, fill and none, which is how a browser player draws them.
test.each([
  [[1080, 1920], [1920, 1080], 'whole', { width: 607.5, height: 1080 }],
  [[1080, 1920], [1920, 1080], 'fill', { width: 1920, height: 3413.333 }],
  [[1080, 1920], [1920, 1080], 'stretch', { width: 1920, height: 1080 }],
  [[1080, 1920], [1920, 1080], 'exact', { width: 1080, height: 1920 }],
] as const)('%j on %j, %s, is drawn so large', ([width, height], [w, h], fit, drawn) => {
  const size = drawnSize({ width, height }, { width: w, height: h }, fit);
  expect(size.width).toBeCloseTo(drawn.width, 3);
  expect(size.height).toBeCloseTo(drawn.height, 3);
});

test('what stays empty, is cut off, and loses its shape', () => {
  const [file, screen] = [
    { width: 1080, height: 1920 },
    { width: 1920, height: 1080 },
  ];
  expect(standingOf(file, screen)).toEqual({ bars: 1 - 607.5 / 1920, cut: 0, scale: 0.5625, stretched: 1 });
  expect(standingOf(file, screen, 'fill').cut).toBeCloseTo(1 - 1080 / (1920 * (1920 / 1080)));
  expect(standingOf(file, screen, 'stretch')).toMatchObject({ bars: 0, cut: 0, stretched: (16 / 9) ** 2 });
  const exact = standingOf(file, screen, 'exact');
  expect(exact).toEqual({ bars: 1 - 1080 / 1920, cut: 1 - 1080 / 1920, scale: 1, stretched: 1 });
});

describe('what does not fit', () => {
  const file = (id: string, width: number, height: number) => ({
    ...{ id, name: id, kind: 'image', width, height, bytes: 1, added: '2026-01-01T00:00:00Z' },
  });
  const plan = (items: object[], screens: [id: string, width: number, height: number][]) =>
    smallPlan({
      network: { backdrop: { playlist: 'loop' } },
      sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo' }],
      screens: screens.map(([id, width, height]) => ({ id, name: id, site: 'quay', width, height })),
      media: [file('wide', 1920, 1080), file('nearly', 1900, 1080), file('tall', 1080, 1920), file('tiny', 640, 360)],
      playlists: [{ id: 'loop', name: 'Loop', items }],
    });
  const walls: [string, number, number][] = [
    ['a', 1920, 1080],
    ['b', 1920, 1080],
    ['c', 1080, 1920],
  ];
  const of = (items: object[], screens = walls, only = ['a', 'b', 'c']) => misfits(plan(items, screens), new Set(only));
  const told = (list: readonly { media: string; fit: string; screens: readonly string[] }[]) =>
    list.map(({ media, fit, screens }) => `${media} ${fit} on ${screens.join(' ')}`);

  test('is told by file, fit and size, the most screens first; what is barely off is none', () => {
    expect(
      told(of([{ media: 'wide' }, { media: 'nearly' }, { media: 'tall', fit: 'fill' }, { media: 'tiny' }])),
    ).toEqual(['tall fill on a b', 'tiny whole on a b', 'nearly whole on c', 'tiny whole on c', 'wide whole on c']);
    expect(told(of([{ media: 'wide' }], walls, ['a', 'b']))).toEqual([]);
  });

  test('is new where it was not so before: another fit, another size, or more screens', () => {
    const before = of([{ media: 'tall' }, { media: 'tiny' }], walls.slice(0, 2));
    expect(newMisfits(before, before)).toEqual([]);
    const after = of([{ media: 'tall', fit: 'stretch' }, { media: 'tiny' }]);
    expect(told(newMisfits(before, after))).toEqual(['tall stretch on a b', 'tiny whole on c']);
    expect(told(newMisfits([], after))).toEqual(told(after));
    const one = of([{ media: 'tiny' }], walls, ['a']);
    expect(told(newMisfits(one, of([{ media: 'tiny' }], walls, ['a', 'b'])))).toEqual(['tiny whole on b']);
  });
});
