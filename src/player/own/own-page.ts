import { pinText } from '@/core/pin';
import { sha256Hex } from '@/core/sha256';
import type { Target } from '@/protocol/schemas';
import { EDGES_AT_MOST, type Edges } from '../hardware/hardware';
import type { Facts } from '../session/session';
import { testConnection, type Means } from './connection-test';
import { arrowsAround, cornerAt, cornersInTurn } from './opening';

/** What the page works with. */
export interface OwnPageMeans {
  readonly screen: () => Target['screen'] | null;
  readonly facts: () => Promise<Facts>;
  readonly test: () => Means;
  readonly hardware: {
    readonly edges: Edges;
    setEdges(edges: Edges): void;
    showTestPicture(ms: number): void;
  };
}

/** Left alone for so long it closes: a screen in a hall must not stay on it. */
const CLOSES_AFTER_MS = 3 * 60_000;
/** After so many wrong PINs it waits. */
const TRIES = 5;
const WAIT_MS = 60_000;
/** A press of an arrow moves an edge by so many percent. */
const STEP = 0.5;

/**
 * The player's own page, for a person in front of its screen: how it is, a test of its connection, and its edges. It lies over what plays, and
 * opens with the network's PIN; while the player isn't paired it needs none.
 */
export class OwnPage {
  private readonly corners = cornersInTurn();
  private readonly arrows = arrowsAround();
  private closing: ReturnType<typeof setTimeout> | undefined;
  private tries = 0;
  private waitsUntil = 0;
  private onKey: ((key: string) => boolean) | null = null;

  constructor(
    private readonly root: HTMLElement,
    private readonly means: OwnPageMeans,
    private readonly now: () => number = () => performance.now(),
  ) {
    window.addEventListener('pointerdown', (event) => this.touched(event));
    window.addEventListener('keydown', (event) => this.pressed(event));
  }

  private get isOpen(): boolean {
    return !this.root.hidden;
  }

  private touched({ clientX, clientY }: PointerEvent): void {
    if (this.isOpen) return this.stayOpen();
    const corner = cornerAt(clientX, clientY, innerWidth, innerHeight);
    if (this.corners.take(corner, this.now())) this.ask();
  }

  private pressed(event: KeyboardEvent): void {
    if (!this.isOpen) {
      if (this.arrows.take(event.key, this.now())) this.ask();
      return;
    }
    this.stayOpen();
    if (event.key === 'Escape') this.close();
    else if (this.onKey?.(event.key)) event.preventDefault();
  }

  private stayOpen(): void {
    clearTimeout(this.closing);
    this.closing = setTimeout(() => this.close(), CLOSES_AFTER_MS);
  }

  close(): void {
    clearTimeout(this.closing);
    this.onKey = null;
    this.means.hardware.showTestPicture(0);
    this.root.hidden = true;
    this.root.classList.remove('small');
    this.root.replaceChildren();
  }

  /** Asks for the PIN. */
  private ask(): void {
    const screen = this.means.screen();
    if (screen && !screen.pin) return;
    this.root.hidden = false;
    this.stayOpen();
    if (!screen) return void this.show();
    const input = element('input', { type: 'password', inputMode: 'numeric', autocomplete: 'off', maxLength: 8 });
    input.setAttribute('aria-label', 'PIN');
    const said = element('p', {});
    said.setAttribute('role', 'alert');
    const enter = () => {
      if (this.now() < this.waitsUntil) return void (said.textContent = 'Too many wrong PINs. Wait a minute.');
      if (sha256Hex(pinText(screen.id, input.value)) === screen.pin) {
        this.tries = 0;
        return void this.show();
      }
      input.value = '';
      said.textContent = 'This isn’t the PIN. It is in Lanternpost, under Network.';
      if (++this.tries < TRIES) return;
      this.tries = 0;
      this.waitsUntil = this.now() + WAIT_MS;
    };
    this.onKey = (key) => {
      if (key !== 'Enter') return false;
      enter();
      return true;
    };
    const digit = (text: string) => button(text, () => (input.value += text));
    const pad = element('p', { className: 'pad' });
    pad.append(...['1', '2', '3', '4', '5', '6', '7', '8', '9', '0'].map(digit));
    this.root.replaceChildren(heading('PIN of this player'), input, pad, button('Open', enter), this.closer(), said);
    input.focus();
  }

  private closer = () => button('Close', () => this.close());

  /** How the player is, and what can be done here. */
  private async show(): Promise<void> {
    this.onKey = null;
    this.root.classList.remove('small');
    this.means.hardware.showTestPicture(0);
    const facts = await this.means.facts();
    if (!this.isOpen) return;
    const list = element('dl', {});
    for (const [name, value] of factRows(facts, this.means.test().server))
      list.append(element('dt', { textContent: name }), element('dd', { textContent: value }));
    const results = element('ol', {});
    results.setAttribute('aria-label', 'Test of the connection');
    const test = button('Test the connection', () => void this.runTest(results, test));
    this.root.replaceChildren(
      ...[heading(facts.screen ?? 'A player without a screen'), list],
      ...[test, button('Set the edges', () => this.setEdges()), this.closer(), results],
    );
    test.focus();
  }

  private async runTest(results: HTMLElement, test: HTMLButtonElement): Promise<void> {
    test.disabled = true;
    results.replaceChildren();
    const words = { ok: 'OK', failed: 'FAILED', skipped: 'skipped' };
    for await (const { name, state, words: said } of testConnection(this.means.test())) {
      results.append(element('li', { textContent: `${name}: ${words[state]}. ${said}` }));
      this.stayOpen();
    }
    test.disabled = false;
    test.focus();
  }

  /** Moves the edges of what is drawn by arrow keys, or by touch. */
  private setEdges(): void {
    const { hardware } = this.means;
    let isOut = false;
    const words = element('p', {});
    const say = () => {
      const { top, right, bottom, left } = hardware.edges;
      words.textContent = `Each arrow moves its edge ${isOut ? 'out' : 'in'}; Enter changes the direction. Now: left ${left} %, top ${top} %, right ${right} %, bottom ${bottom} %.`;
    };
    const move = (side: keyof Edges) => {
      const next = hardware.edges[side] + (isOut ? -STEP : STEP);
      hardware.setEdges({ ...hardware.edges, [side]: Math.max(0, Math.min(EDGES_AT_MOST, next)) });
      say();
    };
    const turn = () => {
      isOut = !isOut;
      say();
    };
    const sides: Readonly<Record<string, keyof Edges>> = {
      ...{ ArrowLeft: 'left', ArrowUp: 'top', ArrowRight: 'right', ArrowDown: 'bottom' },
    };
    this.onKey = (key) => {
      const side = sides[key];
      if (side) move(side);
      else if (key === 'Enter') turn();
      return side !== undefined || key === 'Enter';
    };
    say();
    const arrows = (['left', 'top', 'right', 'bottom'] as const).map((side, i) =>
      button('←↑→↓'[i] ?? '', () => move(side), `Move the ${side} edge`),
    );
    this.root.replaceChildren(
      ...[heading('Edges'), words, ...arrows],
      ...[button('In or out', turn), button('Done', () => void this.show())],
    );
    this.root.classList.add('small');
    hardware.showTestPicture(Infinity);
  }
}

/** The facts of the player, in words that can be read out. */
export function factRows(facts: Facts, server: string): (readonly [string, string])[] {
  const time = (at: number) => new Date(at).toLocaleString();
  const offset = Math.round(facts.clockOffsetMs / 1000);
  const size = (bytes: number) =>
    bytes < 1e9 ? `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB` : `${(bytes / 1e9).toFixed(1)} GB`;
  return [
    ['Server', server],
    ['Last exchange', facts.heardAt === null ? 'none since this start' : time(facts.heardAt)],
    [
      'Time',
      `${time(facts.now)}${offset === 0 ? '' : ` (the device’s clock is ${Math.abs(offset)} s ${offset > 0 ? 'slow' : 'fast'})`}`,
    ],
    ['Shows', facts.edition === null ? 'nothing yet' : `edition ${facts.edition}`],
    [
      'Files',
      facts.edition === null
        ? 'none yet'
        : facts.missing
          ? `${facts.missing.files} (${size(facts.missing.bytes)}) still to come`
          : 'all are here, so it plays on without a network',
    ],
    [
      'Storage',
      facts.storage ? `${size(facts.storage.usedBytes)} of ${size(facts.storage.limitBytes)} used` : 'not known',
    ],
    ['Software', facts.software],
    ...facts.errors.slice(-3).map(({ at, message }) => [time(at), message] as const),
  ];
}

function element<K extends keyof HTMLElementTagNameMap>(
  tag: K,
  values: Partial<HTMLElementTagNameMap[K]>,
): HTMLElementTagNameMap[K] {
  return Object.assign(document.createElement(tag), values);
}

const heading = (text: string) => element('h2', { textContent: text });

function button(text: string, press: () => void, name?: string): HTMLButtonElement {
  const made = element('button', { type: 'button', textContent: text, onclick: press });
  if (name) made.setAttribute('aria-label', name);
  return made;
}
