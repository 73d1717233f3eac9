import { orThrow } from '../refusal';
import { planFile, readPlan, sharing, type Plan } from '../plan';
import { programOf } from '../tests/program-of';
import { smallPlanFile } from '../tests/small-plan';
import { compileEdition } from '.';

/** What a program says of presses at its screen: number keys, and zones that fire when they are touched. */

const FILE = smallPlanFile({
  media: [{ id: 'flag', sha256: 'a'.repeat(64), type: 'image/png' }],
  screens: [
    { id: 'mess', tags: ['mess'] },
    { id: 'bar', tags: ['mess'] },
    { id: 'hall', tags: ['hall'] },
  ],
  cues: [{ id: 'ours', key: 1 }, { id: 'tv', key: 2 }, 'song'],
  layouts: [
    {
      id: 'kiosk',
      zones: [{ id: 'greet', content: { media: 'flag' }, touch: { cue: 'song', where: 'screen:bar' } }],
    },
  ],
  bookings: [
    { id: 'tv', where: 'mess', cue: 'tv' },
    { id: 'kiosk', content: { layout: 'kiosk' } },
  ],
}) as Plan;
const plan = orThrow(readPlan(FILE));
const changed = (change: Partial<Plan>) => sharing(plan, orThrow(readPlan({ ...planFile(plan), ...change })));
const keysOf = (of: Plan, screen: string) =>
  programOf(of, screen).document.keys?.map(({ key, cue }) => `${key} ${cue}`);

test('a screen knows its number keys, the way back among them, if one of them brings something there', () => {
  expect(keysOf(plan, 'mess')).toEqual(['1 ours', '2 tv']);
  expect(keysOf(plan, 'hall')).toBeUndefined();
  const off = changed({ screens: plan.screens.map((one) => (one.id === 'bar' ? { ...one, keysOff: true } : one)) });
  expect([keysOf(off, 'bar'), keysOf(off, 'mess')]).toEqual([undefined, ['1 ours', '2 tv']]);
});

test('a touch counts at once on the screens where its zone fires, though no selector else tells them apart', () => {
  const here = (screen: string) => programOf(plan, screen).document.layouts?.kiosk?.zones[0]?.touch;
  expect(here('bar')).toEqual({ cue: 'song', here: true });
  expect(here('mess')).toEqual({ cue: 'song' });
});

test('a key that changes, or comes, is compiled for all screens that list it', () => {
  const base = orThrow(compileEdition(plan));
  const cues = (list: Plan['cues']) => changed({ cues: list });
  for (const after of [
    cues(plan.cues.map((one) => (one.id === 'ours' ? { ...one, key: 3 } : one))),
    cues(plan.cues.map((one) => (one.id === 'ours' ? { ...one, name: 'Back' } : one))),
    cues(plan.cues.map((one) => (one.id === 'song' ? { ...one, key: 5 } : one))),
    cues(plan.cues.filter(({ id }) => id !== 'ours')),
  ]) {
    const next = orThrow(compileEdition(after, { plan, screens: base.screens }));
    expect([...next.screens]).toEqual([...orThrow(compileEdition(after)).screens]);
    expect(next.screens.get('mess')).not.toBe(base.screens.get('mess'));
    expect(next.screens.get('hall')).toBe(base.screens.get('hall'));
  }
});
