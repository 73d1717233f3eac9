export { readM3u8, writeM3u8 } from './m3u8';
export { readXspf, writeXspf } from './xspf';
export { writeSmil } from './smil';
export { matchEntries, type Entry, type Listed, type Matched } from './tracks';
