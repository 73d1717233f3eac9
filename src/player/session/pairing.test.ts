import { ProtocolError, type Enrolment, type ProtocolClient } from '@/protocol/client';
import { pair } from './pairing';

const MARK = { number: 3, name: 'pink', colour: '#f3a6c8', ink: '#10151d' };

/** Pairs with a server that answers in turn as `answers` say; what it was asked with, and what was shown. */
async function pairing(answers: readonly ('lost' | number | 'good')[], ours = true) {
  const asked: (Enrolment | undefined)[] = [];
  const shown: unknown[] = [];
  const client = {
    useToken: () => undefined,
    startPairing: async (enrol?: Enrolment) => {
      const answer = answers[asked.push(enrol) - 1];
      if (answer !== 'good') throw new ProtocolError(answer === 'lost' ? 0 : (answer ?? 0), 'No.', ours);
      return {
        ...{ device_code: 'd', user_code: 'BCDF-GHJK', verification_uri: '/screens', expires_in: 900, interval: 4 },
        ...(enrol ? { mark: MARK } : {}),
      };
    },
    collectToken: async () => 'token',
  } as unknown as ProtocolClient;
  const world = { now: () => 0, random: () => 0, wait: async () => undefined };
  const events = { show: (...all: unknown[]) => void shown.push(all), keep: async () => undefined };
  const enrolment = { key: 'k'.repeat(43), serial: 'SN-1' };
  const token = await pair(client, world, events, new AbortController().signal, enrolment);
  return { token, asked: asked.map((one) => one?.serial), shown };
}

test('a player with a key shows its number; a line that breaks is tried with the key again', async () => {
  expect(await pairing(['lost', 500, 'good'])).toEqual({
    token: 'token',
    asked: ['SN-1', 'SN-1', 'SN-1'],
    shown: [['BCDF-GHJK', MARK], [null]],
  });
});

test('a key that our server refuses is given up, and a code alone is shown; what answers in our place says nothing', async () => {
  expect(await pairing([403, 'good'])).toMatchObject({
    asked: ['SN-1', undefined],
    shown: [['BCDF-GHJK', undefined], [null]],
  });
  expect((await pairing([403, 'good'], false)).asked).toEqual(['SN-1', 'SN-1']);
});
