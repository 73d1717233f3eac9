import { Select } from '@/interface/kit/controls/field';
import type { PairingPlace } from './places';

/** Chooses where a player is to be. Says of a place that has a player that this one replaces it. */
export function PlaceSelect({
  label,
  value,
  none,
  places,
  className,
  onChange,
}: {
  label: string;
  value: string;
  /** What it means if nothing is chosen; absent: that isn't a choice. */
  none?: string | undefined;
  places: readonly PairingPlace[];
  className?: string;
  onChange: (place: string) => void;
}) {
  return (
    <Select
      aria-label={label}
      className={className ?? ''}
      value={value}
      onChange={({ target }) => onChange(target.value)}
    >
      {none !== undefined && <option value="">{none}</option>}
      {places.map(({ id, name, site, isFree }) => (
        <option key={id} value={id}>
          {site} · {name}
          {isFree ? '' : ' (replaces its player)'}
        </option>
      ))}
    </Select>
  );
}

/** How many players that have a place lose it. */
export function ReplacedWords({ count }: { count: number }) {
  if (count === 0) return null;
  return (
    <p className="mt-3 font-semibold">
      This replaces the {count === 1 ? 'player of 1 screen' : `players of ${count} screens`}. Screens keep their tags
      and bookings.
    </p>
  );
}
