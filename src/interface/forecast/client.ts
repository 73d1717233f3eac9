'use client';

import { useEffect, useRef, useState } from 'react';
import { planZones, zoneTable, type Plan } from '@/core';
import type { Answers, FromWorker, Question, ToWorker } from './messages';

/** A plan under a name: the worker gets each once. */
export interface NamedPlan {
  readonly key: string;
  readonly plan: Plan;
}

const SENT_KEPT = 5;

/** Questions about the whole plan take long in a large network: they have a worker of their own, and nothing waits for them. */
const LONG: ReadonlySet<Question['kind']> = new Set(['findings', 'airtime', 'never']);

interface Asked {
  readonly worker: Worker;
  readonly sent: Set<string>;
}

const workers = new Map<'quick' | 'long', Asked>();
let count = 0;
const pending = new Map<number, { resolve: (value: never) => void; reject: (error: Error) => void }>();

function forecaster(name: 'quick' | 'long'): Asked {
  let found = workers.get(name);
  if (!found) {
    const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('message', ({ data }: MessageEvent<FromWorker>) => {
      const waiting = pending.get(data.id);
      pending.delete(data.id);
      if ('error' in data) waiting?.reject(new Error(data.error));
      else waiting?.resolve(data.value as never);
    });
    workers.set(name, (found = { worker, sent: new Set() }));
  }
  return found;
}

/** Asks a forecast worker about a plan, sending it first where the worker does not have it. */
export function ask<Q extends Question>({ key, plan }: NamedPlan, question: Q): Promise<Answers[Q['kind']]> {
  const { worker, sent } = forecaster(LONG.has(question.kind) ? 'long' : 'quick');
  const send = (message: ToWorker) => worker.postMessage(message);
  if (!sent.has(key)) {
    sent.add(key);
    if (sent.size > SENT_KEPT) sent.delete(sent.values().next().value as string);
    send({ key, plan: JSON.stringify(plan), zones: planZones(plan).map(zoneTable) });
  }
  const id = ++count;
  return new Promise((resolve, reject) => {
    pending.set(id, { resolve, reject });
    send({ key, id, question });
  });
}

/** The answer to a question that depends on `deps`; the last one stays until the new one is here. */
export function useAnswer<T>(work: () => Promise<T>, deps: readonly unknown[], initial: T): T {
  const [value, setValue] = useState(initial);
  useEffect(() => {
    let current = true;
    work().then(
      (answer) => current && setValue(answer),
      () => undefined,
    );
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the caller names what the question depends on
  }, deps);
  return value;
}

/**
 * The newest answer to a question that may change faster than it is answered, as while one drags: null until there is one. The
 * worker is asked one at a time, and then about what is wanted by then.
 */
export function useNewest<T>(work: () => Promise<T>, deps: readonly unknown[]): T | null {
  const [value, setValue] = useState<T | null>(null);
  const wanted = useRef<(() => Promise<T>) | null>(null);
  const busy = useRef(false);
  const gone = useRef(false);
  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
    };
  }, []);
  useEffect(() => {
    wanted.current = work;
    if (busy.current) return;
    busy.current = true;
    void (async () => {
      for (let next = wanted.current; next && !gone.current; next = wanted.current) {
        wanted.current = null;
        const answer = await next().catch(() => null);
        if (answer !== null) setValue(answer);
      }
      busy.current = false;
    })();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the caller names what the question depends on
  }, deps);
  return value;
}
