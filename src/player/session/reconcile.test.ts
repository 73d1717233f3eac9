import type { Asset, ProgramDocument } from '@/core/playing';
import type { Target } from '@/protocol/schemas';
import { FIRST_DAY, type Need } from './needs';
import {
  downloadOf,
  isReady,
  missingOf,
  nextBegin,
  nextStep,
  sourceIn,
  stepKey,
  type HeldFile,
  type HeldState,
  type Program,
  wantedAt,
  withoutStandIns,
} from './reconcile';

const NOW = 1_000_000_000_000;
const asset = (sha256: string, bytes = 100): Asset => ({
  ...{ kind: 'image', sha256, bytes, type: 'image/png', width: 1, height: 1 },
});
const need = (sha256: string, by: number, bytes = 100): Need => ({ asset: asset(sha256, bytes), by });
const program = (hash: string, ...needs: Need[]): Program => ({ hash, document: {} as ProgramDocument, needs });
const target = (hash: string | null, edition: number | null = 1): Target => ({
  screen: { id: 's', name: 'S', width: 1, height: 1 },
  edition,
  program: hash,
  serverTime: NOW,
});
const whole: HeldFile = { bytes: 0, whole: true };
const held = (values: Partial<HeldState> = {}): HeldState => ({
  ...{ program: null, next: null, coming: [], files: new Map(), full: false },
  ...values,
});
const files = (...names: string[]) => new Map(names.map((name) => [name, whole]));
const playing = (one: Program, edition: number | null = 1) => ({ ...one, edition });

describe('the next step', () => {
  test('nothing is wanted and nothing held: there is none', () => {
    expect(nextStep(null, held(), NOW)).toBeNull();
    expect(nextStep(target(null), held(), NOW)).toBeNull();
  });

  test('a program that is not here is fetched, also while another is being made ready', () => {
    expect(nextStep(target('b'), held(), NOW)).toEqual({ kind: 'program', hash: 'b' });
    expect(nextStep(target('b'), held({ next: program('c') }), NOW)).toEqual({ kind: 'program', hash: 'b' });
    const now = held({ program: playing(program('a', need('late', NOW))) });
    expect(nextStep(target('b'), now, NOW)).toEqual({ kind: 'program', hash: 'b' });
  });

  test('its files of the first day come in order of their need, and then it starts, whatever is needed later', () => {
    const next = program('b', need('one', NOW), need('two', NOW + FIRST_DAY - 1), need('three', NOW + FIRST_DAY));
    const at = (...names: string[]) => nextStep(target('b', 7), held({ next, files: files(...names) }), NOW);
    expect(at()).toEqual({ kind: 'file', asset: asset('one') });
    expect(at('one')).toEqual({ kind: 'file', asset: asset('two') });
    expect(at('two')).toEqual({ kind: 'file', asset: asset('one') });
    expect(at('one', 'two')).toEqual({ kind: 'activate', program: next, edition: 7 });
    const part = new Map([['one', { bytes: 99, whole: false }]]);
    expect(nextStep(target('b'), held({ next, files: part }), NOW)).toEqual({ kind: 'file', asset: asset('one') });
  });

  test('while it plays, what it needs later is fetched; then what no program needs is cleared, one by one', () => {
    const now = playing(program('a', need('one', NOW), need('later', Infinity)));
    const at = (...names: string[]) => nextStep(target('a'), held({ program: now, files: files(...names) }), NOW);
    expect(at('one', 'old')).toEqual({ kind: 'file', asset: asset('later') });
    expect(at('one', 'later', 'old')).toEqual({ kind: 'clear', sha256: 'old' });
    expect(at('one', 'later')).toBeNull();
  });

  test('the same program by another edition is told before its files go on', () => {
    const now = held({ program: playing(program('a', need('one', NOW)), 1) });
    expect(nextStep(target('a', 2), now, NOW)).toEqual({ kind: 'edition', edition: 2 });
    expect(nextStep(target('a', 1), now, NOW)).toEqual({ kind: 'file', asset: asset('one') });
  });

  test('without a target, or with one that names no program, what plays goes on, files and all', () => {
    const now = held({ program: playing(program('a', need('one', NOW))) });
    for (const none of [null, target(null)])
      expect(nextStep(none, now, NOW)).toEqual({ kind: 'file', asset: asset('one') });
  });

  test('where storage is full, what neither program needs goes first; what plays and what comes is kept', () => {
    const next = program('b', need('two', NOW));
    const full = (...names: string[]) =>
      nextStep(
        target('b'),
        held({ program: playing(program('a', need('one', NOW))), next, files: files(...names), full: true }),
        NOW,
      );
    expect(full('one', 'two', 'old')).toEqual({ kind: 'clear', sha256: 'old' });
    expect(full('one')).toEqual({ kind: 'file', asset: asset('two') });
    expect(full('one', 'two')).toMatchObject({ kind: 'activate' });
    // What was being made ready for another wish is not kept.
    const other = held({ program: playing(program('a')), next, files: files('two'), full: true });
    expect(nextStep(target('c'), other, NOW)).toEqual({ kind: 'clear', sha256: 'two' });
    expect(nextStep(target('a'), other, NOW)).toEqual({ kind: 'clear', sha256: 'two' });
    // While nothing plays nothing is thrown away.
    expect(nextStep(target('b'), held({ files: files('old'), full: true }), NOW)).toMatchObject({ kind: 'program' });
  });

  test('steps are told apart by what they are about', () => {
    expect([
      stepKey({ kind: 'program', hash: 'h' }),
      stepKey({ kind: 'edition', edition: 4 }),
      stepKey({ kind: 'edition', edition: null }),
      stepKey({ kind: 'file', asset: asset('s') }),
      stepKey({ kind: 'activate', program: program('p'), edition: 1 }),
      stepKey({ kind: 'clear', sha256: 'c' }),
    ]).toEqual(['program h', 'edition 4', 'edition ', 'file s', 'activate p', 'clear c']);
  });
});

describe('what is missing of what plays', () => {
  const now = playing(program('a', need('one', NOW + 0.4, 100), need('two', NOW + 50, 30), need('far', Infinity, 5)));
  const missing = (map: ReadonlyMap<string, HeldFile>) => missingOf(held({ program: now, files: map }));

  test('files and bytes that are not here yet, and when the first is seen, in whole milliseconds', () => {
    expect(missing(new Map())).toEqual({ files: 3, bytes: 135, neededBy: NOW });
    const part = new Map([...files('one'), ['two', { bytes: 10, whole: false }] as const]);
    expect(missing(part)).toEqual({ files: 2, bytes: 25, neededBy: NOW + 50 });
    expect(missing(files('one', 'two'))).toEqual({ files: 1, bytes: 5, neededBy: null });
  });

  test('null where all is here, or nothing plays', () => {
    expect(missing(files('one', 'two', 'far'))).toBeNull();
    expect(missingOf(held())).toBeNull();
  });
});

test('how far the files are that the next program waits for: those of its first day alone', () => {
  const next = program(
    'b',
    need('one', NOW, 100),
    need('two', NOW + FIRST_DAY - 1, 50),
    need('far', NOW + FIRST_DAY, 9),
  );
  const part = new Map([['one', { bytes: 40, whole: false }]]);
  expect(downloadOf(held({ next, files: part }), NOW)).toEqual({ doneBytes: 40, totalBytes: 150 });
  expect(downloadOf(held({ next: program('b', need('far', NOW + FIRST_DAY)) }), NOW)).toBeNull();
  expect(downloadOf(held(), NOW)).toBeNull();
});

describe('what is planned', () => {
  const AT = NOW + 3_600_000;
  const planned = (hash: string | null, at = AT) => ({ at, program: hash });
  const wish = (...coming: NonNullable<Target['coming']>): Target => ({ ...target('a'), coming });
  const now = playing(program('a', need('one', NOW), need('later', AT + 10)));
  const b = { at: AT, program: program('b', need('two', AT + 5), need('spring', AT + FIRST_DAY)) };

  test('its text comes ahead, then its files in turn with those of what plays; what it needs is not cleared', () => {
    expect(nextStep(wish(planned('b')), held({ program: now, files: files('one') }), NOW)).toEqual({
      kind: 'ahead',
      hash: 'b',
      at: AT,
    });
    const at = (...names: string[]) =>
      nextStep(wish(planned('b')), held({ program: now, coming: [b], files: files(...names) }), NOW);
    expect(at('one')).toEqual({ kind: 'file', asset: asset('two') });
    expect(at('one', 'two')).toEqual({ kind: 'file', asset: asset('later') });
    expect(at('one', 'two', 'later')).toEqual({ kind: 'file', asset: asset('spring') });
    expect(at('one', 'two', 'later', 'spring')).toBeNull();
    expect(at('one', 'two', 'later', 'spring', 'old')).toEqual({ kind: 'clear', sha256: 'old' });
  });

  test('what is to play now goes ahead of it', () => {
    const first = held({ program: now, coming: [b], files: files() });
    expect(nextStep({ ...wish(planned('b')), program: 'c' }, first, NOW)).toEqual({ kind: 'program', hash: 'c' });
    expect(nextStep(wish(planned('b')), held(), NOW)).toEqual({ kind: 'program', hash: 'a' });
  });

  test('on the instant it starts, with word from the server or without, and not before', () => {
    const state = held({ program: now, coming: [b], files: files('one', 'two', 'later', 'spring') });
    const starts = { kind: 'activate', program: b.program, edition: 1 };
    expect(nextStep(wish(planned('b')), state, AT - 1)).toBeNull();
    expect(nextStep(wish(planned('b')), state, AT)).toEqual(starts);
    expect(nextStep(null, state, AT - 1)).toBeNull();
    expect(nextStep(null, state, AT)).toEqual(starts);
    expect(nextStep({ ...target('b'), edition: 2 }, held({ ...state, coming: [b] }), AT - 100)).toEqual({
      ...starts,
      edition: 2,
    });
  });

  test('what it shows in its first day has to be here; without it the old one goes on', () => {
    const state = held({ program: now, coming: [b], files: files('one') });
    expect(isReady(b, state)).toBe(false);
    expect(nextStep(wish(planned('b')), state, AT)).toEqual({ kind: 'file', asset: asset('two') });
    expect(isReady(b, held({ files: files('two') }))).toBe(true);
  });

  test('a clock that is put right by a little does not take it back; one that was far ahead does', () => {
    const state = held({ program: playing(b.program), files: files('one', 'two', 'later', 'spring') });
    expect(wantedAt(wish(planned('b')), state, AT - 80)).toBe('b');
    expect(wantedAt(wish(planned('b')), state, AT - 60_000)).toBe('a');
    expect(wantedAt(wish(planned('b')), held({ ...state, program: now }), AT - 80)).toBe('a');
  });

  test('of several that are due the last is wanted; the next to begin is told', () => {
    const two = wish(planned('b'), planned('c', AT + 1000));
    expect(wantedAt(two, held({ program: now }), AT + 1000)).toBe('c');
    expect(nextBegin(two, held(), NOW)).toBe(AT);
    expect(nextBegin(two, held(), AT)).toBe(AT + 1000);
    expect(nextBegin(two, held(), AT + 1000)).toBe(Infinity);
    expect(nextBegin(null, held({ coming: [b] }), NOW)).toBe(AT);
  });

  test('of one edition with other files the one that is here whole begins, and goes when the other is here', () => {
    const of = (hash: string, ...needs: Need[]) => ({
      at: AT,
      program: { ...program(hash, ...needs), source: 'night' },
    });
    const [large, small] = [of('b', need('two', AT)), of('c', need('half', AT))];
    const state = (...names: string[]) => held({ program: now, coming: [large, small], files: files(...names) });
    const told = wish({ at: AT, program: 'c', source: 'night' });
    for (const target of [told, null]) {
      expect(wantedAt(target, state('two'), AT)).toBe('b');
      expect(wantedAt(target, state('two', 'half'), AT)).toBe('c');
      expect(wantedAt(target, state(), AT)).toBe('c');
    }
    expect(withoutStandIns(state('two'))).toEqual([large, small]);
    expect(withoutStandIns(state('two', 'half'))).toEqual([small]);
    // The server says that it is due before the player's clock does: what was here is by now what is made ready.
    const due = { ...target('c'), source: 'night' };
    expect(wantedAt(due, held({ program: now, next: large.program, files: files('two') }), AT - 100)).toBe('b');
    // It plays: the other is what is wanted from now on, and a clock put right by a little takes nothing back.
    const plays = held({ program: playing(large.program), files: files('two') });
    expect(wantedAt(told, plays, AT - 80)).toBe('c');
    expect(sourceIn(told, 'c')).toBe('night');
    expect(sourceIn(told, 'a')).toBeUndefined();
  });

  test('moved or called off while its text is fetched, that is another step', () => {
    const step = { kind: 'ahead', hash: 'b', at: AT } as const;
    expect(stepKey(step)).not.toBe(stepKey({ ...step, at: AT + 1 }));
  });
});
