/** Fields that are chosen by a click or by arrow keys: letters mean nothing to them. */
const CHOSEN = ['checkbox', 'radio', 'button', 'range', 'file', 'color', 'submit', 'reset', 'image'];

/** Whether a key is for a field that is being typed in, not for the place. */
export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement) return !CHOSEN.includes(target.type);
  return target.isContentEditable || ['TEXTAREA', 'SELECT'].includes(target.tagName);
}
