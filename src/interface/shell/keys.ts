'use client';

import { useEffect, useRef } from 'react';
import { isTyping } from './typing';

/**
 * The one ear for keys of the whole interface. A key that follows another ("g n") goes ahead of what the second means alone, wherever
 * the focus is; single keys go to the part that registered last. During typing, keys are letters; while a sheet is open, they are its own.
 */

/** How long after the first of two keys the second is taken for its follower. */
const FOLLOWS_WITHIN_MS = 3000;

export interface KeyMeaning {
  /** One key as `KeyboardEvent.key` has it, in small letters; or two, parted by a space. */
  readonly keys: string;
  /** What it does, for the list of keys. */
  readonly what: string;
  readonly run: () => void;
}

/** The meanings that hold now: what was asked for last goes first. */
export class Keys {
  private readonly known: KeyMeaning[] = [];
  private first: { readonly key: string; readonly at: number } | null = null;

  /** Adds a meaning until the answer is called. */
  add(meaning: KeyMeaning): () => void {
    this.known.unshift(meaning);
    return () => void this.known.splice(this.known.indexOf(meaning), 1);
  }

  /** What holds now, each key once. */
  all(): readonly KeyMeaning[] {
    return this.known.filter(({ keys }, i) => this.known.findIndex((one) => one.keys === keys) === i);
  }

  /**
   * Handles a key before all others. Returns whether it was the second of two, which no other part then receives. `at` in milliseconds, from
   * anywhere.
   */
  follow(key: string, at: number): boolean {
    const { first } = this;
    this.first = null;
    if (!first || at - first.at > FOLLOWS_WITHIN_MS) return false;
    const found = this.known.find(({ keys }) => keys === `${first.key} ${key}`);
    found?.run();
    return true;
  }

  /** Handles a key that no other part has used. Returns whether it had a meaning. */
  press(key: string, at: number): boolean {
    const found = this.known.find(({ keys }) => keys === key);
    if (found) {
      found.run();
      return true;
    }
    const leads = this.known.some(({ keys }) => keys.startsWith(`${key} `));
    if (leads) this.first = { key, at };
    return leads;
  }
}

const keys = new Keys();

/** All keys that mean something now. */
export const keysNow = (): readonly KeyMeaning[] => keys.all();

/** Gives a key, or two in turn, a meaning while the caller is there. */
export function useKey(pressed: string, what: string, run: () => void): void {
  const newest = useRef(run);
  useEffect(() => {
    newest.current = run;
  }, [run]);
  useEffect(() => keys.add({ keys: pressed, what, run: () => newest.current() }), [pressed, what]);
}

/** Listens for as long as the interface stands. */
export function useKeyboard(): void {
  useEffect(() => {
    const isForPlace = (event: KeyboardEvent) =>
      !(
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        isTyping(event.target) ||
        document.querySelector('[role="dialog"]')
      );
    // Keys that only change what others mean are none of the two.
    const isModifier = ({ key }: KeyboardEvent) => ['Shift', 'Control', 'Alt', 'Meta', 'CapsLock'].includes(key);
    const capture = (event: KeyboardEvent) => {
      if (isModifier(event) || !isForPlace(event)) return;
      if (!keys.follow(event.key.toLowerCase(), event.timeStamp)) return;
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    const bubble = (event: KeyboardEvent) => {
      if (event.defaultPrevented || isModifier(event) || !isForPlace(event)) return;
      if (keys.press(event.key.toLowerCase(), event.timeStamp)) event.preventDefault();
    };
    document.addEventListener('keydown', capture, true);
    document.addEventListener('keydown', bubble);
    return () => {
      document.removeEventListener('keydown', capture, true);
      document.removeEventListener('keydown', bubble);
    };
  }, []);
}
