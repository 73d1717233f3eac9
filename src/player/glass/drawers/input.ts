import { drawCard } from './card';
import { still, type Drawn } from './drawn';

/** What is drawn where an input isn't connected. */
const missing = (id: string) => `The input ${id} isn’t connected to this player.`;

/**
 * Draws another source, as a browser gives it: the capture device whose name has the input's in it, or else the only one. Where there is
 * none, a card says so.
 */
export async function drawInput(id: string): Promise<Drawn> {
  const stream = await captureOf(id).catch(() => null);
  if (!stream) return drawCard(missing(id));
  const element = document.createElement('video');
  element.muted = true;
  element.playsInline = true;
  element.srcObject = stream;
  await element.play();
  return still(element, () => {
    element.srcObject = null;
    stream.getTracks().forEach((track) => track.stop());
  });
}

async function captureOf(id: string): Promise<MediaStream | null> {
  const devices = (await navigator.mediaDevices.enumerateDevices()).filter(({ kind }) => kind === 'videoinput');
  const plain = (text: string) => text.toLowerCase().replace(/[^a-z0-9]/g, '');
  const named = devices.find(({ label }) => label !== '' && plain(label).includes(plain(id)));
  const [only] = devices.length === 1 ? devices : [];
  const device = named ?? only;
  if (!device) return null;
  return navigator.mediaDevices.getUserMedia({ video: { deviceId: { exact: device.deviceId } } });
}
