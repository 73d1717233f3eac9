import { drawCard } from './card';
import { still, type Drawn } from './drawn';

/** What is drawn where an input isn't connected. */
const missing = (id: string) => `The input ${id} isn’t connected to this player.`;

/**
 * Draws another source, as a browser gives it: the capture device whose name has the input's in it, or else the only one. Where there is
 * none, it draws `instead`, or a card that says so.
 */
export async function drawInput(id: string, instead = () => drawCard(missing(id))): Promise<Drawn> {
  const stream = await captureOf(id).catch(() => null);
  if (!stream) return instead();
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
  const { mediaDevices } = navigator;
  const plain = (text: string) => text.toLowerCase().replace(/[^a-z0-9]/g, '');
  const isNamed = ({ label }: { readonly label: string }) => plain(label).includes(plain(id));
  // Before it captures, a browser doesn't say which devices there are; on a kiosk it never says more than how many.
  const first = await mediaDevices.getUserMedia({ video: true });
  const devices = (await mediaDevices.enumerateDevices()).filter(({ kind }) => kind === 'videoinput');
  const named = devices.find(isNamed);
  if (first.getVideoTracks().some(isNamed) || (!named && devices.length === 1)) return first;
  first.getTracks().forEach((track) => track.stop());
  return named ? mediaDevices.getUserMedia({ video: { deviceId: { exact: named.deviceId } } }) : null;
}
