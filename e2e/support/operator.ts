import { pick } from './session';
import type { Locator, Page } from '@playwright/test';

/** A person at work, who counts: every click, drag, key and entry is one act. */
export class Operator {
  acts = 0;

  constructor(readonly page: Page) {}

  async click(target: Locator): Promise<void> {
    this.acts++;
    await target.click();
  }

  /** Writes into the field that has the focus, and confirms by Enter. */
  async write(text: string): Promise<void> {
    this.acts++;
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Enter');
  }

  async fill(target: Locator, text: string): Promise<void> {
    this.acts++;
    await target.fill(text);
  }

  async choose(target: Locator, value: string): Promise<void> {
    this.acts++;
    await target.selectOption(value);
  }

  /** Types a name into a field that finds as you type, and confirms by Enter. */
  async find(target: Locator, value: string, name: string): Promise<void> {
    this.acts++;
    await pick(target, value, name);
  }

  async key(key: string): Promise<void> {
    this.acts++;
    await this.page.keyboard.press(key);
  }

  /** Presses at one place, pulls to another, and lets go. */
  async drag(from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
    this.acts++;
    const { mouse } = this.page;
    await mouse.move(from.x, from.y);
    await mouse.down();
    await mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
    await mouse.move(to.x, to.y, { steps: 4 });
    await mouse.up();
  }
}

/**
 * The last move of a drag under way and the letting go in one turn of the page, as on a machine that does not come to draw between them;
 * `on` is what hears of it.
 */
export async function letGoAtOnce(on: Locator, to: { x: number; y: number }): Promise<void> {
  await on.evaluate((element, { x, y }) => {
    const at = { clientX: x, clientY: y, pointerId: 1, isPrimary: true, bubbles: true };
    element.dispatchEvent(new PointerEvent('pointermove', at));
    element.dispatchEvent(new PointerEvent('pointerup', at));
  }, to);
  await on.page().mouse.up();
}
