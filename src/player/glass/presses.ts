import { SECOND, type ProgramDocument } from '@/core/playing';
import type { KeptFiring } from '../session/firings';

/** What is pressed in front of the screen: zones that are touched, number keys, and keys that step. */

/** What presses work with. */
export interface PressMeans {
  readonly program: () => ProgramDocument | null;
  /** What was fired here, as far as it counts. */
  readonly firings: () => readonly KeptFiring[];
  readonly press: (
    cue: string,
    pressed: { layout: string; zone: string } | 'key',
    how?: { here?: boolean; end?: boolean },
  ) => boolean;
  /** Steps through what plays; `byPress` with a finger, where each item waits for that. */
  readonly step: (by: 1 | -1, how?: { readonly byPress?: boolean }) => boolean;
  /** Whether another page lies over what plays, to which presses belong. */
  readonly isCovered: () => boolean;
}

/** So long a zone shows that it was pressed, and the card what was chosen. */
const PRESSED_MS = 400;
const CARD_MS = 5 * SECOND;
/** Keys that step forward, and back: arrows, and what remote controls for presentations send (common practice, no source). */
const STEPS: Readonly<Record<string, 1 | -1>> = { ArrowRight: 1, PageDown: 1, ArrowLeft: -1, PageUp: -1 };
/** A press in this share of the glass, from its left, steps back. */
const BACK = 1 / 3;

/** Listens to fingers and keys. What they bring shows at once; `card` says what a key chose, and what else there is. */
export class Presses {
  private hiding: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly card: HTMLElement,
    private readonly means: PressMeans,
  ) {
    // Each finger is a pointer of its own: several may press at once.
    window.addEventListener('pointerdown', (event) => this.touched(event.clientX, event.clientY));
    window.addEventListener('keydown', (event) => {
      const { key, repeat, ctrlKey, altKey, metaKey } = event;
      if (repeat || ctrlKey || altKey || metaKey || this.means.isCovered()) return;
      const by = STEPS[key];
      if (/^\d$/.test(key)) this.keyed(Number(key));
      else if (by) this.means.step(by);
      else if (key === ' ' || key === 'Enter') this.means.step(1, { byPress: true });
    });
  }

  /** Fires what the uppermost zone at a place fires, if it fires anything. */
  private touched(x: number, y: number): void {
    const program = this.means.program();
    if (!program || this.means.isCovered()) return;
    const root = document
      .elementsFromPoint(x, y)
      .find(
        (element): element is HTMLElement =>
          element instanceof HTMLElement && element.dataset.layout !== undefined && element.dataset.zone !== undefined,
      );
    const { layout = '', zone = '' } = root?.dataset ?? {};
    const touch = program.layouts?.[layout]?.zones.find(({ id }) => id === zone)?.touch;
    if (!root || !touch) return void this.means.step(x < window.innerWidth * BACK ? -1 : 1, { byPress: true });
    root.classList.add('pressed');
    setTimeout(() => root.classList.remove('pressed'), PRESSED_MS);
    this.means.press(touch.cue, { layout, zone }, { here: touch.here === true && isBooked(program, touch.cue) });
  }

  /** Fires what a number key fires. One that brings nothing of its own is the way back: it ends what the others brought. */
  private keyed(digit: number): void {
    const program = this.means.program();
    const keys = program?.keys ?? [];
    const chosen = keys.find(({ key }) => key === digit);
    if (!program || !chosen) return;
    if (isBooked(program, chosen.cue)) this.means.press(chosen.cue, 'key');
    else {
      const fired = new Set(this.means.firings().map(({ cue }) => cue));
      for (const { cue } of keys) if (fired.has(cue)) this.means.press(cue, 'key', { end: true });
    }
    this.show(
      chosen,
      keys.filter((one) => one !== chosen),
    );
  }

  private show(chosen: Choice, others: readonly Choice[]): void {
    const line = ({ key, name }: Choice) => {
      const row = document.createElement('p');
      const number = row.appendChild(document.createElement('kbd'));
      number.textContent = String(key);
      row.append(name);
      return row;
    };
    this.card.replaceChildren(line(chosen), ...others.map(line));
    this.card.hidden = false;
    clearTimeout(this.hiding);
    this.hiding = setTimeout(() => (this.card.hidden = true), CARD_MS);
  }
}

interface Choice {
  readonly key: number;
  readonly name: string;
}

const isBooked = (program: ProgramDocument, cue: string) => program.bookings.some((booking) => booking.cue === cue);
