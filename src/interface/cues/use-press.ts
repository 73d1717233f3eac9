'use client';

import { useRef, useState } from 'react';
import type { Result } from '@/core/refusal';
import type { Fired, ShownButton } from '@/services/cues';
import { lastsWords, screensWords } from './words';

/** Sends presses, one of each button at a time, each under a key of its own: sent twice over a bad line it is one. */
export function usePress(
  send: (button: string, end: boolean, key: string) => Promise<Result<Fired>>,
  told: (text: string, bad: boolean) => void,
) {
  const [busy, setBusy] = useState<string | null>(null);
  const sending = useRef(new Set<string>());
  const press = async ({ id, label }: ShownButton, end: boolean) => {
    if (sending.current.has(id)) return;
    sending.current.add(id);
    setBusy(id);
    // Pages without HTTPS have no randomUUID.
    const key = `${Date.now().toString(36)}-${Math.random().toString(36).slice(2)}`;
    const result = await send(id, end, key);
    sending.current.delete(id);
    setBusy(null);
    if (!result.ok) return told(result.message, true);
    const { screens, at, until } = result.value;
    told(
      end
        ? `${label}: ended on ${screensWords(screens)}.`
        : `${label}: fired on ${screensWords(screens)}, for ${lastsWords(Date.parse(until) - Date.parse(at))}.`,
      false,
    );
  };
  return { busy, press };
}
