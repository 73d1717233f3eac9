import type { Glance, Segment } from '@/core/forecast';
import { HOUR } from '@/core/instant';
import { emptyPlan } from '@/core/plan';
import type { Ahead } from '@/interface/data/planned';
import { NextAhead, nextDay, withTakes } from './next-ahead';

const at = (hour: number) => Date.UTC(2026, 11, 1, hour);
const plan = (key: string) => ({ key, plan: emptyPlan(key) });
const [out, fair, winter] = [plan('out'), plan('fair'), plan('winter')];
const glance = (id: string, next: [hour: number, id: string] | null, screen = 'hall'): Glance => ({
  ...{ screen, source: 'booking', id, media: null, until: null },
  next: next && { at: at(next[0]), source: 'booking', id: next[1] },
});
const step = (hour: number, of: typeof out | undefined, screens: string[] | null = null): Ahead => ({
  ...{ id: of?.key ?? 'unknown', at: at(hour), plan: of, failed: false },
  screens: screens && new Set(screens),
});

describe('what a screen shows next', () => {
  const take = (hour: number, of: typeof out, then: Glance) => ({ at: at(hour), plan: of.plan, glance: then });
  test.each([
    ['the plan of now changes it first', glance('a', [9, 'b']), [take(10, fair, glance('c', null))], [9, 'b']],
    ['an edition takes over first', glance('a', [12, 'b']), [take(10, fair, glance('c', null))], [10, 'c', 'fair']],
    ['an edition takes over what stays so', glance('a', null), [take(10, fair, glance('c', null))], [10, 'c', 'fair']],
    [
      'one that shows the same has its own next',
      glance('a', [12, 'b']),
      [take(10, fair, glance('a', [15, 'd']))],
      [15, 'd', 'fair'],
    ],
    ['one that shows the same, and goes on so', glance('a', [12, 'b']), [take(10, fair, glance('a', null))], null],
    [
      'a second one takes over from the first',
      glance('a', [12, 'b']),
      [take(10, fair, glance('a', [15, 'd'])), take(11, winter, glance('e', null))],
      [11, 'e', 'winter'],
    ],
  ])('%s', (_, now, takes, expected) => {
    const { next } = withTakes(now, takes);
    expect(next && [new Date(next.at).getUTCHours(), next.id, ...(next.by ? [next.by.network.name] : [])]).toEqual(
      expected,
    );
  });

  test('it is asked for once, of the screens that are meant; the others stay the same object', async () => {
    const asked: string[] = [];
    const ahead = new NextAhead((by, hour, screens) => {
      asked.push(`${by.key} ${new Date(hour).getUTCHours()} ${screens.join()}`);
      return Promise.resolve(screens.map((screen) => glance('c', null, screen)));
    });
    const glances = new Map([
      ['hall', glance('a', [12, 'b'])],
      ['deck', glance('a', [12, 'b'], 'deck')],
    ]);
    const steps = [step(10, fair, ['hall']), step(11, undefined)];
    const laterOf = (screen: string) => steps.filter(({ screens }) => screens?.has(screen) ?? true);
    const first = await ahead.of(glances, at(8), laterOf);
    expect(first.get('hall')?.next).toMatchObject({ at: at(10), id: 'c', by: fair.plan });
    expect(first.get('deck')).toBe(glances.get('deck'));
    const second = await ahead.of(glances, at(9), laterOf);
    expect(second.get('hall')).toBe(first.get('hall'));
    expect(asked).toEqual(['fair 10 hall']);
  });

  test('where nothing takes over within a day, the glances are as they were', async () => {
    const glances = new Map([['hall', glance('a', null)]]);
    const ahead = new NextAhead(() => Promise.reject(new Error('asked')));
    expect(await ahead.of(glances, at(8), () => [])).toBe(glances);
    expect(await ahead.of(glances, at(8), () => [step(8 + 24, fair)])).toBe(glances);
  });
});

test("a screen's next day goes by each edition from its instant on, up to one that is not here yet", async () => {
  const asks = (by: typeof out, from: number, to: number) =>
    Promise.resolve([{ source: 'booking', id: by.key, from: from - HOUR, to } as Segment]);
  const told = async (later: readonly Ahead[]) =>
    (await nextDay(at(8), out, later, asks)).map(
      (one) =>
        `${new Date(one.at).getUTCHours()} ${one.segment.id} ${new Date(one.segment.to).getUTCHours()}${one.waits ? ' waits' : ''}`,
    );
  expect(await told([])).toEqual(['8 out 8']);
  expect(await told([step(10, fair), step(12, winter), step(8 + 24, fair)])).toEqual([
    '8 out 10',
    '10 fair 12 waits',
    '12 winter 8 waits',
  ]);
  expect(await told([step(10, fair), step(12, undefined), step(14, winter)])).toEqual(['8 out 10', '10 fair 12 waits']);
});
