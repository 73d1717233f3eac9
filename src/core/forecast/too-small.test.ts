import { readPlan } from '../plan';
import { orThrow } from '../refusal';
import { enlarged, tooSmall } from './too-small';

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
  const plan = orThrow(
    readPlan({
      ...{ format: 'lanternpost/plan', version: 1, network: { name: 'N', backdrop: { playlist: 'loop' } } },
      sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo' }],
      // Alike but for their size, and one of another shape.
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
    }),
  );
  expect([...tooSmall(plan)]).toEqual([
    ['small', 2.4],
    ['pixels', 2.56],
  ]);
});
