/**
 * A press is for what was under the pointer as it began. Where the page moves between pressing and letting go (it is measured,
 * pictures come, a notice goes), the browser gives the click to what surrounds both; here it is given back. Who moves away before
 * letting go means no press, as ever.
 */

/** Goes into the page itself, ahead of all other scripts and of what keeps presses until they come. */
export const HOLD_PRESS = `(() => {
  const STILL_PX = 6;
  let held = null;
  addEventListener('pointerdown', (event) => {
    const at = event.isPrimary && event.button === 0 && event.target.closest('button, a[href], [role=button], [role=option]');
    held = at ? { at, x: event.clientX, y: event.clientY } : null;
  }, true);
  addEventListener('click', (event) => {
    const begun = held;
    held = null;
    // Keys press at nobody's place.
    if (!begun || event.detail === 0 || event.target === begun.at || !event.target.contains(begun.at)) return;
    if (Math.hypot(event.clientX - begun.x, event.clientY - begun.y) > STILL_PX) return;
    event.stopImmediatePropagation();
    event.preventDefault();
    begun.at.dispatchEvent(new event.constructor('click', event));
  }, true);
})();`;
