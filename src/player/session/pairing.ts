import { SECOND } from '@/core/playing';
import { ProtocolError, type ProtocolClient } from '@/protocol/client';
import { backoffMs, type World } from './world';

export interface PairingEvents {
  /** A code to show; null once one was typed. */
  show(code: string | null): void;
  /** The token is kept, before it is used. */
  keep(token: string): Promise<void>;
}

/** Shows codes until an operator has typed one. Returns the token that came for it; null when the signal ends. */
export async function pair(
  client: ProtocolClient,
  world: World,
  { show, keep }: PairingEvents,
  signal: AbortSignal,
): Promise<string | null> {
  client.useToken(null);
  for (let failures = 0; !signal.aborted; failures++) {
    try {
      const pairing = await client.startPairing();
      show(pairing.user_code);
      const token = await collect(client, world, pairing.device_code, pairing.interval * SECOND, signal);
      if (token === null) return null;
      await keep(token);
      show(null);
      return token;
    } catch {
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
