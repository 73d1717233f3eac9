'use client';

import { useEffect, useRef, useState } from 'react';
import { ServerClock } from '@/core/server-clock';
import { asked } from './queries';

/** So many quick looks at first: the one with the shortest way says it best. */
const LOOKS = 4;
const AGAIN_MS = 5 * 60_000;
/** A clock that goes by so much more or less than its own seconds was set, or its machine slept: which, only the server can tell. */
const JUMP_MS = 700;

/** What a page needs of the machine that it runs on. */
export interface Machine {
  /** The clock on the wall, which may be set. */
  now(): number;
  /** Time that only passes. */
  passed(): number;
  ask(): Promise<number>;
}

const HERE: Machine = {
  now: () => Date.now(),
  passed: () => performance.now(),
  ask: async () => (await asked<{ readonly now: number }>('/api/clock')).now,
};

/** Keeps a clock set by the server's: at first, every few minutes, and whenever one's own clock jumps. */
export class SetClock {
  private readonly clock = new ServerClock();
  private looked = -Infinity;
  private last: { readonly now: number; readonly passed: number };

  constructor(
    serverNow: number,
    private readonly machine: Machine = HERE,
  ) {
    const now = machine.now();
    // The page was made some time before it was here: any measurement is better.
    this.clock.offsetMs = serverNow - now;
    this.last = { now, passed: machine.passed() };
  }

  get now(): number {
    return this.machine.now() + this.clock.offsetMs;
  }

  /** Called each second, and when the page comes into sight again. */
  async tick(): Promise<void> {
    const [now, passed] = [this.machine.now(), this.machine.passed()];
    const jumped = now - this.last.now - (passed - this.last.passed);
    this.last = { now, passed };
    if (Math.abs(jumped) <= JUMP_MS && passed - this.looked < AGAIN_MS) return;
    this.looked = passed;
    for (let look = 0; look < LOOKS; look++) {
      const sent = this.machine.now();
      const began = this.machine.passed();
      const server = await this.machine.ask().catch(() => null);
      if (server === null) {
        // The line is cut: soon again.
        this.looked = passed - AGAIN_MS + 10_000;
        return;
      }
      this.clock.tell(server, sent, sent + this.machine.passed() - began);
    }
  }
}

/** The server's time, each second. */
export function useServerClock(serverNow: number): number {
  const clock = useRef<SetClock | null>(null);
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const own = (clock.current ??= new SetClock(serverNow));
    const tick = () => {
      setNow(own.now);
      void own.tick().then(() => setNow(own.now));
    };
    tick();
    const timer = setInterval(tick, 1000);
    document.addEventListener('visibilitychange', tick);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', tick);
    };
  }, [serverNow]);
  return now;
}
