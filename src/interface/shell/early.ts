/**
 * What is pressed or chosen before the script of a page has come: kept, and done as soon as everything listens. Links and plain forms
 * work without a script and need none of this; text typed into fields stays in them. A press that is kept reaches no other listener: a part
 * of the page may listen a moment before the whole does, and what is done twice is undone.
 */

interface Early {
  /** Does over what was pressed, in turn, and keeps nothing from then on. */
  act: () => Promise<void>;
}
declare global {
  interface Window {
    lanternpostEarly?: Early;
  }
}

/** Goes into the page itself, ahead of all other scripts. */
export const KEEP_EARLY = `(() => {
  const kept = [];
  let opened = false;
  let acting = false;
  // A browser reports a choice in a list twice. The first time, the page's code may take over the part that the list is in, and set back what
  // was chosen. That can be long after the page began to listen, so this stays.
  let choice = {};
  addEventListener('input', ({ target }) => {
    if (target.type === 'select-one') choice = { target, value: target.value };
  }, true);
  addEventListener('change', ({ target }) => {
    if (choice.target === target && target.value !== choice.value) target.value = choice.value;
    choice = {};
  }, true);
  const keep = (at, event, ready = () => {}) => {
    event.stopImmediatePropagation();
    kept.push(() => {
      if (!at.isConnected) return;
      ready();
      at.dispatchEvent(new event.constructor(event.type, event));
    });
  };
  const click = (event) => {
    const at = event.target;
    if (at.type === 'checkbox' || at.type === 'radio') {
      // The control shows the press; if its code missed it, the same press is sent again.
      const to = at.checked;
      return keep(at, event, () => { at.checked = !to; });
    }
    const button = at.closest('button, [role=button], [role=option]');
    if (button && !at.closest('a[href]') && button.type !== 'submit') keep(button, event);
  };
  const change = (event) => {
    const at = event.target;
    const to = at.value;
    if (at.type === 'file') keep(at, event);
    else if (at.type === 'select-one') keep(at, event, () => { at.value = to; });
  };
  const key = (event) => {
    if (opened || event.target.closest('input, textarea, select, [contenteditable]')) return;
    // A slider has keys of its own.
    keep(event.target.closest('[role=slider]') || document.body, event);
    // What is typed after it is for the palette, and means nothing to the page.
    const held = event.ctrlKey || event.metaKey || event.altKey;
    opened = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k';
    // A letter that leads into a field is not written there too.
    if (opened || (!held && event.key.length === 1 && event.key !== ' ')) event.preventDefault();
  };
  const ways = { click, change, keydown: key };
  const hear = (event) => acting || ways[event.type](event);
  for (const type in ways) addEventListener(type, hear, true);
  window.lanternpostEarly = {
    async act() {
      while (kept.length > 0) {
        acting = true;
        kept.shift()();
        acting = false;
        // Drawn before the next one: what is chosen is added to what is.
        await new Promise((next) => setTimeout(next));
      }
      for (const type in ways) removeEventListener(type, hear, true);
    },
  };
})()`;

/** Does everything that was pressed before now, and what is pressed during that after it. Once: later calls do nothing. */
export async function actEarly(): Promise<void> {
  const early = window.lanternpostEarly;
  delete window.lanternpostEarly;
  await early?.act();
}
