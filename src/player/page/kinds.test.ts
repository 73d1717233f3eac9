import { played } from './kinds';

test('a browser plays pictures, and videos and sounds where it says so of one common type', () => {
  const kinds = (canPlay: (type: string) => string) => played(canPlay).kinds;
  expect(kinds(() => '')).toEqual(['image']);
  expect(kinds(() => 'probably')).toEqual(['image', 'video', 'sound']);
  expect(kinds((type) => (type.includes('vp9') ? 'maybe' : ''))).toEqual(['image', 'video']);
  expect(kinds((type) => (type.startsWith('audio/mpeg') ? 'maybe' : ''))).toEqual(['image', 'sound']);
  expect(played((type) => (/avc1|vp9/.test(type) ? 'maybe' : '')).codecs).toEqual(['h264', 'vp9']);
});
