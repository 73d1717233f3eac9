import equal from 'fast-deep-equal';
import type { KnownFiring } from '@/core/cues';
import { seasons, localOccasions } from '@/core/booking';
import { diffPlans } from '@/core/edition';
import {
  NetworkForecast,
  airTime,
  broughtTo,
  changes,
  forecast,
  glances,
  misfits,
  neverShown,
  nextShown,
  playlistsOn,
  outcomeRange,
  outcomeRows,
  programsOf,
  reach,
  unplayable,
  why,
  whyNotShown,
} from '@/core/forecast';
import { sharing, withPatches, type Plan } from '@/core/plan';
import { abilitiesIn } from '@/core/profiles';
import { besidesOf, findings } from '@/core/preflight';
import { screensMatching, selectorOf } from '@/core/selector';
import { layoutSeen } from '@/core/layouts';
import { adoptZones, type LocalDate } from '@/core/when';
import { pack } from './packed';
import type { Answers, FromWorker, Question, ToWorker } from './messages';

/** Forecasts off the page's thread: the same core that runs on the server and in the player. */

const plans = new Map<string, Plan>();
const KEPT = 6;
let newest: Plan | null = null;

/** Outlooks by their dates: each computes again only what an edit touches. */
const forecasts = new Map<string, NetworkForecast>();
const FORECASTS_KEPT = 4;

function networkForecast(first: LocalDate, last: LocalDate): NetworkForecast {
  const key = `${first} ${last}`;
  const found = forecasts.get(key) ?? new NetworkForecast(...outcomeRange(first, last));
  forecasts.delete(key);
  forecasts.set(key, found);
  for (const old of forecasts.keys()) if (forecasts.size > FORECASTS_KEPT) forecasts.delete(old);
  return found;
}

let firings: readonly KnownFiring[] = [];

/** The list that was given last, if this one has the same in it: programs are remembered by their list. */
function sameFirings(list: readonly KnownFiring[] = []): readonly KnownFiring[] {
  if (!equal(list, firings)) firings = list;
  return firings;
}

function answer(plan: Plan, question: Question): unknown {
  switch (question.kind) {
    case 'glances':
      return glances(plan, question.at, new Set(question.screens), sameFirings(question.firings));
    case 'layout':
      return layoutSeen(plan, question.layout, question.at, sameFirings(question.firings));
    case 'changes':
      return changes(
        ...([plan, question.from, question.to, question.screens && new Set(question.screens)] as const),
        sameFirings(question.firings),
      );
    case 'segments': {
      const program = programsOf(plan, sameFirings(question.firings)).get(question.screen);
      return program ? forecast(program, question.from, question.to).segments : [];
    }
    case 'brought':
      return broughtTo(plan, question.screen);
    case 'why':
      return why(plan, question.screen, question.at, question.firings);
    case 'outcome': {
      const { first, last, edits = [], where, limit, of } = question;
      const edited = withPatches(plan, edits);
      const only = where === undefined ? undefined : screensMatching(edited, selectorOf(where)).map(({ id }) => id);
      const meant = only && new Set(only);
      const outcomes = networkForecast(first, last).outcomes(edited);
      const rows = outcomeRows(outcomes, first, last, meant);
      const booking = of === undefined ? undefined : edited.bookings.find(({ id }) => id === of);
      const groups = outcomes.filter(({ screens }) => !meant || screens.some((screen) => meant.has(screen)));
      return {
        ...{ rows: rows.slice(0, limit), groups: rows.length },
        whyNot: booking ? whyNotShown(edited, booking, groups, outcomeRange(first, last)) : null,
      } satisfies Answers['outcome'];
    }
    case 'localOccasions': {
      const { site, first, last, edits = [] } = question;
      const edited = withPatches(plan, edits);
      return localOccasions(edited, edited.bookings, site, first, last);
    }
    case 'seasons':
      return seasons(plan, plan.bookings, question.site, question.first, question.last);
    case 'reach':
      return reach(plan, question.booking);
    case 'findings':
      return findings(plan, question.from, question.to, question.now).map(pack);
    case 'besides':
      return besidesOf(plan, question.finding, question.fixes, question.from, question.to);
    case 'airtime':
      return airTime(plan, question.subject, question.from, question.to);
    case 'next':
      return nextShown(networkForecast(question.first, question.last).outcomes(plan), question.media, question.at);
    case 'playlists':
      return playlistsOn(plan, question.screens, question.at);
    case 'never':
      return neverShown(plan, question.from, question.to);
    case 'misfits':
      return misfits(plan, new Set(question.screens));
    case 'unplayable':
      return unplayable(plan, abilitiesIn(plan, new Map(question.told)));
    case 'differences':
      return diffPlans(planCalled(question.before), plan, question.from, question.to, new Set(question.screens));
  }
}

function planCalled(key: string): Plan {
  const plan = plans.get(key);
  if (!plan) throw new Error(`The plan ${key} was not sent.`);
  return plan;
}

function keep(key: string, plan: Plan): void {
  newest = plan;
  plans.delete(key);
  plans.set(key, plan);
  for (const old of plans.keys()) if (plans.size > KEPT) plans.delete(old);
}

addEventListener('message', ({ data }: MessageEvent<ToWorker>) => {
  if ('plan' in data) {
    adoptZones(data.zones);
    const plan = JSON.parse(data.plan) as Plan;
    return keep(data.key, newest ? sharing(newest, plan) : plan);
  }
  if ('from' in data) {
    adoptZones(data.zones);
    const from = plans.get(data.from);
    if (from) keep(data.key, withPatches(from, data.patches));
    return;
  }
  const reply = (message: FromWorker) => postMessage(message);
  try {
    reply({ id: data.id, value: answer(planCalled(data.key), data.question) });
  } catch (error) {
    reply({ id: data.id, error: error instanceof Error ? error.message : String(error) });
  }
});
