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
import { still, type Drawn } from './drawers/drawn';
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

/** Draws plays of all kinds: files, and what has a drawer of its own. `isWhole`: on the whole screen, not in a part of it. */
export const drawWithin =
  (around: Around, isWhole = false): Draw =>
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
            return paneOf(program, zoneTimeline(play, segment, zone), root, around, play.from);
          });
        return { name: id, version: versionOf(program, layout), draw };
      }
      case 'bulletin': {
        const { text = '' } = program.bulletins?.[id] ?? {};
        return { name: id, version: text, draw: () => drawCard(text) };
      }
      case 'input':
        return {
          name: id,
          version: program.withoutInput ?? '',
          draw: () => drawInput(id, program.withoutInput && (() => insteadOfInput(program, around, isWhole))),
        };
    }
  };

/** A zone's conductor keeps the usual clock; the conductor of the whole looks after takeovers and drills. */
const NOBODY_ASKS = [undefined, undefined, undefined] as const;

/** A part of the screen that plays by a timeline of its own, on its own stage. Before `from` it is made ready as it will be then. */
function paneOf(
  program: ProgramDocument,
  timeline: Timeline,
  root: HTMLElement,
  around: Around,
  from: Instant = -Infinity,
): Pane {
  const stage = around.stage(root);
  const now = () => Math.max(around.now(), from);
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
    timeline,
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

/** All that a layout's zones are drawn from: a program that differs in any of it has the layout drawn again. */
const versionOf = (
  { loops, bulletins, assets, withoutInput }: ProgramDocument,
  layout: NonNullable<ProgramDocument['layouts']>[string],
): string => {
  const zones = layout.zones.map(({ loop, ...zone }) => [zone, loops[loop] ?? []] as const);
  const items = zones.flatMap(([, loop]) => loop);
  const used = items.map(({ media = '', bulletin = '' }) => [assets[media]?.sha256, bulletins?.[bulletin]?.text]);
  return JSON.stringify([{ ...layout, zones }, used, withoutInput]);
};

/** What a display shows that doesn't have an input: the backdrop on the whole screen, and nothing in a part of it. */
async function insteadOfInput(program: ProgramDocument, around: Around, isWhole: boolean): Promise<Drawn> {
  const element = document.createElement('div');
  element.style.background = 'none';
  if (!isWhole) return still(element, () => undefined);
  const pane = paneOf(program, backdropTimeline, element, around);
  await pane.ready();
  return { ...still(element, pane.free), begin: pane.play, hush: pane.hush };
}

/** What would show if nothing were booked. */
const backdropTimeline: Timeline = (program, from, to) => {
  const { weaves: _weaves, overlays: _overlays, ...bare } = program;
  return forecast({ ...bare, bookings: [] }, from, to, { plays: true, zones: false });
};

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
