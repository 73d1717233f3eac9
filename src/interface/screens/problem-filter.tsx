'use client';

import { useMemo } from 'react';
import { ALL_PROBLEMS, PROBLEMS, type Problem } from '@/core/health';
import type { Screen } from '@/core/plan';
import { useMoment } from '@/interface/data/moment';
import { Select } from '@/interface/kit/controls/field';
import { useFacts } from './facts';

/** The screens of these that have a problem; all for none. What needs facts over time is asked for when it is chosen. */
export function useWithProblem(screens: readonly Screen[], problem: Problem | null): readonly Screen[] {
  const factsOf = useFacts(problem !== null);
  const { now } = useMoment();
  // Problems come and go by minutes.
  const minute = Math.floor(now / 60_000) * 60_000;
  return useMemo(
    () => (problem === null ? screens : screens.filter(({ id }) => PROBLEMS[problem].is(factsOf(id), minute))),
    [screens, problem, factsOf, minute],
  );
}

/** Chooses a problem by which screens are found. */
export function ProblemFilter({
  value,
  onChange,
}: {
  value: Problem | null;
  onChange: (problem: Problem | null) => void;
}) {
  return (
    <Select
      aria-label="Show only screens with a problem"
      className={`!w-auto ${value === null ? '' : 'border-dusk font-semibold'}`}
      value={value ?? ''}
      onChange={({ target }) => onChange(ALL_PROBLEMS.find((one) => one === target.value) ?? null)}
    >
      <option value="">Filter by problem</option>
      {ALL_PROBLEMS.map((problem) => (
        <option key={problem} value={problem}>
          {PROBLEMS[problem].name}
        </option>
      ))}
    </Select>
  );
}
