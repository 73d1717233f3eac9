import fc from 'fast-check';
import {
  ARRANGEMENTS,
  arranged,
  bordersOf,
  isFree,
  join,
  joinable,
  largest,
  lifted,
  measured,
  pulled,
  snapped,
  split,
  stopsFor,
  swapped,
  turnedSize,
  turnedZones,
  type Arrangement,
  type Placed,
} from './index';

const WIDE = { width: 1920, height: 1080 };
const names = Object.keys(ARRANGEMENTS) as Arrangement[];
const said = (zones: readonly Placed[]) =>
  zones.map(({ id, x, y, width, height }) => `${id} ${x},${y} ${width}×${height}`);
const splitPlain = (zones: readonly Placed[], id: string, axis: 'x' | 'y') => split(zones, id, axis, (half) => half);

/** Whether zones fill their layout without a gap and without lying over each other. */
function fills(zones: readonly Placed[], { width, height }: { width: number; height: number }): boolean {
  const sum = zones.reduce((all, one) => all + one.width * one.height, 0);
  const inside = zones.every(
    (one) => one.x >= 0 && one.y >= 0 && one.x + one.width <= width && one.y + one.height <= height,
  );
  return sum === width * height && inside && zones.every(({ id }) => !isFree(zones, id));
}

test.each(names)('the arrangement %s fills screens of any shape', (name) => {
  for (const size of [
    WIDE,
    { width: 1080, height: 1920 },
    { width: 383, height: 191 },
    { width: 1080, height: 3840 },
  ]) {
    const zones = arranged(name, size);
    expect(fills(name === 'inset' ? zones.slice(0, 1) : zones, size)).toBe(true);
    expect(zones.filter(({ id }) => isFree(zones, id)).map(({ id }) => id)).toEqual(name === 'inset' ? ['inset'] : []);
  }
});

/** A layout as people make it: an arrangement, then zones split in two. */
const tiled = fc
  .record({
    name: fc.constantFrom(...names.filter((name) => name !== 'inset')),
    cuts: fc.array(fc.record({ at: fc.nat(20), axis: fc.constantFrom('x' as const, 'y' as const) }), { maxLength: 5 }),
  })
  .map(({ name, cuts }) =>
    cuts.reduce<Placed[]>(
      (zones, { at, axis }) => splitPlain(zones, zones[at % zones.length]?.id ?? '', axis),
      arranged(name, WIDE),
    ),
  );

test('however zones are split, pulled, swapped and joined, they fill the layout as before', () => {
  fc.assert(
    fc.property(tiled, fc.nat(60), fc.integer({ min: -500, max: 2500 }), (zones, which, to) => {
      expect(fills(zones, WIDE)).toBe(true);
      const borders = bordersOf(zones).filter((one) => one.before.length > 0 && one.after.length > 0);
      const border = borders[which % Math.max(1, borders.length)];
      const [one, other] = [zones[which % zones.length]?.id ?? '', zones[0]?.id ?? ''];
      expect(fills(swapped(zones, one, other), WIDE)).toBe(true);
      for (const next of joinable(zones, one)) expect(fills(join(zones, one, next.id), WIDE)).toBe(true);
      if (!border) return;
      const after = pulled(zones, border, to, WIDE);
      expect(fills(after, WIDE)).toBe(true);
      expect(Math.min(...after.map(({ width, height }) => Math.min(width, height)))).toBeGreaterThanOrEqual(8);
    }),
  );
});

test('turned, the zones fill the layout again, and the largest zone keeps its share, lines of text aside', () => {
  fc.assert(
    fc.property(tiled, (zones) => {
      const next = turnedZones(zones, WIDE);
      expect(fills(next, turnedSize(WIDE))).toBe(true);
      // A line of text gives way; what is no line keeps its share, but for a pixel at each edge.
      const isLine = ({ width, height }: Placed) => height <= width / 4;
      const areaOf = ({ width, height }: Placed) => width * height;
      const most = largest(zones.filter((one) => !isLine(one)));
      fc.pre(most !== undefined);
      const turned = next.filter(({ id }) => id === most?.id).map(areaOf);
      expect(turned).toHaveLength(1);
      expect(turned[0]).toBeGreaterThan(areaOf(most as Placed) * 0.98);
    }),
  );
});

test('turned: what stood beside the main zone stands below it; lines stay lines; a picture in a corner stays in its corner', () => {
  const turned = (name: Arrangement) => said(turnedZones(arranged(name, WIDE), WIDE));
  expect(turned('side')).toEqual(['main 0,0 1080×1440', 'side 0,1440 1080×480']);
  expect(turned('head-foot')).toEqual(['head 0,0 1080×180', 'main 0,180 1080×1560', 'foot 0,1740 1080×180']);
  expect(turned('inset')).toEqual(['main 0,0 1080×1920', 'inset 344,1506 640×360']);
  expect(turned('grid')).toContain('top-right 0,960 540×960');
});

test('pulling a border takes all zones along that touch it on both sides, and no others', () => {
  const zones = splitPlain(arranged('side', WIDE), 'side', 'y');
  const border = bordersOf(zones).find(({ axis, at }) => axis === 'x' && at === 1440);
  if (!border) throw new Error('no border');
  expect(border).toMatchObject({ before: ['main'], after: ['side', 'side-2'], from: 0, to: 1080 });
  expect(said(pulled(zones, border, 1200, WIDE))).toEqual([
    'main 0,0 1200×1080',
    'side 1200,0 720×540',
    'side-2 1200,540 720×540',
  ]);
  // The rows of a grid end at one line and touch in a point: each is pulled alone.
  expect(bordersOf(arranged('grid', WIDE)).filter(({ axis, at }) => axis === 'x' && at === 960)).toHaveLength(2);
});

test('a border stops at twelfths, safe margins and other edges that are near, and nowhere else', () => {
  const stops = stopsFor(arranged('side', WIDE), 'x', WIDE);
  expect([1437, 100, 1000, 800].map((at) => snapped(at, stops, 12))).toEqual([1440, 96, 1000, 800]);
  expect(snapped(1830, stops, 12)).toBe(1824);
});

test('a number of a zone moves its border; a free zone moves alone, and stays in the layout', () => {
  const side = arranged('side', WIDE);
  expect(said(measured(side, 'main', 'width', 1500, WIDE))).toEqual(['main 0,0 1500×1080', 'side 1500,0 420×1080']);
  expect(said(measured(side, 'side', 'width', 420, WIDE))).toEqual(['main 0,0 1500×1080', 'side 1500,0 420×1080']);
  const inset = arranged('inset', WIDE);
  expect(said(measured(inset, 'inset', 'x', 5000, WIDE))[1]).toBe('inset 1280,666 640×360');
  expect(said(measured(inset, 'inset', 'height', 90, WIDE))[1]).toBe('inset 1184,666 640×90');
});

test('swapped zones are in each other’s places, also above and below; a zone is lifted over the next one', () => {
  const swap = said(swapped(arranged('inset', WIDE), 'main', 'inset'));
  expect(swap).toEqual(['inset 0,0 1920×1080', 'main 1184,666 640×360']);
  expect(lifted(arranged('inset', WIDE), 'main', 1).map(({ id }) => id)).toEqual(['inset', 'main']);
});
