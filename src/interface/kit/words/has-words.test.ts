import { hasWords } from './has-words';

test.each([
  ['Brennøy timetable', '', true],
  ['Brennøy timetable', 'brennoy', true],
  ['Brennøy timetable', ' TIME  bren ', true],
  ['Café cards', 'cafe', true],
  ['Café cards', 'cafe menu', false],
])('"%s" has the words of "%s": %s', (name, written, has) => {
  expect(hasWords(name, written)).toBe(has);
});
