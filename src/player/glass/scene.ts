import {
  drawnIn,
  forecast,
  placeOf,
  zonePlays,
  type Instant,
  type LoopItem,
  type Play,
  type ProgramDocument,
  type Segment,
} from '@/core/playing';
import { Conductor, drawFile, type Draw, type Timeline } from './conductor';
import { drawCard } from './drawers/card';
import { drawInput } from './drawers/input';
import { drawLayout, type Pane } from './drawers/layout';
import type { Stage } from './stage';

/** What panes need of the player that they are in. */
export interface Around {
  now(): number;
  report(message: string): void;
  /** A new stage in an element, beside the one that shows the whole. */
  stage(root: HTMLElement): Stage;
}

/** Draws plays of all kinds: files, and what has a drawer of its own. */
export const drawWithin =
  (around: Around): Draw =>
  (program, play, segment) => {
    const { kind, id } = drawnIn(play);
    const item: LoopItem | undefined = program.loops[play.loop]?.[play.item];
    switch (kind) {
      case 'media':
        return drawFile(program, play, segment);
      case 'layout': {
        const layout = program.layouts?.[id];
        if (!layout) throw new Error(`The layout “${id}” is missing in the program.`);
        const draw = () =>
          drawLayout(layout, item?.fit ?? 'whole', (zone, root) => {
            root.dataset.layout = id;
            return paneOf(program, play, segment, zone, root, around);
          });
        return { name: id, draw };
      }
      case 'bulletin': {
        const { text = '' } = program.bulletins?.[id] ?? {};
        return { name: id, draw: () => drawCard(text) };
      }
      case 'input':
        return { name: id, draw: () => drawInput(id) };
    }
  };

/** A zone's conductor keeps the usual clock; the conductor of the whole looks after takeovers and drills. */
const NOBODY_ASKS = [undefined, undefined, undefined] as const;

/** What one zone shows in a layout's play, on a stage of its own. */
function paneOf(
  program: ProgramDocument,
  play: Play,
  segment: Segment,
  zone: string,
  root: HTMLElement,
  around: Around,
): Pane {
  const stage = around.stage(root);
  // Before its turn a layout is made ready as it will be then.
  const now = () => Math.max(around.now(), play.from);
  let told = () => {};
  const conductor = new Conductor(
    stage,
    now,
    () => told(),
    (message) => {
      around.report(message);
      told();
    },
    ...NOBODY_ASKS,
    drawWithin(around),
    zoneTimeline(play, segment, zone),
  );
  return {
    ready: () => conductor.prepareFirst(program),
    play: () =>
      new Promise((seen) => {
        told = seen;
        conductor.play(program);
      }),
    hush: () => stage.hush(),
    free: () => {
      conductor.stop();
      stage.clear();
    },
  };
}

/** When a zone shows what, for as long as its layout is on. */
const zoneTimeline =
  (play: Play, segment: Segment, zone: string): Timeline =>
  (program: ProgramDocument, from: Instant, to: Instant) => {
    const zones = zonePlays(program, placeOf(program), segment, { ...play, from, to });
    return {
      segments: [{ ...segment, from, to }],
      plays: zones?.find((one) => one.zone === zone)?.plays ?? [],
    };
  };

/** When a booking that is drawn over everything is seen. */
export const overlayTimeline =
  (booking: string): Timeline =>
  (program: ProgramDocument, from: Instant, to: Instant) => {
    const times = (forecast(program, from, to).overlays ?? []).filter(({ id }) => id === booking);
    const segment: Segment = { from, to, source: 'booking', id: booking, since: times[0]?.since ?? from, loop: -1 };
    const plays = times.map(({ layout, since, ...time }): Play => ({
      ...{ layout, start: since, from: time.from, to: time.to },
      ...{ loop: -1, item: 0, fromMs: 0, weave: null },
    }));
    return { segments: [segment], plays };
  };
