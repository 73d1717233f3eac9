import { useMemo } from 'react';
import { placesOf } from '@/core/walls';
import { useNetwork } from '@/interface/data/provider';
import type { ScreenStatus } from '@/services/screens';

/** Somewhere that a player can be: a screen, or a display of a wall. */
export interface PairingPlace {
  readonly id: string;
  readonly screen: string;
  /** The screen's name; of a wall with the display, "Hall wall, row 1, column 2". */
  readonly name: string;
  /** The wall's own name; null for a screen that isn't a wall. */
  readonly wall: string | null;
  readonly site: string;
  /** Whether it has no player. */
  readonly isFree: boolean;
}

/** All places for players, in the order of their sites. */
export function usePlaces(): readonly PairingPlace[] {
  const { draft, statuses } = useNetwork('draft', 'statuses');
  return useMemo(() => {
    const order = new Map(draft.sites.map(({ id }, i) => [id, i]));
    const sites = new Map(draft.sites.map(({ id, name }) => [id, name]));
    const screens = [...draft.screens].sort((a, b) => (order.get(a.site) ?? 0) - (order.get(b.site) ?? 0));
    return screens.flatMap((screen) =>
      placesOf(screen).map(({ id, part, name }) => ({
        ...{ id, screen: screen.id, site: sites.get(screen.site) ?? '' },
        name: name ? `${screen.name}, ${name}` : screen.name,
        wall: name ? screen.name : null,
        isFree: isFree(statuses.get(screen.id), part),
      })),
    );
  }, [draft, statuses]);
}

function isFree(status: ScreenStatus | undefined, part: number): boolean {
  const own = status?.parts?.find(({ number }) => number === part)?.state ?? status?.state;
  return (own ?? 'unpaired') === 'unpaired';
}
