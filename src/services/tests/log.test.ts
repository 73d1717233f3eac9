import { logOnce, logger } from '@/log';

const lines: unknown[][] = [];
beforeEach(() => {
  lines.length = 0;
  jest.spyOn(logger, 'error').mockImplementation((...args: unknown[]) => void lines.push(args));
});
afterEach(() => jest.restoreAllMocks());

test('what comes with every request is told whole once, then as a count each minute', () => {
  const error = new Error('the database is away');
  const begin = 1_000_000;
  for (let i = 0; i < 1000; i++) logOnce(error, 'request failed', begin + i);
  logOnce(new Error('another fault'), 'request failed', begin + 5);
  expect(lines).toEqual([
    [{ error }, 'request failed'],
    [{ error: new Error('another fault') }, 'request failed'],
  ]);
  logOnce(error, 'request failed', begin + 60_000);
  expect(lines[2]).toEqual([{ since: 999 }, 'request failed, again']);
});
