import { forecast, programMaker } from '../../forecast';
import type { LoopItem } from '../../forecast/loop';
import type { Play, WholePlay } from '../../forecast/plays';
import type { ProgramZone } from '../../forecast/program';
import { zonePlacedIn } from '../../glimpses/placed';
import type { Fit, Transition } from '../../plan/looks';
import { isShown } from '../../plan/known';
import type { Media, Plan } from '../../plan/schema';
import { never } from '../../refusal';
import { lineOf } from '../../text';
import { addDays, formatDate, startOfDate, toInstant, toLocalTime, zoneTable, type LocalDate } from '../../when';
import { fileName } from './tracks';

/**
 * A screen's day as SMIL 3.0 (W3C, https://www.w3.org/TR/2008/REC-SMIL3-20081201/, the Language profile): what the forecast gives, each
 * unbroken run as a `seq` that begins at an instant of the wall clock, each play with its length. The mapping is in
 * docs/plan-format.md.
 */

/** The day `date` of a screen, on the clock of its site. Throws RangeError for a screen that is not in the plan. */
export function writeSmil(plan: Plan, screenId: string, date: LocalDate): string {
  const program = programMaker(plan)(screenId);
  const screen = plan.screens.find(({ id }) => id === screenId);
  const { width = 0, height = 0, name = screenId } = screen ?? {};
  const zone = zoneTable(program.zone);
  const [from, to] = [toInstant(zone, startOfDate(date)), toInstant(zone, startOfDate(addDays(date, 1)))];
  const media = new Map(plan.media.map((file) => [file.id, file]));
  const { plays } = forecast(program, from, to, { plays: true });
  const itemOf = (play: Play): LoopItem | undefined => program.loops[play.loop]?.[play.item];
  const ways = new Map<string, { readonly id: string; readonly way: Transition }>();
  const wayOf = (item: LoopItem | undefined): string | undefined => {
    const way = item?.transition;
    if (!way || way.kind === 'cut') return undefined;
    const id = `${way.kind}-${way.ms}`;
    ways.set(id, { id, way });
    return id;
  };
  const regions = new Map<string, string>();
  /** A play's elements, in a region: its file, or its layout's zones beside each other. What isn't a file is left empty for its time. */
  const elements = (play: WholePlay, region: string, indent: string): string[] => {
    const { layout, zones } = play;
    if (layout === undefined || !zones) {
      const file = media.get(play.media ?? '');
      return file && isShown(file)
        ? [`${indent}${element(play, file, region, itemOf(play), wayOf(itemOf(play)))}`]
        : [`${indent}<seq dur="${seconds(play.to - play.from)}"/>`];
    }
    const shape = program.layouts?.[layout];
    const parts = zones.flatMap(({ zone: id, plays: within }) => {
      const placed = shape?.zones.find((one) => one.id === id);
      if (!shape || !placed) return [];
      const own = `zone-${layout}.${id}`;
      regions.set(own, regionOf(own, placed, shape, { width, height }, itemOf(play)?.fit));
      return runsOf(within).map(
        (run) =>
          `${indent}  <seq begin="${seconds((run[0]?.from ?? play.from) - play.from)}">\n${run
            .flatMap((one) => elements(one, own, `${indent}    `))
            .join('\n')}\n${indent}  </seq>`,
      );
    });
    return [`${indent}<par dur="${seconds(play.to - play.from)}">\n${parts.join('\n')}\n${indent}</par>`];
  };
  const runs = runsOf(plays).map((run) => {
    const begin = run[0]?.from ?? from;
    const parts = run.flatMap((play) => elements(play, 'screen', '        '));
    return `      <seq begin="wallclock(${wallClock(zone, begin)})">\n${parts.join('\n')}\n      </seq>`;
  });
  const transitions = [...ways.values()].map(({ id, way }) => `    <transition xml:id="${id}" ${transitionOf(way)}/>`);
  return `${[
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<!DOCTYPE smil PUBLIC "-//W3C//DTD SMIL 3.0 Language//EN" "http://www.w3.org/2008/SMIL30/SMIL30Language.dtd">',
    '<smil xmlns="http://www.w3.org/ns/SMIL" version="3.0" baseProfile="Language">',
    '  <head>',
    `    <meta name="title" content="${escaped(`${name}, ${formatDate(date)}`)}"/>`,
    '    <layout>',
    `      <root-layout width="${width}" height="${height}" backgroundColor="black"/>`,
    '      <region xml:id="screen" left="0" top="0" width="100%" height="100%" backgroundColor="black"/>',
    ...regions.values(),
    '    </layout>',
    ...transitions,
    '  </head>',
    '  <body>',
    '    <par>',
    ...runs,
    '    </par>',
    '  </body>',
    '</smil>',
  ].join('\n')}\n`;
}

/** Plays that follow each other without a gap, together. */
function runsOf<P extends Play>(plays: readonly P[]): P[][] {
  const runs: P[][] = [];
  for (const play of plays) {
    const last = runs.at(-1);
    if (last && last.at(-1)?.to === play.from) last.push(play);
    else runs.push([play]);
  }
  return runs;
}

const seconds = (ms: number) => `${ms / 1000}s`;

/** Where a zone lies on a screen: the layout is placed as a picture of its size would be. */
function regionOf(id: string, zone: ProgramZone, layout: Size, screen: Size, fit: Fit | undefined): string {
  const placed = zonePlacedIn({ left: 0, top: 0, ...screen }, { ...layout, fit: fit ?? 'whole' }, zone);
  const place = (['left', 'top', 'width', 'height'] as const).map((side) => [side, `${Math.round(placed[side])}`]);
  return `      <region xml:id="${escaped(id)}" ${place.map(([name, value]) => `${name}="${value}"`).join(' ')}/>`;
}

interface Size {
  readonly width: number;
  readonly height: number;
}

function element(
  play: Play,
  file: Media,
  region: string,
  item: LoopItem | undefined,
  transition: string | undefined,
): string {
  const film = file.kind === 'video';
  const clipBegin = film ? play.fromMs + (play.from - play.start) : 0;
  const attributes = [
    ['src', encodeURIComponent(fileName(file))],
    ['region', region],
    ['dur', seconds(play.to - play.from)],
    ...fitOf(item?.fit),
    ...(clipBegin > 0 ? [['clipBegin', seconds(clipBegin)]] : []),
    ...(film ? [['soundLevel', `${Math.round((item?.volume ?? 0) * 100)}%`]] : []),
    // What is joined in the middle of its turn has come already.
    ...(transition && play.from === play.start ? [['transIn', transition]] : []),
    ['title', lineOf(file.name, 200)],
  ];
  return `<${film ? 'video' : 'img'} ${attributes.map(([name, value = '']) => `${name}="${escaped(value)}"`).join(' ')}/>`;
}

/** SMIL 3.0 section 6.5.1, `fit`, and section 6.5.2, `mediaAlign`. */
function fitOf(fit: Fit = 'whole'): [name: string, value: string][] {
  switch (fit) {
    case 'whole':
      return [
        ['fit', 'meet'],
        ['mediaAlign', 'center'],
      ];
    case 'fill':
      return [
        ['fit', 'slice'],
        ['mediaAlign', 'center'],
      ];
    case 'stretch':
      return [['fit', 'fill']];
    case 'exact':
      return [
        ['fit', 'hidden'],
        ['mediaAlign', 'center'],
      ];
    default:
      return never(fit);
  }
}

/** SMIL 3.0 chapter 12: transitions by their type and subtype. */
function transitionOf({ kind, ms }: Transition): string {
  const dur = `dur="${seconds(ms)}"`;
  switch (kind) {
    case 'cut':
      return '';
    case 'fade':
      return `type="fade" subtype="crossfade" ${dur}`;
    case 'slide':
      return `type="pushWipe" subtype="fromRight" ${dur}`;
    case 'wipe':
      return `type="barWipe" subtype="leftToRight" direction="reverse" ${dur}`;
    default:
      return never(kind);
  }
}

/** An instant on a zone's clock with its offset, as SMIL's wallclock values have it: 2026-11-27T05:00:00.000+01:00. */
function wallClock(zone: ReturnType<typeof zoneTable>, instant: number): string {
  const local = toLocalTime(zone, instant);
  const minutes = Math.round((local - instant) / 60_000);
  const two = (value: number) => String(value).padStart(2, '0');
  const offset = `${minutes < 0 ? '-' : '+'}${two(Math.floor(Math.abs(minutes) / 60))}:${two(Math.abs(minutes) % 60)}`;
  return `${new Date(local).toISOString().slice(0, -1)}${offset}`;
}

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (one) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[one] ?? one);
