import { sizeFor, sizesFor } from './sizes';

const film = { kind: 'video' as const, width: 3840, height: 2160 };
const still = { kind: 'image' as const, width: 3000, height: 2000 };

test.each([
  ['a film on a pixel wall', film, [384, 192], [384, 216]],
  ['a film on a screen of its shape', film, [1920, 1080], [1920, 1080]],
  ['a film on a portrait screen, so that it may be cut to fill', film, [1080, 1920], [3414, 1920]],
  ['a film whose sides would be odd', { ...film, width: 3838 }, [640, 360], [640, 360]],
  ['a still on a narrow sign', still, [1920, 540], [1920, 1280]],
  ['a still on a screen of nearly its size', still, [2800, 1800], null],
  ['a still on a larger screen', still, [7680, 4320], null],
  ['a still of a pixel wide', { ...still, width: 1 }, [192, 384], null],
  ['a tall still on a tiny screen', { ...still, width: 10, height: 4000 }, [1, 1], [1, 400]],
] as const)('%s', (_, file, [width, height], size) => {
  expect(sizeFor(file, { width, height })).toEqual(size && { width: size[0], height: size[1] });
});

test('sizes of screens alike are one size', () => {
  const screens = [
    { width: 1920, height: 1080 },
    { width: 1920, height: 1080 },
    { width: 1920, height: 1079 },
    { width: 3840, height: 2160 },
    { width: 384, height: 192 },
  ];
  expect(sizesFor(film, screens)).toEqual([
    { width: 1920, height: 1080 },
    { width: 384, height: 216 },
  ]);
});
