import type { Enrolment } from '@/protocol/client';
import type { Pairing } from '@/protocol/schemas';

const DEVICE = 'lanternpost-device';

/** What the page's address says of enrolment (`?enrol=KEY&serial=…`): undefined where it says nothing. */
export function enrolmentIn(search: string, software: string): Enrolment | undefined {
  const asked = new URLSearchParams(search);
  const key = asked.get('enrol');
  if (!key) return undefined;
  return { key, serial: asked.get('serial')?.slice(0, 80) || ownSerial(), software };
}

/** A name for this browser that stays the same, where it can store one. */
function ownSerial(): string {
  const made = `browser-${Array.from(crypto.getRandomValues(new Uint8Array(4)), (byte) => byte.toString(16).padStart(2, '0')).join('')}`;
  try {
    const known = localStorage.getItem(DEVICE);
    if (known) return known;
    localStorage.setItem(DEVICE, made);
  } catch {
    // It may store nothing: it is another device at each start.
  }
  return made;
}

/** Shows by which number and colour a waiting player is known in the tray; nothing for a player that doesn't wait there. */
export function showMark(element: HTMLElement, mark: Pairing['mark']): void {
  element.hidden = !mark;
  element.textContent = mark ? String(mark.number) : '';
  element.style.background = mark?.colour ?? '';
  element.style.color = mark?.ink ?? '';
}
