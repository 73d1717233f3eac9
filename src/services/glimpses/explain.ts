import {
  differentFields,
  distanceOf,
  verdictOf,
  fieldsIn,
  zonePlacedIn,
  type GlassLooks,
  type Look,
  type Looks,
  type Placed,
  type Verdict,
} from '@/core/glimpses';
import { blank, boxOf, coloursIn, cutOut, drawFile, painted, type Box, type Canvas, type View } from './draw';

/**
 * Whether a picture of the glass is what a program shows. Of what each place may show then, what is most like the picture is taken, the lowest
 * place first; what comes out is compared with the picture, as a whole and place by place.
 */

/** How a picture compares, and in which fields it differs, null where it doesn't. */
export interface Compared {
  readonly verdict: Verdict;
  readonly different: readonly number[] | null;
}

/** A place on the glass, and whether what shows in it changes at this moment. */
interface Pane {
  readonly box: Box;
  readonly changing: boolean;
}

interface Explained {
  readonly canvas: Canvas;
  readonly panes: readonly Pane[];
}

/** What is painted where it isn't known how it looks, in a picture for people. */
const UNKNOWN = '#808080';
/** A place that is smaller than this, in pixels of the picture, says too little for itself. */
const LEAST_PANE = 24;

const isUnknown = (look: Look): boolean => look.kind === 'words' || look.kind === 'input';
const isNothing = (look: Look): boolean => look.kind === 'nothing';

/** Whether anything is known of how a display looks then. */
export const isKnown = (glass: GlassLooks): boolean =>
  !withOwnCard(glass).looks.some(isUnknown) || glass.above.some((one) => !isNothing(one.due));

/** Compares a picture with what may be seen. Null where a file is no longer stored here. */
export async function compared(seen: Canvas, glass: GlassLooks, screen: Placed, view: View): Promise<Compared | null> {
  const whole = { left: 0, top: 0, ...view.size };
  let found = await likest(await blank(view, '#000'), withOwnCard(glass), screen, view, seen);
  for (const one of glass.above) {
    const over = found && (await likest(found.canvas, one, screen, view, seen, true));
    found = over && found && { canvas: over.canvas, panes: [...found.panes, ...over.panes] };
  }
  if (!found) return null;
  const { canvas, panes } = found;
  const isSteady = !glass.changing && glass.above.every((one) => !one.changing);
  const verdictIn = async (box: Box, changing: boolean) => {
    const fields = [await coloursIn(seen, view, box), await coloursIn(canvas, view, box)] as const;
    const verdict = verdictOf(fields[0], [fields[1]], false);
    const different = verdict === 'differs' ? differentFields(...fields) : [];
    return { box, verdict: verdict !== 'alike' && changing ? ('unsure' as const) : verdict, different };
  };
  const all = await verdictIn(whole, !isSteady);
  if (all.verdict !== 'alike')
    return { verdict: all.verdict, different: all.verdict === 'differs' ? all.different : null };
  const parts = await Promise.all(
    panes
      .filter(({ box }) => Math.min(box.width, box.height) >= LEAST_PANE)
      .map(({ box, changing }) => verdictIn(box, changing || !isSteady)),
  );
  const wrong = parts.filter(({ verdict }) => verdict === 'differs' || verdict === 'black');
  if (wrong.length > 0)
    return {
      verdict: 'differs',
      different: [...new Set(wrong.flatMap(({ box }) => fieldsIn(box, view.size)))].sort((a, b) => a - b),
    };
  return { verdict: parts.some(({ verdict }) => verdict === 'unsure') ? 'unsure' : 'alike', different: null };
}

/** The picture as it is planned, for people: null where a file is no longer stored here. */
export async function planned(glass: GlassLooks, screen: Placed, view: View): Promise<Canvas | null> {
  let canvas: Canvas | null = await drawDue(await blank(view, '#000'), withOwnCard(glass).due, screen, view);
  for (const { due } of glass.above) canvas = canvas && (await drawDue(canvas, due, screen, view, true));
  return canvas;
}

/** Where nothing is planned the player shows its own card. How that looks isn't known here. */
const withOwnCard = ({ due, looks, changing }: Looks): Looks => ({
  due: ownCard(due),
  looks: looks.map(ownCard),
  changing,
});
const ownCard = (look: Look): Look => (isNothing(look) ? { kind: 'words', text: '' } : look);

/** Paints, over what is there already, what of a place's looks is most like the picture. */
async function likest(
  under: Canvas,
  { looks, changing }: Looks,
  placed: Placed,
  view: View,
  seen: Canvas,
  isAbove = false,
): Promise<Explained | null> {
  const box = boxOf(view, placed);
  if (!box) return { canvas: under, panes: [] };
  const asSeen = async (panes: readonly Pane[]) => ({
    canvas: await painted(under, view, box, await cutOut(seen, view, box)),
    panes,
  });
  if (looks.some(isUnknown)) return asSeen([]);
  const drawn = (await Promise.all(looks.map((look) => drawLook(under, look, placed, view, seen, isAbove)))).flat();
  const known = drawn.filter((one) => one !== null);
  if (known.length < drawn.length) return null;
  const here = await coloursIn(seen, view, box);
  const fields = await Promise.all(known.map(({ canvas }) => coloursIn(canvas, view, box)));
  // Half way through a transition it is like a mixture of them.
  if (changing && !fields.some((one) => verdictOf(here, [one], false) === 'alike'))
    if (verdictOf(here, fields, true) === 'alike') return asSeen([]);
  const distances = fields.map((one) => distanceOf(here, one));
  const best = known[distances.indexOf(Math.min(...distances))] ?? { canvas: under, panes: [] };
  return { canvas: best.canvas, panes: isAbove ? best.panes : [...best.panes, { box, changing }] };
}

/** A look over what is there already, in each way in which it may be seen; null where a file is no longer stored here. */
async function drawLook(
  under: Canvas,
  look: Look,
  placed: Placed,
  view: View,
  seen: Canvas,
  isAbove: boolean,
): Promise<readonly (Explained | null)[]> {
  const box = boxOf(view, placed);
  if (!box || isNothing(look)) return [{ canvas: under, panes: [] }];
  if (look.kind === 'black') return [{ canvas: await painted(under, view, box, '#000'), panes: [] }];
  if (look.kind === 'file') {
    const frames = await drawFile(look, placed, view);
    if (!frames) return [null];
    return Promise.all(frames.map(async (frame) => ({ canvas: await painted(under, view, box, frame), panes: [] })));
  }
  if (look.kind !== 'layout') return [];
  let found: Explained | null = { canvas: await ground(under, look, box, view, isAbove), panes: [] };
  for (const zone of look.zones) {
    const over: Explained | null =
      found && (await likest(found.canvas, zone, zonePlacedIn(placed, look, zone), view, seen));
    found = over && found && { canvas: over.canvas, panes: [...found.panes, ...over.panes] };
  }
  return [found];
}

type LayoutLook = Extract<Look, { kind: 'layout' }>;

/** What is drawn above has no ground: what plays is seen between its zones. */
const ground = (under: Canvas, { background = '#000' }: LayoutLook, box: Box, view: View, isAbove: boolean) =>
  isAbove ? Promise.resolve(under) : painted(under, view, box, background);

async function drawDue(under: Canvas, look: Look, placed: Placed, view: View, isAbove = false): Promise<Canvas | null> {
  const box = boxOf(view, placed);
  if (!box || isNothing(look)) return under;
  if (look.kind === 'black') return painted(under, view, box, '#000');
  if (look.kind === 'file') {
    const [frame] = (await drawFile(look, placed, view)) ?? [];
    return frame ? painted(under, view, box, frame) : null;
  }
  if (look.kind !== 'layout') return painted(under, view, box, UNKNOWN);
  let canvas: Canvas | null = await ground(under, look, box, view, isAbove);
  for (const zone of look.zones)
    canvas = canvas && (await drawDue(canvas, zone.due, zonePlacedIn(placed, look, zone), view));
  return canvas;
}
