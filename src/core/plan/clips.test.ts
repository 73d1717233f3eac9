import { clipProblems, clipText, readClip, type Clip } from './clips';

const film = { kind: 'video', name: 'Crossing', durationMs: 30_000 } as const;

test.each<[string, Clip | undefined]>([
  ['', undefined],
  ['5–20', [5_000, 20_000]],
  ['0 - 12.5', [0, 12_500]],
  ['0:05 to 0:30', [5_000, 30_000]],
  ['5 s - 20 s', [5_000, 20_000]],
])('%j is %j', (text, clip) => {
  expect(readClip(text, film)).toEqual({ ok: true, value: clip });
});

test.each([
  ['20', 'Write where the clip begins and ends in the video, e.g. 5–20, or 0:05 to 1:10.'],
  ['5–10–20', 'Write where the clip begins and ends in the video, e.g. 5–20, or 0:05 to 1:10.'],
  ['20–5', 'A clip must end after it begins.'],
  ['5–31', '“Crossing” ends at 30 s. End the clip there or before.'],
  ['a–31', '“a” isn’t a duration. Write seconds as 12 or 2.5, or write 1:30, or 2 min.'],
  ['5–b', '“b” isn’t a duration. Write seconds as 12 or 2.5, or write 1:30, or 2 min.'],
])('%j is refused: %s', (text, message) => {
  expect(readClip(text, film)).toMatchObject({ ok: false, message });
});

test('what is written of a clip is read back', () => {
  expect(readClip(clipText([1_500, 20_000]), film)).toEqual({ ok: true, value: [1_500, 20_000] });
});

test('clips that no file has are told by their places', () => {
  const files: Record<string, Parameters<typeof readClip>[1]> = { film, still: { kind: 'image', name: 'Flag' } };
  const items = [
    { media: 'film', clip: [0, 30_000] },
    { media: 'film', clip: [0, 30_001] },
    { media: 'still', clip: [0, 1] },
    { media: 'gone', clip: [0, 1] },
    { media: 'film' },
    null,
  ];
  expect(clipProblems({ items }, (id) => files[id])).toEqual([
    { path: ['items', 1, 'clip'], message: '“Crossing” ends at 30 s. End the clip there or before.' },
    { path: ['items', 2, 'clip'], message: '“Flag” isn’t a video, and only a video has clips.' },
  ]);
  expect(clipProblems({ items: 'none' }, () => film)).toEqual([]);
  expect(clipProblems(null, () => film)).toEqual([]);
});
