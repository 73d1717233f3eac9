'use client';

import { useStore } from 'zustand';
import { courierOf } from './courier';
import { Remembered } from './remembered';
import { Sender, type SendingState } from './sender';

const NOTHING = { put: () => {}, drop: () => {} };

/** The page has one sender for all places, so that sending continues when you change places. */
let made: { readonly person: string; readonly sender: Sender } | null = null;

/** The page's sender, for the person who is logged in. Continues what an earlier page left. */
export function senderOf(person: string): Sender {
  // A server draws for everybody, and sends nothing.
  if (typeof window === 'undefined') return new Sender(courierOf(person), NOTHING);
  if (made?.person === person) return made.sender;
  const memory = new Remembered(person);
  const sender = new Sender(courierOf(person), memory);
  made = { person, sender };
  void memory.left().then((left) => {
    const [first] = left;
    if (!first) return;
    const parcels = left.flatMap(({ key, batch, file, replaces }) => (file ? [{ key, batch, file, replaces }] : []));
    const lost = left
      .filter(({ file }) => !file)
      .map(({ key, name, bytes, replaces }) => ({ key, name, bytes, replaces }));
    sender.goOn(parcels, lost, first.batch);
  });
  return sender;
}

export const useSending = <T>(sender: Sender, select: (state: SendingState) => T): T => useStore(sender.state, select);
