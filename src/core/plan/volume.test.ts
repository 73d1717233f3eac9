import { readVolume, volumeText } from './volume';

test.each([
  ['80', 0.8],
  [' 80 % ', 0.8],
  ['80%', 0.8],
  ['12,5 percent', 0.125],
  ['12.5 per cent', 0.125],
  ['0', 0],
  ['100', 1],
  ['full', 1],
  ['On', 1],
  ['off', 0],
  ['Silent', 0],
  ['muted', 0],
  ['', 0],
])('%j is %d', (text, volume) => expect(readVolume(text)).toEqual({ ok: true, value: volume }));

test.each(['101', '-1', 'loud', '8 dB', '80 % please', '1000', '1.25'])('%j is no volume', (text) =>
  expect(readVolume(text)).toMatchObject({ ok: false, message: 'Write a volume from 0 to 100 %.' }),
);

test('what is written is read back the same', () => {
  for (const volume of [0, 0.001, 0.125, 0.8, 1])
    expect(readVolume(volumeText(volume))).toEqual({ ok: true, value: volume });
  expect(volumeText(undefined)).toBe('');
});
