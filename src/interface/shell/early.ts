/**
 * What is pressed before the script of a page has come: kept, and done as soon as everything listens. Links and plain forms work
 * without a script and need none of this; what is typed into fields stays in them. What is kept is heard by nobody else: a part
 * of the page may listen a moment before the whole does, and what is done twice is undone.
 */

interface Early {
  /** Does over what was pressed, in turn, and keeps nothing from then on. */
  act: () => void;
}
declare global {
  interface Window {
    lanternpostEarly?: Early;
  }
}

/** Goes into the page itself, ahead of all other scripts. */
export const KEEP_EARLY = `(() => {
  let kept = [];
  let opened = false;
  const keep = (at, event) => {
    event.stopImmediatePropagation();
    kept.push([at, event]);
  };
  const click = (event) => {
    const button = event.target.closest('button, [role=button], [role=option]');
    if (button && !event.target.closest('a[href]') && button.type !== 'submit') keep(button, event);
  };
  const key = (event) => {
    if (opened || event.target.closest('input, textarea, select, [contenteditable]')) return;
    keep(document.body, event);
    // What is typed after it is for the palette, and means nothing to the page.
    opened = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k';
    if (opened) event.preventDefault();
  };
  addEventListener('click', click, true);
  addEventListener('keydown', key, true);
  window.lanternpostEarly = {
    act() {
      removeEventListener('click', click, true);
      removeEventListener('keydown', key, true);
      const all = kept;
      kept = [];
      for (const [at, event] of all) if (at.isConnected) at.dispatchEvent(new event.constructor(event.type, event));
    },
  };
})()`;

/** Does what was pressed before now. Once: later calls do nothing. */
export function actEarly(): void {
  const early = window.lanternpostEarly;
  delete window.lanternpostEarly;
  early?.act();
}
