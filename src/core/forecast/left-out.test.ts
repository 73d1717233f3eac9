import { parseInstant } from '../instant';
import { leftOut, passesOf } from '.';
import { smallPlan } from '../tests/small-plan';

const at = (text: string) => parseInstant(text) as number;
const FILE = { bytes: 1, added: '2026-01-01T00:00:00Z' };
const evenings = { windows: [['18:00', '22:00']] as [string, string][] };

const plan = smallPlan({
  calendars: [{ id: 'storm', name: 'Storm', dates: ['2026-12-05'] }],
  sites: [{ id: 'quay', name: 'Quay', timeZone: 'Europe/Oslo', tags: ['outdoor'] }],
  screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 2, height: 1 }],
  media: [
    { id: 'flag', name: 'Flag', kind: 'image', width: 1, height: 1, ...FILE },
    { id: 'gale', name: 'Gale', kind: 'image', width: 1, height: 1, when: { only: ['storm'] }, ...FILE },
    { id: 'waves', name: 'Waves', kind: 'sound', durationMs: 1_000, ...FILE },
  ],
  playlists: [
    { id: 'inner', name: 'Inner', items: [{ media: 'flag', where: 'kiosk' }] },
    {
      id: 'loop',
      name: 'Loop',
      items: [
        { media: 'flag', where: 'outdoor' },
        { media: 'flag', where: 'kiosk' },
        { media: 'waves' },
        { collect: 'offer' },
        { playlist: 'inner' },
        { media: 'flag', when: evenings },
        { media: 'gale' },
      ],
    },
  ],
});
const out = (instant: string) => {
  const playlist = plan.playlists.find(({ id }) => id === 'loop') as (typeof plan.playlists)[number];
  return leftOut(plan, playlist, passesOf(plan, 'loop')[0], 'hall', at(instant)).map(({ item, reason }) => [
    item,
    reason,
  ]);
};

test('what a screen does not show is told by its reason, the time by the clock of its site', () => {
  const always = [
    [1, { kind: 'elsewhere', where: 'kiosk' }],
    [2, { kind: 'sound' }],
    [3, { kind: 'no file' }],
    [4, { kind: 'empty' }],
  ];
  expect(out('2026-12-01T16:59:59Z')).toEqual([
    ...always,
    [5, { kind: 'not now', when: evenings }],
    [6, { kind: 'not now', when: { only: ['storm'] } }],
  ]);
  // 18:00 in Oslo.
  expect(out('2026-12-01T17:00:00Z')).toEqual([...always, [6, { kind: 'not now', when: { only: ['storm'] } }]]);
  expect(out('2026-12-05T12:00:00Z')).toEqual([...always, [5, { kind: 'not now', when: evenings }]]);
});
