import { EventEmitter } from 'node:events';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { bodyTrouble, endSlowBody } from './bodies';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

/** A request by its method, and what becomes of its line. */
function asked(method: string, isUpload: boolean) {
  const socket = { bytesRead: 0, destroyed: false, destroy: () => (socket.destroyed = true) };
  const request = Object.assign(new EventEmitter(), { method, socket, complete: false, readableLength: 0 });
  const response = new EventEmitter();
  endSlowBody(request as unknown as IncomingMessage, response as unknown as ServerResponse, isUpload);
  /** Lets time go by, in seconds; `bytes` come in each. */
  const wait = (seconds: number, bytes = 0) => {
    for (let i = 0; i < seconds; i++) {
      socket.bytesRead += bytes;
      jest.advanceTimersByTime(1000);
    }
    return socket.destroyed;
  };
  return { request, response, wait };
}

test('a body that takes longer than 30 seconds is ended, however it trickles', () => {
  const { wait } = asked('POST', false);
  expect([wait(29, 1), wait(1, 1)]).toEqual([false, true]);
});

test.each([true, false])(
  'what came and waits to be read, or came whole, is no fault of the sender (an upload: %s)',
  (isUpload) => {
    const { request, wait } = asked('POST', isUpload);
    request.readableLength = 65_536;
    expect(wait(600)).toBe(false);
    request.readableLength = 0;
    expect([wait(29), wait(31)]).toEqual([false, true]);
    const whole = asked('POST', isUpload);
    whole.request.complete = true;
    expect(whole.wait(600)).toBe(false);
  },
);

test('an upload takes as long as it moves, and is ended when it stands still for a minute', () => {
  const { wait } = asked('POST', true);
  expect([wait(600, 1), wait(59), wait(61)]).toEqual([false, false, true]);
});

test('what was received, answered or given up is left alone, as is what has no body', () => {
  for (const [of, event] of [
    ['request', 'end'],
    ['request', 'close'],
    ['response', 'close'],
  ] as const) {
    const one = asked('POST', false);
    one[of].emit(event);
    expect(one.wait(120)).toBe(false);
  }
  expect(asked('GET', false).wait(120)).toBe(false);
  expect(asked('HEAD', false).wait(120)).toBe(false);
});

test.each([
  ['GET', { 'content-length': '99000000' }, undefined],
  ['PUT', { 'content-length': String(32 * 2 ** 20) }, undefined],
  ['PUT', { 'content-length': String(32 * 2 ** 20 + 1) }, 413],
  ['POST', { 'content-type': 'multipart/form-data; boundary=x' }, 411],
  ['POST', { 'content-type': 'application/json' }, undefined],
])('what is sent by %s with %j is taken or refused by its head alone', (method, headers, status) => {
  expect(bodyTrouble({ method, headers })?.status).toBe(status);
});
