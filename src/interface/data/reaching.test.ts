import type { Planned } from '@/services/editions';
import { joined, lastFor, stepsOf, together } from './reaching';

const at = (hour: number) => new Date(Date.UTC(2026, 11, 1, hour)).toISOString();
const ms = (hour: number) => Date.parse(at(hour));
const planned = (id: string, values: Partial<Planned>): Planned => ({
  ...{
    id,
    at: null,
    siteTime: null,
    steps: [],
    pilot: null,
    wentBack: null,
    person: null,
    note: null,
    screens: [],
    ready: 0,
  },
  ...values,
});
const sites = planned('sites', {
  at: at(6),
  steps: [
    { at: at(4), screens: ['hall'] },
    { at: at(5), screens: ['deck'] },
    { at: at(6), screens: ['hut'] },
  ],
});
const pilot = planned('pilot', { steps: [{ at: at(1), screens: ['hall'] }] });
const plain = planned('plain', { at: at(8) });

test('what waits is steps: one for an instant, as many as there are clocks for a time at each site, one for a pilot', () => {
  expect(stepsOf([plain])).toEqual([{ id: 'plain', at: ms(8), screens: null }]);
  expect(stepsOf([sites])).toEqual([
    { id: 'sites', at: ms(4), screens: new Set(['hall']) },
    { id: 'sites', at: ms(5), screens: new Set(['deck']) },
    { id: 'sites', at: ms(6), screens: null },
  ]);
  expect(stepsOf([pilot])).toEqual([{ id: 'pilot', at: ms(1), screens: new Set(['hall']) }]);
});

test('a screen goes by the last step that is for it', () => {
  const steps = stepsOf([sites, plain]);
  expect(['hall', 'deck', 'hut'].map((screen) => lastFor(steps.slice(0, 1), screen)?.id)).toEqual([
    'sites',
    undefined,
    undefined,
  ]);
  expect(lastFor(steps.slice(0, 3), 'new')?.at).toBe(ms(6));
  expect(lastFor(steps, 'hall')?.id).toBe('plain');
});

test('screens are together where the same steps are for them', () => {
  const all = ['hall', 'deck', 'hut', 'pier'];
  expect(together(stepsOf([plain]), all)).toEqual([{ screens: null, steps: stepsOf([plain]) }]);
  const groups = together(stepsOf([sites, plain]), all);
  expect(
    groups.map(({ screens, steps }) => [screens?.join(), steps.map((step) => new Date(step.at).getUTCHours())]),
  ).toEqual([
    ['hall', [4, 6, 8]],
    ['deck', [5, 6, 8]],
    ['hut,pier', [6, 8]],
  ]);
});

test('changes of several groups are one list: at the same instant they are counted together', () => {
  const change = (hour: number, screens: number, takeover = false) => ({ at: ms(hour), screens, takeover });
  expect(
    joined([
      [change(2, 1), change(4, 3)],
      [change(1, 1), change(4, 2, true)],
    ]),
  ).toEqual([change(1, 1), change(2, 1), change(4, 5, true)]);
});
