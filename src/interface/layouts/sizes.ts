import { isTall, type Size } from '@/core/layouts';

/** The size that most landscape screens have, and most portrait ones; the usual ones where there are none. */
export function commonSizes(screens: readonly Size[]): readonly [wide: Size, tall: Size] {
  return [
    commonest(
      screens.filter((one) => !isTall(one)),
      { width: 1920, height: 1080 },
    ),
    commonest(screens.filter(isTall), { width: 1080, height: 1920 }),
  ];
}

function commonest(screens: readonly Size[], usual: Size): Size {
  const counts = new Map<string, { readonly size: Size; count: number }>();
  for (const { width, height } of screens) {
    const known = counts.get(`${width} ${height}`) ?? { size: { width, height }, count: 0 };
    known.count++;
    counts.set(`${width} ${height}`, known);
  }
  const [first] = [...counts.values()].sort((a, b) => b.count - a.count);
  return first?.size ?? usual;
}
