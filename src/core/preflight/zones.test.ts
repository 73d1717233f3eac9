import { parseInstant } from '../instant';
import { smallPlan, type Parts } from '../tests/small-plan';
import { findings } from './findings';

const at = (time: string) => parseInstant(`2026-12-01T${time}:00Z`) as number;
const told = (parts: Parts) =>
  findings(smallPlan(parts), at('10:00'), at('12:00')).map(({ kind, about, screens, times }) => ({
    ...{ kind, about, screens },
    times: times.map((time) => time.map((one) => new Date(one).toISOString().slice(11, 16)).join('–')),
  }));

const BOARD = {
  screens: [{ id: 'hall', profile: 'plain' }, 'gate'],
  profiles: [{ id: 'plain', inputs: [{ id: 'hdmi-2', name: 'Camera' }] }],
  media: ['a'],
  bookings: [{ id: 'board', content: { layout: 'board' }, when: { windows: [['10:30', '11:30']] } }],
  network: { backdrop: { media: 'a' } },
} satisfies Parts;
const board = (...zones: object[]): Parts => ({
  ...BOARD,
  layouts: [{ id: 'board', zones: [{ id: 'main', content: { media: 'a' } }, ...zones] }],
});

test('a zone that is empty while its layout is seen is told, with the time', () => {
  expect(told(board())).toEqual([]);
  const whole = { kind: 'empty zone', about: ['board'], screens: ['hall', 'gate'], times: ['10:30–11:30'] };
  expect(told(board({ id: 'side' }))).toEqual([whole]);
  const until = { windows: [['09:00', '11:00']] };
  expect(told(board({ id: 'side', content: { media: 'a' }, when: until }))).toEqual([
    { ...whole, times: ['11:00–11:30'] },
  ]);
  expect(told(board({ id: 'side', where: 'screen:gate' }))).toEqual([{ ...whole, screens: ['gate'] }]);
});

test('an input that a display doesn’t have by its profile is told; of a display without a profile nothing is assumed', () => {
  const input = { id: 'side', content: { input: 'hdmi-1' } };
  expect(told(board(input))).toEqual([
    { kind: 'no such input', about: ['hdmi-1'], screens: ['hall'], times: ['10:30–11:30'] },
  ]);
  expect(told(board({ ...input, content: { input: 'hdmi-2' } }))).toEqual([]);
});

test('a booking that waits for its cue is not over; a cue that nothing waits for is told', () => {
  const waiting = { id: 'song', cue: 'song', content: { media: 'a' } };
  expect(told({ ...BOARD, cues: ['song'], bookings: [waiting] })).toEqual([]);
  expect(told({ ...BOARD, cues: ['song', 'other'], bookings: [waiting] })).toEqual([
    { kind: 'cue without a booking', about: ['other'], screens: [], times: [] },
  ]);
});

test('an overlay is not said to reach no screen, nor to be over', () => {
  const bookings = [{ id: 'line', content: { layout: 'board' }, overlay: {} }];
  expect(told({ ...board(), bookings })).toEqual([]);
});
