import { group } from 'd3-array';
import type { Glance, Segment } from '@/core/forecast';
import { DAY, type Instant } from '@/core/instant';
import type { Plan } from '@/core/plan';
import type { Ahead } from '@/interface/data/planned';
import type { NamedPlan } from '@/interface/data/state';

/** What comes on a screen, where editions that wait take over before the plan of now would change it. */

/** A glance whose next change may be an edition's that waits: by its plan then. */
export interface SeenGlance extends Glance {
  readonly next: (NonNullable<Glance['next']> & { readonly by?: Plan }) | null;
}

/** What an edition shows on a screen from the instant on at which it takes over. */
export interface Takes {
  readonly at: Instant;
  readonly plan: Plan;
  readonly glance: Glance;
}

/** The same glance where nothing takes over ahead of its next change. `takes` are in order of time. */
export function withTakes(glance: SeenGlance, takes: readonly Takes[]): SeenGlance {
  let { next } = glance;
  for (const { at, plan, glance: then } of takes) {
    if (next && next.at < at) break;
    const isSame = then.source === glance.source && then.id === glance.id;
    next = isSame ? then.next && { ...then.next, by: plan } : { at, source: then.source, id: then.id, by: plan };
  }
  return next === glance.next ? glance : { ...glance, next };
}

type Ask = (plan: NamedPlan, at: Instant, screens: readonly string[]) => Promise<readonly Glance[]>;

/** Looks ahead for many screens, and keeps what it found: what waits does not change. */
export class NextAhead {
  private readonly known = new Map<string, Glance | undefined>();
  private readonly seen = new Map<
    string,
    { readonly glance: Glance; readonly of: string; readonly seen: SeenGlance }
  >();

  constructor(private readonly ask: Ask) {}

  /** The glances, with what comes next; the same map where nothing takes over within a day. */
  async of(
    glances: ReadonlyMap<string, Glance>,
    moment: Instant,
    laterOf: (screen: string) => readonly Ahead[],
  ): Promise<ReadonlyMap<string, SeenGlance>> {
    const later = new Map(
      [...glances.keys()].map((screen) => [screen, laterOf(screen).filter((one) => one.at < moment + DAY)] as const),
    );
    const wanted = [...later].flatMap(([screen, steps]) =>
      steps.flatMap(({ at, plan }) => (plan && !this.known.has(keyOf(plan, at, screen)) ? { screen, at, plan } : [])),
    );
    if (wanted.length === 0 && [...later.values()].every((steps) => steps.length === 0)) return glances;
    await Promise.all(
      [...group(wanted, ({ plan, at }) => `${plan.key} ${at}`).values()].map(async (list) => {
        const [{ plan, at }] = list as [(typeof list)[number]];
        const found = await this.ask(
          plan,
          at,
          list.map(({ screen }) => screen),
        );
        for (const { screen } of list) this.known.set(keyOf(plan, at, screen), undefined);
        for (const one of found) this.known.set(keyOf(plan, at, one.screen), one);
      }),
    );
    return new Map([...glances].map(([screen, glance]) => [screen, this.across(glance, later.get(screen) ?? [])]));
  }

  private across(glance: Glance, steps: readonly Ahead[]): SeenGlance {
    const takes = steps.flatMap(({ at, plan }) => {
      const then = plan && this.known.get(keyOf(plan, at, glance.screen));
      return plan && then ? [{ at, plan: plan.plan, glance: then }] : [];
    });
    // What did not change stays the same object, so that only tiles that differ are drawn again.
    const of = steps.map(({ at, plan }) => `${plan?.key ?? ''} ${at}`).join();
    const before = this.seen.get(glance.screen);
    if (before?.glance === glance && before.of === of) return before.seen;
    const seen = withTakes(glance, takes);
    this.seen.set(glance.screen, { glance, of, seen });
    return seen;
  }
}

const keyOf = ({ key }: NamedPlan, at: Instant, screen: string) => `${key} ${at} ${screen}`;

/** A stretch of a screen's day, and the plan that says so. */
export interface DayPart {
  readonly segment: Segment;
  readonly plan: Plan;
  readonly at: Instant;
  /** Whether an edition that waits says so. */
  readonly waits: boolean;
}

/** A screen's next day by what is out at an instant and by each edition that takes over; up to one that is not here yet, then. */
export async function nextDay(
  from: Instant,
  seen: NamedPlan,
  later: readonly Ahead[],
  ask: (plan: NamedPlan, from: Instant, to: Instant) => Promise<readonly Segment[]>,
): Promise<readonly DayPart[]> {
  const steps = later.filter(({ at }) => at < from + DAY);
  const missing = steps.findIndex(({ plan }) => !plan);
  const end = steps[missing]?.at ?? from + DAY;
  const known = missing < 0 ? steps : steps.slice(0, missing);
  const parts = [{ at: from, plan: seen, waits: false }].concat(
    known.flatMap(({ at, plan }) => (plan ? [{ at, plan, waits: true }] : [])),
  );
  const lists = await Promise.all(
    parts.map(async ({ at, plan, waits }, i) =>
      (await ask(plan, at, parts[i + 1]?.at ?? end)).map((segment) => ({
        ...{ segment, waits, plan: plan.plan },
        at: Math.max(segment.from, at) as Instant,
      })),
    ),
  );
  return lists.flat();
}
