'use client';

import { ChevronLeft, ChevronRight, Pause, Play } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { leftOut, type LeftOutReason, type Pass, type Turn } from '@/core/forecast';
import { isShown, type Media, type Plan, type Playlist, type Screen } from '@/core/plan';
import { never } from '@/core/refusal';
import { selectorWithNames } from '@/core/selector';
import { describeWhen } from '@/core/when';
import { Stage } from '@/player/glass/stage';
import { useMoment } from '@/interface/data/moment';
import { useIndex } from '@/interface/data/provider';
import { Select } from '@/interface/kit/controls/field';
import { counted, duration } from '@/interface/kit/words/format';
import { useWidth } from '@/interface/kit/page/use-width';
import { itemName } from './item-name';
import { stepFrom, turnAt } from './loop-clock';

/** The room for a screen, in pixels. */
const ROOM = { width: 420, height: 220 };
/** How often the shown time is updated, in milliseconds. */
const TOLD_EVERY_MS = 100;

/** One screen for each size that sees a pass alike, and how many more there are. */
interface PassKind {
  readonly pass: number;
  readonly screen: Screen;
  readonly others: number;
}

function kindsOf(passes: readonly Pass[], screens: ReadonlyMap<string, Screen>): PassKind[] {
  return passes.flatMap((pass, i) => {
    const sizes = new Map<string, Screen[]>();
    for (const id of pass.screens) {
      const screen = screens.get(id);
      if (!screen) continue;
      const key = `${screen.width}x${screen.height}`;
      sizes.set(key, [...(sizes.get(key) ?? []), screen]);
    }
    const commonest = [...sizes.values()].sort((a, b) => b.length - a.length);
    return commonest.flatMap(([screen, ...others]) => (screen ? [{ pass: i, screen, others: others.length }] : []));
  });
}

/** A playlist as a screen shows it: what drops out there and why, and its loop, playing on the screen's shape as a player plays it. */
export function AsSeenOn({
  plan,
  playlist,
  passes,
  chosen,
  onChoose,
}: {
  plan: Plan;
  playlist: Playlist;
  passes: readonly Pass[];
  chosen: number;
  onChoose: (pass: number) => void;
}) {
  const index = useIndex(plan);
  const { now } = useMoment();
  const kinds = useMemo(() => kindsOf(passes, index.screens), [passes, index]);
  const [wanted, setWanted] = useState<string | null>(null);
  const [isOpen, setOpen] = useState(false);
  const kind =
    kinds.find(({ pass, screen }) => pass === chosen && screen.id === wanted) ??
    kinds.find(({ pass }) => pass === chosen);
  const pass = passes[chosen];
  if (!kind || !pass) return null;
  const nameOf = ({ screen, others }: PassKind) =>
    `${screen.width} × ${screen.height}: ${screen.name}, ${index.sites.get(screen.site)?.name ?? ''}${others > 0 ? ` and ${others} more` : ''}`;
  const out = isOpen ? leftOut(plan, playlist, pass, kind.screen.id, Math.floor(now / 60_000) * 60_000) : [];
  return (
    <section aria-label="As seen on" className="mt-3">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
        <button
          type="button"
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
          className="text-tide underline underline-offset-2"
        >
          {isOpen ? 'Close the preview on' : 'Preview on'}
        </button>
        <Select
          aria-label="Screen for the preview"
          className="!w-auto max-w-full !py-1"
          value={kind.screen.id}
          onChange={({ target }) => {
            setWanted(target.value);
            onChoose(kinds.find(({ screen }) => screen.id === target.value)?.pass ?? chosen);
          }}
        >
          {kinds.map((one) => (
            <option key={one.screen.id} value={one.screen.id}>
              {nameOf(one)}
            </option>
          ))}
        </Select>
      </div>
      {isOpen && (
        <div className="mt-3 flex flex-wrap items-start gap-x-8 gap-y-4">
          <Loop
            key={`${kind.screen.width}x${kind.screen.height}`}
            pass={pass}
            screen={kind.screen}
            media={index.media}
          />
          <div className="min-w-60 flex-1 text-sm">
            <h3 className="text-base">Left out on this screen</h3>
            {out.length === 0 ? (
              <p className="text-faint">Nothing. Each item has its turn.</p>
            ) : (
              <ul>
                {out.map(({ item, reason }) => {
                  const one = playlist.items[item];
                  return (
                    <li key={item} className="border-b border-rule py-1">
                      <span className="font-semibold">{one && itemName(plan, one)}</span>{' '}
                      <span className="text-faint">{whyWords(plan, reason)}</span>
                    </li>
                  );
                })}
              </ul>
            )}
            <p className="mt-2 text-faint">
              {counted(pass.turns.length, 'turn')} in {duration(pass.lengthMs)}; as listed, without its sound.
            </p>
          </div>
        </div>
      )}
    </section>
  );
}

function whyWords(plan: Plan, reason: LeftOutReason): string {
  switch (reason.kind) {
    case 'elsewhere':
      return `plays on other screens: ${selectorWithNames(reason.where, plan)}`;
    case 'no file':
      return 'it finds no picture or video';
    case 'sound':
      return 'is a sound: it plays when this playlist is another’s music';
    case 'empty':
      return 'holds nothing for this screen';
    case 'archived':
      return 'is archived';
    case 'not now':
      return `not now: ${describeWhen(reason.when, (id) => plan.calendars.find((one) => one.id === id)?.name ?? id)}`;
    default:
      return never(reason);
  }
}

async function fetched(sha256: string): Promise<Blob | null> {
  const response = await fetch(`/api/files/${sha256}`);
  return response.ok ? response.blob() : null;
}

/** What a stage needs to know of a file; null for what shows nowhere, or has no bytes yet. */
function assetOf(file: Media | undefined) {
  if (!file || !isShown(file) || file.sha256 === undefined) return null;
  const { kind, width, height, sha256, bytes, type = '', focus } = file;
  return { kind, width, height, sha256, bytes, type, ...(focus ? { focus } : {}) };
}

/** A pass on a screen's shape, by the player's own stage: it plays, and is scrubbed and stepped through. */
function Loop({ pass, screen, media }: { pass: Pass; screen: Screen; media: ReadonlyMap<string, Media> }) {
  const root = useRef<HTMLDivElement>(null);
  const stage = useRef<Stage | null>(null);
  const [isPlaying, setPlaying] = useState(true);
  const [atMs, setAt] = useState(0);
  const [wrong, setWrong] = useState<string | null>(null);
  /** Where the pass stood when it was last set, and when that was by the page's clock. */
  const set = useRef({ ms: 0, since: 0 });
  const shown = useRef<Turn | null>(null);
  const room = useRef<HTMLDivElement>(null);
  const width = Math.min(ROOM.width, useWidth(room, ROOM.width));
  const scale = Math.min(width / screen.width, ROOM.height / screen.height);

  useEffect(() => {
    if (!root.current) return;
    const made = new Stage(
      root.current,
      fetched,
      () => undefined,
      () => 1,
    );
    stage.current = made;
    return () => {
      // What is still loading is then no more wanted.
      shown.current = null;
      stage.current = null;
      made.clear();
    };
  }, []);

  const show = useRef((_ms: number, _plays: boolean) => {});
  useEffect(() => {
    show.current = (ms, plays) => {
      const turn = turnAt(pass.turns, ms);
      const asset = assetOf(media.get(turn?.media ?? ''));
      if (!turn || !asset || !stage.current) return;
      shown.current = turn;
      const wanted = () => shown.current === turn;
      const into = ms - turn.startMs;
      const since = performance.now();
      const passed = () => into + (plays ? performance.now() - since : 0);
      // While it is paused, no transition is under way.
      const turnMs = () => (plays ? passed() : Infinity);
      const { transition, fit } = turn.of;
      void stage.current
        .show(
          { name: turn.media ?? '', asset },
          () => (turn.of.fromMs ?? 0) + passed(),
          wanted,
          { transition, fit },
          turnMs,
        )
        .then(() => {
          setWrong(null);
          if (!plays) root.current?.querySelectorAll('video').forEach((film) => film.pause());
          const next = turnAt(pass.turns, stepFrom(pass.turns, ms, 1));
          const file = assetOf(media.get(next?.media ?? ''));
          if (wanted() && next && file && next !== turn)
            void stage.current?.prepare({ name: next.media ?? '', asset: file }, next.of.fromMs);
        })
        .catch((error: unknown) => setWrong(error instanceof Error ? error.message : 'The preview couldn’t be shown.'));
    };
    shown.current = null;
    set.current = { ms: Math.min(set.current.ms, Math.max(0, pass.lengthMs - 1)), since: performance.now() };
    show.current(set.current.ms, isPlaying);
    // Playing and pausing draw again by themselves.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [pass, media]);

  useEffect(() => {
    if (!isPlaying || pass.lengthMs === 0) return;
    set.current = { ...set.current, since: performance.now() };
    let round = 0;
    const tick = () => {
      const whole = set.current.ms + performance.now() - set.current.since;
      const ms = whole % pass.lengthMs;
      setAt(ms);
      const again = Math.floor(whole / pass.lengthMs) > round;
      round = Math.floor(whole / pass.lengthMs);
      // A pass of one turn begins it again.
      if (again || turnAt(pass.turns, ms) !== shown.current) show.current(ms, true);
    };
    tick();
    const timer = setInterval(tick, TOLD_EVERY_MS);
    return () => clearInterval(timer);
  }, [isPlaying, pass]);

  const go = (ms: number, plays = isPlaying) => {
    set.current = { ms, since: performance.now() };
    setAt(ms);
    show.current(ms, plays);
  };
  const turn = turnAt(pass.turns, atMs);
  return (
    <div ref={room} className="w-full max-w-[420px]">
      <div
        className="relative overflow-hidden bg-[#000] outline-1 outline-rule"
        style={{ width: screen.width * scale, height: screen.height * scale }}
      >
        <div
          ref={root}
          data-testid="seen"
          className="absolute top-0 left-0 origin-top-left overflow-hidden [&>*]:absolute [&>*]:top-0 [&>*]:left-0 [&>*]:max-w-none [&>*]:bg-[#000]"
          style={{ width: screen.width, height: screen.height, scale: String(scale) }}
        />
      </div>
      <div className="mt-2 flex items-center gap-2">
        <Press label="Previous item" onPress={() => go(stepFrom(pass.turns, atMs, -1))}>
          <ChevronLeft size={18} aria-hidden />
        </Press>
        <Press
          label={isPlaying ? 'Pause' : 'Play'}
          onPress={() => {
            go(atMs, !isPlaying);
            setPlaying(!isPlaying);
          }}
        >
          {isPlaying ? <Pause size={18} aria-hidden /> : <Play size={18} aria-hidden />}
        </Press>
        <Press label="Next item" onPress={() => go(stepFrom(pass.turns, atMs, 1))}>
          <ChevronRight size={18} aria-hidden />
        </Press>
        <input
          type="range"
          aria-label="Time in the pass"
          aria-valuetext={`${duration(Math.floor(atMs / 1000) * 1000)} of ${duration(pass.lengthMs)}`}
          min={0}
          max={Math.max(0, pass.lengthMs - 1)}
          step={100}
          value={atMs}
          onChange={({ target }) => {
            setPlaying(false);
            go(Number(target.value), false);
          }}
          className="min-w-32 flex-1 accent-dusk"
        />
        <span className="font-code text-xs">{duration(Math.floor(atMs / 1000) * 1000)}</span>
      </div>
      <p className="truncate text-sm" data-testid="seen-name">
        {media.get(turn?.media ?? '')?.name ?? ''}
      </p>
      {wrong && (
        <p role="alert" className="text-sm text-brick">
          {wrong}
        </p>
      )}
    </div>
  );
}

function Press({ label, onPress, children }: { label: string; onPress: () => void; children: React.ReactNode }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      onClick={onPress}
      className="border border-rule bg-sheet p-1 hover:border-ink"
    >
      {children}
    </button>
  );
}
