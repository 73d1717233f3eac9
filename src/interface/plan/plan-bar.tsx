'use client';

import { TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';
import { useNetwork } from '@/interface/data/provider';
import { WhereBox } from '@/interface/forms/where-box';
import { Button } from '@/interface/kit/controls/button';
import { Input } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { More } from './more';
import type { Open } from './plan-sheets';
import type { View } from './steps';

/** Above the plan: which view, which days, which bookings, and what opens beside them. */
export function PlanBar({
  views,
  view,
  search,
  where,
  whereProblem,
  panel,
  worth,
  steps,
  onView,
  onSearch,
  onWhere,
  onPanel,
  onOpen,
}: {
  views: readonly View[];
  view: View;
  search: string;
  /** The selector of the screens whose bookings are shown, as typed. */
  where: string;
  whereProblem: string | undefined;
  /** Whether the findings are open. */
  panel: boolean;
  /** How many findings are worth a look. */
  worth: number;
  /** Leads from day to day, or from week to week. */
  steps: ReactNode;
  onView: (view: View) => void;
  onSearch: (search: string) => void;
  onWhere: (where: string) => void;
  onPanel: (open: boolean) => void;
  onOpen: (open: Open) => void;
}) {
  const { draft } = useNetwork('draft');
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2 px-3 py-2.5 sm:px-6 print:hidden">
      <fieldset className="flex border border-rule" aria-label="View">
        {views.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={view === one}
            onClick={() => onView(one)}
            className={`px-2.5 py-1 text-sm ${view === one ? 'bg-well font-semibold' : 'text-faint hover:text-ink'}`}
          >
            {one}
          </button>
        ))}
      </fieldset>
      {steps}
      <Input
        data-search
        className="!w-32"
        aria-label="Find bookings"
        placeholder="Find a booking"
        value={search}
        onChange={({ target }) => onSearch(target.value)}
      />
      <span className="w-44">
        <WhereBox
          plan={draft}
          aria-label="Only bookings for these screens"
          placeholder="On: tag or name"
          value={where}
          invalid={whereProblem !== undefined}
          title={whereProblem}
          onChange={onWhere}
        />
      </span>
      <div className="ml-auto flex items-center gap-2">
        <Button aria-pressed={panel} aria-label={`Findings: ${worth}`} onClick={() => onPanel(!panel)}>
          <span className="flex items-center gap-1.5">
            <TriangleAlert size={16} aria-hidden className={worth > 0 ? 'text-brick' : 'text-faint'} />{' '}
            {counted(worth, 'finding')}
          </span>
        </Button>
        <More onOpen={(kind) => onOpen({ kind })} />
        <Button needs="plan" variant="main" onClick={() => onOpen({ kind: 'new', begun: { where } })}>
          New booking
        </Button>
      </div>
    </div>
  );
}
