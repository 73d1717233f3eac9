'use client';

import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Site } from '@/core/plan';
import { searchable } from '@/core/text';
import {
  addDays,
  civil,
  dateOfLocalTime,
  formatDate,
  startOfDate,
  toInstant,
  toLocalTime,
  weekdayIndex,
  zoneTable,
  type LocalDate,
  type LocalTime,
} from '@/core/when';
import { useMoment } from '@/interface/data/moment';
import { useNetwork } from '@/interface/data/provider';
import { namesProblem } from '@/interface/forms/where-box';
import { Empty } from '@/interface/kit/controls/empty';
import { selectScreens } from '@/interface/kit/screens/select-screens';
import { useWidth } from '@/interface/kit/page/use-width';
import { useKey } from '@/interface/shell/keys';
import { contentOf } from '@/interface/kit/content/content';
import { useWanted } from '@/interface/shell/use-wanted';
import { begunBooking, begunWith } from './begun';
import { BookingList } from './views/booking-list';
import { FindingsPanel } from './findings/findings-panel';
import { MonthView } from './month/month';
import { PlanBar } from './plan-bar';
import { PlanSheets, isAside, type Open } from './plan-sheets';
import { PrintWeek } from './views/print-week';
import { Steps, VIEWS, spanOf, type View } from './steps';
import { Strata } from './strata/strata';
import type { Held } from './gestures/held';
import { useFindings } from '@/interface/forecast/use-findings';
import { YearStrip } from './views/year';

/** What a day that is pressed leads to, from each view. */
const OPENED: Record<View, View> = { day: 'week', week: 'day', month: 'day', year: 'month', list: 'list' };

/** From so many pixels on there is room for more than a day. */
const NARROW = 700;
const WIDE = 1280;
const NARROW_VIEWS: readonly View[] = ['day', 'list'];

const NOWHERE: Site = { id: 'nowhere', name: 'No site yet', timeZone: 'UTC' };

/** All decisions in time: as strata of a day or a week, a month, a year, or a list. It looks at the moment's date. */
export function PlanPlace() {
  const { draft } = useNetwork('draft');
  const { moment, now, go } = useMoment();
  const [chosenView, setView] = useState<View>('week');
  const [open, setOpen] = useState<Open | null>(null);
  const [panel, showPanel] = useState(false);
  const [search, setSearch] = useState('');
  const [where, setWhere] = useState('');
  const [clockSite, setClockSite] = useState('');

  useWanted((wanted) => {
    const aside = wanted.get('open');
    const book = wanted.get('book');
    const booking = wanted.get('booking');
    const what = contentOf(wanted.get('what') ?? '');
    if (booking !== null) setOpen({ kind: 'booking', id: booking });
    else if (what) setOpen({ kind: 'new', begun: begunWith(draft, what) });
    else if (book !== null) setOpen({ kind: 'new', begun: { where: book } });
    else if (aside === 'findings') showPanel(true);
    else if (isAside(aside)) setOpen({ kind: aside });
  });
  const place = useRef<HTMLDivElement>(null);
  const narrow = useWidth(place, WIDE) < NARROW;
  const views = narrow ? NARROW_VIEWS : VIEWS;
  const view = views.includes(chosenView) ? chosenView : 'list';
  const matched = useMemo(() => (where.trim() === '' ? null : selectScreens(draft, where)), [draft, where]);
  const whereProblem = namesProblem(where, draft) ?? (matched?.ok === false ? matched.message : undefined);
  const screens = useMemo(() => (matched?.ok ? new Set(matched.value.map((one) => one.id)) : null), [matched]);
  const found = useMemo(
    () =>
      draft.bookings.filter((one) => {
        if (!searchable(one.name).includes(searchable(search))) return false;
        if (!screens) return true;
        const reached = selectScreens(draft, one.where);
        return reached.ok && reached.value.some(({ id }) => screens.has(id));
      }),
    [draft, search, screens],
  );
  const site = useMemo(
    () => draft.sites.find((one) => one.id === clockSite) ?? fullestSite(draft.sites, draft.screens, screens),
    [draft, clockSite, screens],
  );
  const zone = zoneTable(site.timeZone);
  const wall = toLocalTime(zone, moment);
  const date = dateOfLocalTime(wall);
  const today = dateOfLocalTime(toLocalTime(zone, now));
  const [first, last] = spanOf(view, date);
  const timeOfDay = useRef(0);
  useEffect(() => {
    timeOfDay.current = wall - startOfDate(date);
  }, [wall, date]);
  const toDate = useCallback(
    (to: number) => go(toInstant(zone, (startOfDate(to as LocalDate) + timeOfDay.current) as LocalTime)),
    [go, zone],
  );
  const openDay = useCallback(
    (day: number) => {
      toDate(day);
      startTransition(() => setView((view) => OPENED[view]));
    },
    [toDate],
  );
  const shown = useMemo(
    () => [first, addDays(last, 1)].map((day) => toInstant(zone, startOfDate(day))) as [number, number],
    [zone, first, last],
  );
  const findings = useFindings(...shown) ?? NO_FINDINGS;
  const worth = findings.filter((one) => one.severity !== 'notice').length;

  const openBooking = useCallback((id: string) => setOpen({ kind: 'booking', id }), []);
  const openDrawnDays = useCallback(
    (from: LocalDate, to: LocalDate) =>
      setOpen({ kind: 'new', begun: { where, when: { from: formatDate(from), to: formatDate(to) } } }),
    [where],
  );
  const openDrawn = useCallback((drawn: Held) => setOpen({ kind: 'new', begun: begunBooking(drawn, where) }), [where]);
  useKey('n', 'A new booking', () => setOpen({ kind: 'new', begun: { where } }));
  useKey('f', 'Findings', () => showPanel(!panel));

  return (
    <div ref={place} className="flex h-full min-h-[32rem] flex-col">
      <h1 className="sr-only">Plan</h1>
      <PlanBar
        {...{ views, view, search, where, whereProblem, panel, worth }}
        onView={(one) => startTransition(() => setView(one))}
        onSearch={setSearch}
        onWhere={setWhere}
        onPanel={showPanel}
        onOpen={setOpen}
        steps={
          view !== 'list' && (
            <Steps view={view} date={date} first={first} last={last} onDate={toDate} onToday={() => go(null)} />
          )
        }
      />
      <div className="flex min-h-0 flex-1 border-t border-rule print:hidden">
        <div className="flex min-w-0 flex-1 flex-col">
          {draft.bookings.length === 0 && (
            <Empty title="Nothing is booked yet">
              A booking says what is shown, where, when, and how urgently. Draw one in a layer, or press New booking.
            </Empty>
          )}
          {(view === 'day' || view === 'week') && (
            <Strata
              bookings={found}
              where={screens ? where : undefined}
              site={site}
              onSite={setClockSite}
              first={first}
              days={last - first + 1}
              narrow={narrow}
              findings={findings}
              onOpen={openBooking}
              onDraw={openDrawn}
              onDay={openDay}
            />
          )}
          {view === 'month' && (
            <MonthView
              bookings={found}
              site={site}
              date={date}
              today={today}
              findings={findings}
              onDay={openDay}
              onOpen={openBooking}
              onDrawn={openDrawnDays}
            />
          )}
          {view === 'year' && (
            <YearStrip
              bookings={found}
              site={site}
              year={civil(date).year}
              today={today}
              onDay={openDay}
              onOpen={openBooking}
            />
          )}
          {view === 'list' && <BookingList bookings={found} onOpen={openBooking} />}
        </div>
        {panel && (
          <FindingsPanel shown={shown} zone={site.timeZone} onOpen={openBooking} onClose={() => showPanel(false)} />
        )}
      </div>
      <PrintWeek bookings={found} site={site} first={addDays(date, -weekdayIndex(date))} />
      <PlanSheets open={open} date={date} onOpen={setOpen} onClose={() => setOpen(null)} />
    </div>
  );
}

const NO_FINDINGS: readonly never[] = [];

/** The site of the most screens: its clock is the one that most people mean. */
function fullestSite(
  sites: readonly Site[],
  screens: readonly { id: string; site: string }[],
  only: ReadonlySet<string> | null,
): Site {
  const count = new Map<string, number>();
  for (const { id, site } of screens) if (!only || only.has(id)) count.set(site, (count.get(site) ?? 0) + 1);
  const [id] = [...count].sort((a, b) => b[1] - a[1])[0] ?? [];
  return sites.find((one) => one.id === id) ?? sites[0] ?? NOWHERE;
}
