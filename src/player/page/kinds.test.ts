import { playedKinds } from './kinds';

test('a browser plays pictures, and films and sounds where it says so of one common type', () => {
  expect(playedKinds(() => '')).toEqual(['image']);
  expect(playedKinds(() => 'probably')).toEqual(['image', 'video', 'sound']);
  expect(playedKinds((type) => (type.includes('vp9') ? 'maybe' : ''))).toEqual(['image', 'video']);
  expect(playedKinds((type) => (type.startsWith('audio/mpeg') ? 'maybe' : ''))).toEqual(['image', 'sound']);
});
