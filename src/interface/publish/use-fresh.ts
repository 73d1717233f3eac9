'use client';

import { useMemo, useState } from 'react';
import { DAY, HOUR } from '@/core/instant';
import { emptyPlan, type ObjectKey } from '@/core/plan';
import { newFindings, type Finding } from '@/core/preflight';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import type { NamedPlan } from '@/interface/data/state';
import { findingsOf, useFindingsOf } from '@/interface/forecast/use-findings';
import { usePlanOf } from './use-plan-of';

/** How far ahead it is looked. */
const AHEAD = 7 * DAY;

/** So long a press waits for what preflight finds, in milliseconds: a page that can't look ahead must not keep anything back for ever. */
const MOST_WAIT_MS = 30_000;

const UNLOOKED = 'these changes couldn’t be checked. Press again to publish them unchecked.';

const NOTHING: NamedPlan = { key: 'nothing', plan: emptyPlan('') };

/** What changes bring, against what is out. */
export interface Fresh {
  readonly before: NamedPlan;
  readonly after: NamedPlan;
  /** What they make worse in the next seven days, errors first; null until it is known. */
  readonly findings: readonly Finding[] | null;
  /** How many were there before. */
  readonly old: number;
  /** The errors that the changes bring, as far as known: they can't be published unless you tick that they may. */
  readonly errors: readonly Finding[];
  /** Whether one has said that these errors may go out. */
  readonly accepted: boolean;
  accept(accepted: boolean): void;
  /** What stops these changes now, as a sentence; null for nothing. Waits until they were looked at, or can't be: that stops once. */
  stops(): Promise<string | null>;
}

/** `chosen` is null for all changes. */
export function useFresh(chosen: readonly ObjectKey[] | null): Fresh {
  const { published } = useNetwork('published');
  const { now } = useMoment();
  const [may, setMay] = useState('');
  /** Of which plan one has been told that it can't be looked at. */
  const [unlooked, setUnlooked] = useState('');
  const from = Math.floor(now / HOUR) * HOUR;
  const before = published ?? NOTHING;
  const after = usePlanOf(chosen);
  const [was, is] = [useFindingsOf(before, from, from + AHEAD), useFindingsOf(after, from, from + AHEAD)];
  const findings = useMemo(() => was && is && sorted(newFindings(was, is)), [was, is]);
  const errors = errorsOf(findings ?? []);
  return {
    ...{ before, after, findings, errors },
    old: is && findings ? is.length - findings.length : 0,
    // Other errors than the ones you have read need another tick.
    accepted: may === said(errors),
    accept: (accepted) => setMay(accepted ? said(errors) : ''),
    stops: async () => {
      const look = (plan: NamedPlan) => findingsOf(plan, from, from + AHEAD, from);
      const looked = Promise.all([look(before), look(after)]);
      const found = await within(MOST_WAIT_MS, looked).catch(reportError);
      if (!found) {
        setUnlooked(after.key);
        return unlooked === after.key ? null : UNLOOKED;
      }
      const stopping = errorsOf(newFindings(...found));
      return may === said(stopping) ? null : (stopping[0]?.sentence ?? null);
    },
  };
}

const errorsOf = (findings: readonly Finding[]) => findings.filter(({ severity }) => severity === 'error');
const said = (errors: readonly Finding[]) =>
  errors.map(({ sentence, screens }) => `${sentence} ${screens.join()}`).join('\n');

function within<T>(ms: number, work: Promise<T>): Promise<T | undefined> {
  return Promise.race([work, new Promise<undefined>((late) => setTimeout(late, ms, undefined))]);
}

const SEVERITIES: readonly Finding['severity'][] = ['error', 'warning', 'notice'];
const sorted = (list: readonly Finding[]) =>
  list.toSorted((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));
