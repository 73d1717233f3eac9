'use client';

import { canSplit, isFree, join, joinable, lifted, split, swapped } from '@/core/layouts';
import type { Layout, Zone } from '@/core/plan';
import { Button } from '@/interface/kit/controls/button';
import { Select } from '@/interface/kit/controls/field';

/** What is done to the chosen zone: split, joined, swapped, brought over another, taken away. */
export function ZoneActs({
  layout: { zones, width, height },
  zone,
  onChoose,
  onChange,
}: {
  layout: Layout;
  zone: Zone | undefined;
  onChoose: (zone: string) => void;
  /** The zones as they become, and the one that is chosen then. */
  onChange: (zones: readonly Zone[], chosen?: string) => void;
}) {
  const add = () => {
    const whole = { x: 0, y: 0, width, height };
    onChange([{ id: 'main', ...whole }], 'main');
  };
  if (!zone)
    return (
      <p className="mt-3">
        This layout has no zones. <Button onClick={add}>Add a zone</Button>
      </p>
    );
  const { id } = zone;
  const others = zones.filter((one) => one.id !== id);
  const cut = (axis: 'x' | 'y') => onChange(split(zones, id, axis, (half) => half as Zone));
  const isLayered = zones.some((one) => isFree(zones, one.id));
  const at = zones.findIndex((one) => one.id === id);
  const [next, before] = [zones[at + 1], zones[at - 1]];
  return (
    <div role="group" aria-label={`The zone ${id}`} className="mt-3 flex flex-wrap items-center gap-2 text-sm">
      <Button disabled={!canSplit(zones, id, 'x')} onClick={() => cut('x')}>
        Split side by side
      </Button>
      <Button disabled={!canSplit(zones, id, 'y')} onClick={() => cut('y')}>
        Split above and below
      </Button>
      <Chooser
        label="Join with"
        zones={joinable(zones, id)}
        onChoose={(other) =>
          onChange(
            join(zones, id, other, (kept, taken) => (kept.content ? kept : { ...taken, id: kept.id })),
            id,
          )
        }
      />
      <Chooser label="Swap with" zones={others} onChoose={(other) => onChange(swapped(zones, id, other))} />
      {isLayered && (
        <>
          <Button disabled={!next} onClick={() => onChange(lifted(zones, id, 1))}>
            Bring forward
          </Button>
          <Button disabled={!before} onClick={() => onChange(lifted(zones, id, -1))}>
            Send back
          </Button>
        </>
      )}
      <Button
        variant="grave"
        onClick={() => {
          onChange(others);
          const [first] = others;
          if (first) onChoose(first.id);
        }}
      >
        Delete zone
      </Button>
    </div>
  );
}

/** An act with another zone: choosing it does it. */
function Chooser({
  label,
  zones,
  onChoose,
}: {
  label: string;
  zones: readonly Zone[];
  onChoose: (zone: string) => void;
}) {
  if (zones.length === 0) return null;
  return (
    <Select
      aria-label={label}
      value=""
      className="!w-auto !py-1"
      onChange={({ target }) => target.value !== '' && onChoose(target.value)}
    >
      <option value="">{label}…</option>
      {zones.map(({ id }) => (
        <option key={id} value={id}>
          {id}
        </option>
      ))}
    </Select>
  );
}
