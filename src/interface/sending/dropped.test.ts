import { filesIn, type Entry } from './dropped';

const file = (name: string): Entry => ({
  name,
  isFile: true,
  isDirectory: false,
  file: (done) => done(new File(['x'], name)),
});

/** A folder that tells its entries two at a time. */
const folder = (name: string, ...inside: Entry[]): Entry => ({
  name,
  isFile: false,
  isDirectory: true,
  createReader: () => {
    let at = 0;
    return { readEntries: (done) => done(inside.slice(at, (at += 2))) };
  },
});

const names = async (...entries: Entry[]) => (await filesIn(entries)).map(({ name }) => name);

test('a folder is all that is in it, however deep, in the order of the names', async () => {
  expect(
    await names(
      folder('Summer', file('c.jpg'), folder('a', file('2.png'), file('1.png')), file('b.jpg')),
      file('z.jpg'),
    ),
  ).toEqual(['1.png', '2.png', 'b.jpg', 'c.jpg', 'z.jpg']);
});

test('what systems keep in folders for themselves is left out, an empty folder is nothing', async () => {
  expect(
    await names(folder('x', file('.DS_Store'), file('Thumbs.db'), folder('__MACOSX', file('a.jpg'))), folder('y')),
  ).toEqual([]);
});

test('a file that can not be read any more fails the whole, and is not passed over', async () => {
  const gone: Entry = { ...file('gone.jpg'), file: (_, failed) => failed(new Error('gone')) };
  await expect(filesIn([folder('x', gone)])).rejects.toThrow('gone');
});
