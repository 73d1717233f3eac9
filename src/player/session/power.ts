import { MINUTE, SECOND } from '@/core/playing';
import type { Hardware } from '../hardware/hardware';
import type { World } from './world';

/** So often is looked whether the display is to be on. The picture is black on the instant itself. */
const LOOK_MS = 5 * SECOND;
/** After a failure it is tried again so much later. */
const AGAIN_MS = MINUTE;

/**
 * Keeps a display that can be switched off by the plan: off in lights-out, on otherwise. At the start it is switched either way, since
 * how the last life of the player left it isn't known. Ends with `signal`; a failure goes to `onFailure`, and is tried again.
 */
export async function keepPower(
  hardware: Hardware,
  isResting: () => boolean,
  world: Pick<World, 'wait'>,
  signal: AbortSignal,
  onFailure: (error: unknown) => void,
): Promise<void> {
  let known: boolean | null = null;
  while (!signal.aborted) {
    const isOn = !isResting();
    let wait = LOOK_MS;
    if (hardware.setPower && isOn !== known && hardware.abilities().includes('power')) {
      try {
        await hardware.setPower(isOn);
        known = isOn;
      } catch (error) {
        onFailure(error);
        known = null;
        wait = AGAIN_MS;
      }
    }
    await world.wait(wait, signal);
  }
}
