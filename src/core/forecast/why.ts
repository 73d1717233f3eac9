import type { Instant } from '../instant';
import type { Plan } from '../plan/schema';
import { formatLocalTime, instantsOf, intervalAt, occurrences, toLocalTime } from '../when';
import type { KnownFiring } from '../cues';
import { overlays } from './drawn';
import { forecastAt } from './forecast';
import { loopsIn } from './plays';
import { placeOf } from './program';
import { programMaker } from './narrow';
import { candidates, compareCandidates, lightsOutInstants, type Candidate, type Source } from './segments';

/** The rule of section 5 that puts the candidate above behind the one before it. */
export type Rule =
  | 'takeover'
  | 'kind'
  | 'priority'
  | 'later start'
  | 'later created'
  | 'greater id'
  | 'level'
  | 'lights-out'
  | 'woven'
  | 'turn'
  | 'nothing to show';

export interface Reason {
  readonly source: Source;
  readonly id: string | null;
  readonly name: string;
  readonly verdict: 'shows' | 'waits';
  /** Why it waits; null for what shows. */
  readonly rule: Rule | null;
  readonly priority: number | null;
  readonly until: Instant | null;
}

/** What is drawn above what shows: a booking's layout. */
export interface Overlaid {
  readonly id: string;
  readonly name: string;
  readonly layout: string;
  readonly until: Instant | null;
}

export interface Explanation {
  readonly reasons: readonly Reason[];
  /** What is drawn above it, the uppermost last. */
  readonly over: readonly Overlaid[];
  readonly sentence: string;
}

const LEVEL_NAMES: Record<string, string> = {
  screen: 'the screen’s backdrop',
  site: 'the site’s backdrop',
  network: 'the network’s backdrop',
};

/** Why a screen shows what it shows at an instant: all that applies, the winner first, each with the rule that placed it. */
export function why(plan: Plan, screenId: string, instant: Instant, firings: readonly KnownFiring[] = []): Explanation {
  const program = programMaker(plan, firings)(screenId);
  const place = placeOf(program);
  const clock = (at: Instant) => formatLocalTime(toLocalTime(place.zone, at));
  const nameOf = (id: string) => LEVEL_NAMES[id] ?? plan.bookings.find((one) => one.id === id)?.name ?? id;
  const dark = intervalAt(lightsOutInstants(program, place, instant, instant + 1), instant);
  const here = candidates(program, place, instant, instant + 1).sort(compareCandidates);
  const counts = (one: Candidate) => one.counts.length > 0 && (!dark || one.wake);
  const winner = here.find(counts);

  const { play, segment } = forecastAt(program, instant);
  const weaver = play?.weave ?? null;
  const woven = loopsIn(program, place, { ...segment, from: instant, to: instant + 1 }).flatMap(
    ({ weave }): Reason[] => {
      if (!weave) return [];
      const { id, priority, when } = weave;
      const shows = id === weaver;
      return [
        {
          ...{ source: 'booking', id, name: nameOf(id), priority, verdict: shows ? 'shows' : 'waits' },
          rule: shows ? null : 'turn',
          until: shows
            ? (play?.to ?? null)
            : (intervalAt(instantsOf(when, place, instant, instant + 1), instant)?.[1] ?? null),
        },
      ];
    },
  );
  const rows = here.map((one): Reason => ({
    source: one.source,
    id: one.id,
    name: nameOf(one.id),
    verdict: one === winner && weaver === null ? 'shows' : 'waits',
    rule:
      one === winner
        ? weaver === null
          ? null
          : 'woven'
        : one.counts.length === 0
          ? 'nothing to show'
          : dark && !one.wake
            ? 'lights-out'
            : ruleBetween(winner, one),
    priority: one.source === 'backdrop' ? null : one.priority,
    until: one.until,
  }));
  const night: Reason = {
    source: 'lights-out',
    id: null,
    name: 'Lights-out',
    verdict: 'shows',
    rule: null,
    priority: null,
    until: dark && Number.isFinite(dark[1]) ? dark[1] : null,
  };
  const reasons = [
    ...[...rows, ...woven].filter((row) => row.verdict === 'shows'),
    ...(dark && !winner ? [night] : []),
    ...[...rows, ...woven].filter((row) => row.verdict !== 'shows'),
  ];
  const cue = program.bookings.find((one) => one.id === winner?.id)?.cue;
  const fired =
    cue === undefined || weaver !== null || !winner
      ? null
      : `since ${clock(winner.since)}, because ${firedBy(plan, cue, winner.since, firings)}`;
  const over = overlays(program, place, [segment]).map(({ id, layout }): Overlaid => {
    const on = occurrences(program.overlays?.find((one) => one.id === id)?.when ?? {}, place, instant, instant + 1)[0];
    return { id, name: nameOf(id), layout, until: on?.to ?? null };
  });
  return { reasons, over, sentence: sentenceOf(reasons, clock, { isWoven: weaver !== null, fired, over }) };
}

/** Who fired a cue at an instant, as far as that is known. */
function firedBy(plan: Plan, cue: string, at: Instant, firings: readonly KnownFiring[]): string {
  const name = plan.cues.find(({ id }) => id === cue)?.name ?? cue;
  const firing = firings.findLast((one) => one.cue === cue && !one.end && Date.parse(one.at) === at);
  if (firing?.isLocal) return `“${name}” was chosen at the screen`;
  if (firing?.by === undefined) return `the cue “${name}” was fired`;
  return `${firing.by}${firing.by.includes(',') ? ',' : ''} fired “${name}”`;
}

function ruleBetween(winner: Candidate | undefined, other: Candidate): Rule | null {
  if (!winner) return null;
  if (winner.source !== other.source) return winner.source === 'takeover' ? 'takeover' : 'kind';
  if (winner.source === 'backdrop') return 'level';
  if (winner.priority !== other.priority) return 'priority';
  if (winner.since !== other.since) return 'later start';
  return winner.created !== other.created ? 'later created' : 'greater id';
}

const BECAUSE: Record<Rule, string> = {
  takeover: 'a takeover goes ahead of it',
  kind: 'a booking goes ahead of a backdrop',
  priority: 'its priority is lower',
  'later start': 'it began earlier',
  'later created': 'it was made earlier',
  'greater id': 'its id comes first',
  level: 'a nearer backdrop goes ahead',
  'lights-out': 'these are lights-out hours',
  woven: 'another item is playing in its loop',
  turn: 'it is woven in, and its next turn comes later',
  'nothing to show': 'it has nothing to show here now',
};

function sentenceOf(
  reasons: readonly Reason[],
  clock: (at: Instant) => string,
  { isWoven, fired, over }: { isWoven: boolean; fired: string | null; over: readonly Overlaid[] },
): string {
  const [first, ...rest] = reasons;
  const shown = first?.verdict === 'shows' ? first : undefined;
  const waiting = (shown ? rest : reasons).slice(0, 2);
  const until = shown?.until != null ? ` until ${clock(shown.until)}` : '';
  const head = !shown
    ? 'Nothing, because no booking applies and no backdrop has anything to show'
    : fired !== null
      ? `${shown.name}${until}, ${fired}`
      : shown.source === 'takeover'
        ? `${shown.name}, because it is a takeover${until}`
        : isWoven
          ? `${shown.name}, because it is woven into the loop${until}`
          : shown.source === 'booking'
            ? `${shown.name}, because it is booked with priority ${shown.priority}${until}`
            : shown.source === 'lights-out'
              ? `Nothing, because it is lights-out${until}`
              : `${capital(shown.name)}, because no booking has anything to show`;
  const tail = waiting.map((one) => {
    const priority = one.priority === null ? '' : `, priority ${one.priority},`;
    return `${one.name}${priority} waits${one.rule ? ` (${BECAUSE[one.rule]})` : ''}`;
  });
  const above = over.map(
    (one) => `${one.name} is drawn over it${one.until === null ? '' : ` until ${clock(one.until)}`}`,
  );
  return `${[head, ...above, ...(tail.length > 0 ? [`under it ${tail.join(', and ')}`] : [])].join('; ')}.`;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
