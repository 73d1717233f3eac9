import { troubleOf } from './trouble';

const sql = (code: string) =>
  Object.assign(new Error('wrapped'), { original: Object.assign(new Error('x'), { code }) });

test.each([
  ['a lock that is held too long', sql('55P03'), 503, 'is taking long'],
  ['a statement that takes too long', sql('57014'), 503, 'is taking long'],
  [
    'no connection to be had',
    Object.assign(new Error('x'), { name: 'SequelizeConnectionAcquireTimeoutError' }),
    503,
    'is taking long',
  ],
  ['a full disk under PostgreSQL', sql('53100'), 507, 'disk is full'],
  ['a full disk', Object.assign(new Error('x'), { code: 'ENOSPC' }), 507, 'disk is full'],
  ['a disk that is read only', Object.assign(new Error('x'), { code: 'EROFS' }), 507, 'disk is full'],
  ['PostgreSQL going away', sql('57P01'), 503, 'isn’t answering'],
  ['PostgreSQL away', sql('ECONNREFUSED'), 503, 'isn’t answering'],
  ['a broken connection', sql('08006'), 503, 'isn’t answering'],
  [
    'a line that is cut',
    Object.assign(new Error('x'), { original: new Error('Connection terminated unexpectedly') }),
    503,
    'See whether it was done',
  ],
  ['a line that is reset', sql('ECONNRESET'), 503, 'See whether it was done'],
  ['NUL in a text', sql('22P05'), 422, 'can’t be stored'],
  ['a number past all measure', sql('22003'), 422, 'can’t be stored'],
])('%s', (_, error, status, sentence) => {
  expect(troubleOf(error)).toMatchObject({ status, message: expect.stringContaining(sentence) });
});

test.each([
  [new Error('a fault of ours')],
  [sql('42601')],
  [null],
  ['text'],
  [Object.assign(new Error('x'), { code: 7 })],
])('what only we can mend is none: %p', (error) => {
  expect(troubleOf(error)).toBeNull();
});
