import { hasPart, partAt, partCount, partName, partsOf, placesOf, readPlace, shapeOf } from '.';

/** Displays of 100 × 50 mm with 10 mm between them: a picture of 320 × 110 mm. */
const wall = { rows: 2, columns: 3, widthMm: 100, heightMm: 50, betweenMm: 10 };

test('displays are counted along the rows, and each shows what lies behind its own glass', () => {
  expect(partsOf(wall).map(partName)).toEqual([
    ...['row 1, column 1', 'row 1, column 2', 'row 1, column 3'],
    ...['row 2, column 1', 'row 2, column 2', 'row 2, column 3'],
  ]);
  const middle = partAt(wall, 5);
  expect(middle).toMatchObject({ row: 2, column: 2 });
  // Worked out by hand, in millimetres of the whole picture.
  expect([(middle?.left ?? 0) * 320, (middle?.top ?? 0) * 110]).toEqual([expect.closeTo(110), expect.closeTo(60)]);
  expect([(middle?.width ?? 0) * 320, (middle?.height ?? 0) * 110]).toEqual([expect.closeTo(100), expect.closeTo(50)]);
  const last = partAt(wall, 6);
  expect((last?.left ?? 0) + (last?.width ?? 0)).toBeCloseTo(1);
});

test.each([0, 7, 1.5, -1])('a wall of six has no display %s', (number) => {
  expect(partAt(wall, number)).toBeNull();
  expect(hasPart({ wall }, number)).toBe(false);
});

test('the whole picture has the pixels behind the frames too', () => {
  expect(shapeOf(wall, { width: 1000, height: 500 })).toEqual({ width: 3200, height: 1100 });
});

test('a screen has one place, a wall one for each display, and both are named by one word', () => {
  expect(placesOf({ id: 'hall' })).toEqual([{ id: 'hall', screen: 'hall', part: 1, name: null }]);
  expect(placesOf({ id: 'hall', wall })[4]).toEqual({ id: 'hall/5', screen: 'hall', part: 5, name: 'row 2, column 2' });
  expect([readPlace('hall/5'), readPlace('hall')]).toEqual([
    { screen: 'hall', part: 5 },
    { screen: 'hall', part: null },
  ]);
  expect([partCount({ wall }), partCount({})]).toEqual([6, 1]);
  expect([hasPart({}, 1), hasPart({}, 2)]).toEqual([true, false]);
});
