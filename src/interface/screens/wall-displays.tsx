import { partName, type Wall } from '@/core/walls';
import { Lantern, STATE_WORDS } from '@/interface/kit/lantern/lantern';
import { Button } from '@/interface/kit/controls/button';
import type { ScreenStatus } from '@/services/screens';

/** The displays of a wall as they hang, each with its state; a press takes its player away. */
export function WallDisplays({
  wall,
  parts,
  onUnpair,
}: {
  wall: Wall;
  parts: NonNullable<ScreenStatus['parts']>;
  onUnpair: (part: number) => void;
}) {
  return (
    <ul
      aria-label="Displays of this wall"
      className="mt-3 grid gap-1"
      style={{ gridTemplateColumns: `repeat(${wall.columns}, minmax(0, 1fr))` }}
    >
      {parts.map((part) => (
        <li key={part.number} className="flex flex-col items-center border border-rule bg-paper px-1 py-2 text-sm">
          <Lantern state={part.state} />
          <span className="text-center text-xs">
            {partName(part)}
            <span className="sr-only">: {STATE_WORDS[part.state]}</span>
          </span>
          {part.state !== 'unpaired' && (
            <Button
              needs="operate"
              variant="quiet"
              className="!px-1 !py-0 text-xs"
              aria-label={`Unpair ${partName(part)}`}
              onClick={() => onUnpair(part.number)}
            >
              Unpair
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}
