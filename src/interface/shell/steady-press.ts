/**
 * A press counts where it began. Leaving a field may add or take away a sentence above a button that is being pressed. The page then moves
 * between press and release, and the browser sends no click to the button. This makes that click. Shift with a press chooses a range: it
 * does not mark the page's text.
 */

/** What is pressed. Bars, handles and other things that are carried listen to the pointer themselves, and are none of these. */
const PRESSED = 'button, a[href], label, summary, input[type="checkbox"], input[type="radio"], [role="option"]';

/** A hand that shakes moves so far, in CSS pixels; further away it is a drag. */
const SHAKES_PX = 6;

interface Press {
  readonly on: HTMLElement;
  readonly pointer: number;
  readonly x: number;
  readonly y: number;
  readonly top: number;
  readonly left: number;
  heard: boolean;
}

const pressedAt = (event: Event): HTMLElement | null =>
  event.target instanceof Element ? event.target.closest<HTMLElement>(PRESSED) : null;

/** Listens on a page, until what is returned is called. */
export function keepPressesSteady(page: Document): () => void {
  let press: Press | null = null;

  const down = (event: PointerEvent) => {
    // A finger's click comes later than the end of its press, so a lost one could not be told from one that is still to come.
    const on = event.pointerType === 'mouse' && event.button === 0 ? pressedAt(event) : null;
    const { top, left } = on?.getBoundingClientRect() ?? { top: 0, left: 0 };
    press = on && { on, pointer: event.pointerId, x: event.clientX, y: event.clientY, top, left, heard: false };
  };
  const up = (event: PointerEvent) => {
    const begun = press;
    if (begun?.pointer !== event.pointerId) return;
    const still = Math.hypot(event.clientX - begun.x, event.clientY - begun.y) <= SHAKES_PX;
    const { top, left } = begun.on.getBoundingClientRect();
    const moved = begun.on.isConnected && (top !== begun.top || left !== begun.left);
    // The browser's own click comes first, if there is one.
    if (still && moved)
      setTimeout(() => {
        if (!begun.heard && begun.on.isConnected) begun.on.click();
      });
  };
  const click = (event: MouseEvent) => {
    if (press && event.target instanceof Node && press.on.contains(event.target)) press.heard = true;
  };
  const mouseDown = (event: MouseEvent) => {
    const on = event.shiftKey ? pressedAt(event) : null;
    if (!on) return;
    event.preventDefault();
    on.focus({ preventScroll: true });
  };
  page.addEventListener('pointerdown', down, true);
  page.addEventListener('pointerup', up, true);
  page.addEventListener('click', click, true);
  page.addEventListener('mousedown', mouseDown, true);
  return () => {
    page.removeEventListener('pointerdown', down, true);
    page.removeEventListener('pointerup', up, true);
    page.removeEventListener('click', click, true);
    page.removeEventListener('mousedown', mouseDown, true);
  };
}
