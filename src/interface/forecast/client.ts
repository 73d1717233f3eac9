'use client';

import { useEffect, useRef, useState } from 'react';
import { patchesBetween, planZones, withoutWas } from '@/core/plan';
import { zoneTable } from '@/core/when';
import type { NamedPlan } from '@/interface/data/state';
import type { Answers, FromWorker, Question, ToWorker } from './messages';

const SENT_KEPT = 5;

/** Questions about the whole plan take long in a large network: they have a worker of their own, and nothing waits for them. */
const LONG: ReadonlySet<Question['kind']> = new Set([
  'findings',
  'besides',
  'airtime',
  'next',
  'never',
  'misfits',
  'unplayable',
  'differences',
]);

interface Forecaster {
  readonly worker: Worker;
  /** Keys of the plans that it has, the newest last. */
  readonly sent: string[];
  /** The plan that it was sent last: the next one is sent as what differs. */
  last: NamedPlan | null;
  readonly zones: Set<string>;
  readonly pending: Map<number, Waiting>;
}

interface Waiting {
  resolve(value: unknown): void;
  reject(error: Error): void;
}

const forecasters = new Map<'quick' | 'long', Forecaster>();
let count = 0;

function forecaster(name: 'quick' | 'long'): Forecaster {
  const known = forecasters.get(name);
  if (known) return known;
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
  const made: Forecaster = { worker, sent: [], last: null, zones: new Set(), pending: new Map() };
  worker.addEventListener('message', ({ data }: MessageEvent<FromWorker>) => {
    const waiting = made.pending.get(data.id);
    made.pending.delete(data.id);
    if ('error' in data) waiting?.reject(new Error(data.error));
    else waiting?.resolve(data.value);
  });
  // One that dies takes its questions along: they are asked again of the next.
  worker.addEventListener('error', (event) => {
    event.preventDefault();
    worker.terminate();
    if (forecasters.get(name) === made) forecasters.delete(name);
    for (const { reject } of made.pending.values()) reject(new WorkerDied());
    made.pending.clear();
  });
  forecasters.set(name, made);
  return made;
}

class WorkerDied extends Error {}

/**
 * Asks a forecast worker about a plan, sending it what differs from the last one first, and another plan that the question names before
 * it. One that dies is asked once more.
 */
export async function ask<Q extends Question>(
  plan: NamedPlan,
  question: Q,
  other?: NamedPlan,
): Promise<Answers[Q['kind']]> {
  try {
    return await askOnce(plan, question, other);
  } catch (error) {
    if (error instanceof WorkerDied) return askOnce(plan, question, other);
    throw error;
  }
}

function askOnce<Q extends Question>(plan: NamedPlan, question: Q, other?: NamedPlan): Promise<Answers[Q['kind']]> {
  const to = forecaster(LONG.has(question.kind) ? 'long' : 'quick');
  if (other) sendPlan(to, other);
  sendPlan(to, plan);
  const id = ++count;
  return new Promise((resolve, reject) => {
    to.pending.set(id, { resolve: (value) => resolve(value as Answers[Q['kind']]), reject });
    to.worker.postMessage({ key: plan.key, id, question } satisfies ToWorker);
  });
}

function sendPlan(to: Forecaster, { key, plan }: NamedPlan): void {
  if (to.sent.includes(key)) return;
  const names = planZones(plan).filter((name) => !to.zones.has(name));
  for (const name of names) to.zones.add(name);
  const zones = names.map(zoneTable);
  const { last } = to;
  const message: ToWorker =
    last && to.sent.includes(last.key)
      ? { key, from: last.key, patches: patchesBetween(last.plan, plan).map(withoutWas), zones }
      : { key, plan: JSON.stringify(plan), zones };
  to.worker.postMessage(message);
  to.sent.push(key);
  if (to.sent.length > SENT_KEPT) to.sent.shift();
  to.last = { key, plan };
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
 * The newest answer to a question that may change faster than it is answered, as during a drag: null until there is one. The
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
        const answer = await next().catch((error: unknown) => {
          // What was answered last stays: the next question may be answered again.
          reportError(error);
          return null;
        });
        if (answer !== null) setValue(answer);
      }
      busy.current = false;
    })();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the caller names what the question depends on
  }, deps);
  return value;
}
