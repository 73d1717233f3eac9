import { parseInstant } from '../instant';
import { withPatches, type Item } from '../plan';
import { findings } from '.';
import { smallPlan } from '../tests/small-plan';

const at = (text: string) => parseInstant(text) as number;
const [from, to] = [at('2026-12-01T00:00:00Z'), at('2026-12-02T00:00:00Z')];
const FILE = { bytes: 1, added: '2026-01-01T00:00:00Z' };

const planOf = (items: Item[], { music = true, inner = [] as Item[] } = {}) =>
  smallPlan({
    network: { backdrop: { media: 'flag' } },
    screens: [{ id: 'hall', name: 'Hall', site: 'quay', width: 2, height: 1 }],
    media: [
      { id: 'flag', name: 'Flag', kind: 'image', width: 1, height: 1, ...FILE },
      { id: 'horn', name: 'Horn', kind: 'video', audio: true, width: 1, height: 1, durationMs: 4_000, ...FILE },
      { id: 'waves', name: 'Waves', kind: 'sound', durationMs: 4_000, ...FILE },
    ],
    playlists: [
      { id: 'sea', name: 'Sea', items: [{ media: 'waves' }] },
      { id: 'inner', name: 'Inner', items: inner },
      { id: 'loop', name: 'Loop', items, ...(music ? { music: { playlist: 'sea', volume: 0.5 } } : {}) },
    ],
    bookings: [
      {
        ...{ id: 'b', name: 'B', content: { playlist: 'loop' } },
        when: { windows: [['06:00', '07:00']] },
      },
    ],
  });
const found = (plan: ReturnType<typeof planOf>) =>
  findings(plan, from, to).filter(({ kind }) => kind === 'two sounds at once');

test('music and the sound of a film at once are told, while they show, with what would end it', () => {
  const plan = planOf([{ media: 'flag' }, { media: 'horn', volume: 0.8 }]);
  const [one, ...others] = found(plan);
  expect(others).toEqual([]);
  expect(one).toMatchObject({
    ...{ severity: 'warning', about: ['horn'], screens: ['hall'] },
    times: [[at('2026-12-01T06:00:00Z'), at('2026-12-01T07:00:00Z')]],
    sentence: '“Horn” sounds while the music of “Loop” plays, so both are heard at once.',
  });
  expect(one?.fixes.map(({ label }) => label)).toEqual(['Silence “Horn”', 'Remove the music of “Loop”']);
  for (const fix of one?.fixes ?? []) expect(found(withPatches(plan, fix.edits))).toEqual([]);
});

test('a silent film, a film without music beside it, and music alone are none', () => {
  expect(found(planOf([{ media: 'horn' }]))).toEqual([]);
  expect(found(planOf([{ media: 'horn', volume: 1 }], { music: false }))).toEqual([]);
  expect(found(planOf([{ media: 'flag' }]))).toEqual([]);
});

test('a film that sounds by a nested playlist is told, and only the music can be taken off', () => {
  const plan = planOf([{ playlist: 'inner' }], { inner: [{ media: 'horn', volume: 1 }] });
  expect(found(plan).flatMap(({ fixes }) => fixes.map(({ label }) => label))).toEqual(['Remove the music of “Loop”']);
});
