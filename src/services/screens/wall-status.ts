import { partName, partsOf, type Wall } from '@/core/walls';
import { statusOf, type Heard, type PartStatus, type ScreenState, type ScreenStatus } from './status';

/** How a wall is, by what the players of its displays told last: pure. */

/** What is known of one player of a screen. */
export interface HeardOfWall extends Heard {
  readonly wall: Wall | null;
  /** The number of its display; null without a player. */
  readonly part: number | null;
}

/** The state that a person should know of comes first. A wall rests or is lit only if all of its displays do. */
const WORST: readonly ScreenState[] = ['dark', 'unpaired', 'behind', 'lit', 'resting'];

/** A wall's status: the worst of its displays', with the trouble of each under its name. */
export function wallStatusOf(
  wall: Wall,
  heard: readonly HeardOfWall[],
  target: string | null,
  now: number,
): ScreenStatus {
  const [first] = heard;
  const id = first?.id ?? '';
  const empty: Heard = { id, player: null, lastSeen: null, report: null };
  const displays = partsOf(wall).map((part) => {
    const player = heard.find((one) => one.player !== null && one.part === part.number);
    return { part, status: statusOf(player ?? empty, target, now) };
  });
  const without = displays.filter(({ status }) => status.state === 'unpaired');
  const dark = displays.filter(({ status }) => status.state === 'dark');
  const worst = WORST.map((state) => displays.find(({ status }) => status.state === state)).find(Boolean);
  if (!worst) return statusOf(empty, target, now);
  const isUnpaired = without.length === displays.length;
  const left = heard.filter(({ player, part }) => player !== null && !displays.some((one) => one.part.number === part));
  return {
    ...worst.status,
    // A wall with a hole in it isn't whole: you have to go there, as for a display that is dark.
    state: isUnpaired ? 'unpaired' : worst.status.state === 'unpaired' ? 'dark' : worst.status.state,
    troubles: isUnpaired
      ? []
      : [
          ...(dark.length > 0 && dark.length < displays.length ? [listed(dark, 'is dark', 'are dark')] : []),
          ...(without.length > 0 ? [listed(without, 'has no player', 'have no player')] : []),
          ...(left.length > 0
            ? ['A player of a display that this wall no longer has is still paired. Unpair it.']
            : []),
          ...troublesOf(displays),
        ],
    parts: displays.map(({ part, status }): PartStatus => ({
      ...part,
      ...{ state: status.state, lastSeen: status.lastSeen },
    })),
    can: displays.flatMap(({ status }) => (status.state === 'unpaired' ? [] : [status.can])).reduce(both, null),
  };
}

interface Display {
  readonly part: Parameters<typeof partName>[0];
  readonly status: ScreenStatus;
}

const capital = (text: string) => `${text[0]?.toUpperCase() ?? ''}${text.slice(1)}`;

const listed = (displays: readonly Display[], one: string, many: string) =>
  `${capital(displays.map(({ part }) => partName(part)).join('; '))} ${displays.length === 1 ? one : many}.`;

/** What is wrong with all displays is said once; else it is said of which. */
function troublesOf(displays: readonly Display[]): string[] {
  const paired = displays.filter(({ status }) => status.state !== 'unpaired');
  const all = [...new Set(paired.flatMap(({ status }) => status.troubles))];
  return all.map((text) => {
    const where = paired.filter(({ status }) => status.troubles.includes(text));
    return where.length === paired.length
      ? text
      : `${capital(where.map(({ part }) => partName(part)).join('; '))}: ${text}`;
  });
}

/** What a wall can do: what each of its displays can. */
const both = (before: readonly string[] | null, next: readonly string[] | null) =>
  before && next ? before.filter((one) => next.includes(one)) : (next ?? before);
