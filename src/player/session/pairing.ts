import { SECOND } from '@/core/playing';
import { ProtocolError, type Enrolment, type ProtocolClient } from '@/protocol/client';
import type { Pairing } from '@/protocol/schemas';
import { backoffMs, type World } from './world';

export interface PairingEvents {
  /** A code to show, and how to tell it from others that wait; null once the player has a screen. */
  show(code: string | null, mark?: Pairing['mark']): void;
  /** The token is kept, before it is used. */
  keep(token: string): Promise<void>;
}

/**
 * Shows codes until an operator has typed one, or with `enrolment` has given the player a screen. An enrolment that our server refuses is
 * given up: the code alone stays. `was` is the token that it had until now: if its screen was removed, it gets it back with the screen. Returns the token that came for it; null when the signal ends.
 */
export async function pair(
  client: ProtocolClient,
  world: World,
  { show, keep }: PairingEvents,
  signal: AbortSignal,
  enrolment?: Enrolment,
  was?: string,
): Promise<string | null> {
  client.useToken(null);
  let enrol = enrolment;
  for (let failures = 0; !signal.aborted; failures++) {
    try {
      const pairing = await client.startPairing(enrol, was);
      show(pairing.user_code, pairing.mark);
      const token = await collect(client, world, pairing.device_code, pairing.interval * SECOND, signal);
      if (token === null) return null;
      await keep(token);
      show(null);
      return token;
    } catch (error) {
      if (enrol && error instanceof ProtocolError && error.ours && error.status === 403) {
        enrol = undefined;
        continue;
      }
      // The code is over, or the server can't be reached: a new code is asked for.
      await world.wait(backoffMs(failures, world), signal);
    }
  }
  return null;
}

/** Polls until the code was typed; null when the signal ends. A line that breaks is tried again, anything else throws. */
async function collect(
  client: ProtocolClient,
  world: World,
  deviceCode: string,
  everyMs: number,
  signal: AbortSignal,
): Promise<string | null> {
  while (!signal.aborted) {
    await world.wait(everyMs, signal);
    try {
      const token = signal.aborted ? null : await client.collectToken(deviceCode);
      if (token !== null) return token;
    } catch (error) {
      if (!(error instanceof ProtocolError && error.status === 0)) throw error;
    }
  }
  return null;
}
