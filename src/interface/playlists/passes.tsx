'use client';

import { useState, type KeyboardEvent } from 'react';
import type { Pass } from '@/core/forecast';
import type { Plan } from '@/core/plan';
import { thumbnailOf, useIndex } from '@/interface/data/provider';
import { ArrowGroup } from '@/interface/kit/controls/arrow-group';
import { counted, duration } from '@/interface/kit/words/format';
import { stretched, turnsWith } from './stretch';
import { TurnEnd } from './turn-end';
import { useCarry } from './use-carry';

const HOUR_MS = 3_600_000;
/** At most this many kinds of screens are drawn; the smallest are summed up in a line. */
const DRAWN = 4;
/** Labels on the ruler, at most, and the steps between them. */
const MOST_TICKS = 8;
const TICK_STEPS_MS = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600].map((seconds) => seconds * 1000);

/** How many screens a pass is for. */
const passWords = (plan: Plan, { screens }: Pass): string =>
  `${screens.length === plan.screens.length && screens.length > 1 ? 'all ' : ''}${counted(screens.length, 'screen')}`;

/**
 * A playlist as it goes round: a strip for each kind of screen that sees it otherwise, all on one ruler of time. The longest fills it once;
 * shorter ones begin again within it, as they do on the wall. One is chosen to be looked at below.
 */
export function Passes({
  plan,
  passes,
  chosen,
  onChoose,
  onTurn,
  stretches,
  onStretch,
  onMove,
}: {
  plan: Plan;
  passes: readonly Pass[];
  chosen: number;
  onChoose: (pass: number) => void;
  /** A turn was pressed: the place of the item that it comes from. */
  onTurn: (item: number) => void;
  /** Whether you can set the duration of the item at a place. */
  stretches: (item: number) => boolean;
  /** The end of an item's turn was pulled, or moved by a key: its new duration, in milliseconds. */
  onStretch: (item: number, durationMs: number) => void;
  /** An item's turn was carried to another's place; null where the pass is in an order of its own. */
  onMove: ((item: number, over: number) => void) | null;
}) {
  const index = useIndex(plan);
  const [pulled, setPulled] = useState<Pulled | null>(null);
  const { carried, handlers } = useCarry(onMove);
  const drawn = passes.slice(0, DRAWN);
  const span = Math.max(1, ...drawn.map(({ lengthMs }) => lengthMs));
  const step = TICK_STEPS_MS.find((each) => span / each <= MOST_TICKS) ?? span;
  const share = (ms: number) => `${(100 * ms) / span}%`;
  const named = (screens: readonly string[]) =>
    screens.map((id) => {
      const screen = index.screens.get(id);
      return `${index.sites.get(screen?.site ?? '')?.name ?? ''} · ${screen?.name ?? id}`;
    });
  return (
    <section aria-label="Passes" className="mt-4">
      <div className="flex">
        <span className="w-36 shrink-0 max-md:hidden" />
        <div aria-hidden className="relative h-5 min-w-0 flex-1 font-code text-[11px] text-faint">
          {Array.from({ length: Math.floor(span / step) + 1 }, (_, i) => i * step).map((at) => (
            <span key={at} className="absolute border-l border-rule pl-1" style={{ left: share(at) }}>
              {at / span < 0.96 ? duration(at) : ''}
            </span>
          ))}
        </div>
      </div>
      {drawn.map((pass, i) => {
        const turns = pulled?.pass === i ? turnsWith(pass.turns, pulled.item, pulled.durationMs) : pass.turns;
        return (
          <div key={pass.screens[0]} className="flex items-stretch gap-y-1 border-t border-rule py-1 max-md:flex-col">
            <label
              className={`flex w-36 shrink-0 cursor-pointer flex-col justify-center pr-2 text-sm leading-tight max-md:w-full max-md:flex-row max-md:justify-start max-md:gap-3 ${i === chosen ? '' : 'text-faint'}`}
              title={named(pass.screens).slice(0, 30).join('\n')}
            >
              <span className="flex items-center gap-1.5 font-semibold">
                <input
                  type="radio"
                  name="pass"
                  className="accent-dusk"
                  checked={i === chosen}
                  onChange={() => onChoose(i)}
                />
                {passWords(plan, pass)}
              </span>
              <span className="font-code text-[11px] text-faint">
                {duration(pass.lengthMs)} a pass
                <br className="max-md:hidden" /> {Math.max(1, Math.round(HOUR_MS / pass.lengthMs))} an hour
              </span>
            </label>
            <div
              data-strip
              className={`relative min-w-0 flex-1 overflow-hidden bg-well max-md:flex-none ${i === chosen ? 'h-20' : 'h-10'}`}
            >
              <ArrowGroup
                label={`A pass on ${passWords(plan, pass)}`}
                className={i === chosen ? '' : 'opacity-70'}
                of={turns}
                button={(turn, stop) => {
                  const file = index.media.get(turn.media ?? '');
                  const src = file && thumbnailOf(file);
                  return (
                    <button
                      key={turn.startMs}
                      type="button"
                      {...stop}
                      {...handlers(i, turn, turns, span)}
                      onClick={() => {
                        onChoose(i);
                        onTurn(turn.item);
                      }}
                      {...(stretches(turn.item)
                        ? {
                            'aria-keyshortcuts': '+ -',
                            onKeyDown: ({ key }: KeyboardEvent) => {
                              const by = key === '+' ? STEP_MS : key === '-' ? -STEP_MS : 0;
                              const durationMs = stretched(turn.durationMs, by, false);
                              if (by !== 0 && durationMs !== turn.durationMs) onStretch(turn.item, durationMs);
                            },
                          }
                        : {})}
                      aria-label={`${file?.name ?? turn.media}, ${duration(turn.durationMs)}, from ${duration(turn.startMs)}`}
                      title={`${file?.name ?? turn.media}: ${duration(turn.durationMs)}, ${percent(turn.durationMs, pass.lengthMs)} of a pass${stretches(turn.item) ? '. Pull its end, or press + and −, for longer and shorter' : ''}`}
                      className={`hatch absolute inset-y-0 border-r border-ink bg-[auto_100%] bg-repeat-x text-faint focus-visible:z-10 focus-visible:outline-offset-[-3px] ${carried?.pass !== i ? '' : carried.item === turn.item ? 'opacity-50' : carried.over === turn.item ? 'z-10 outline-2 -outline-offset-2 outline-lamp' : ''}`}
                      style={{
                        left: share(turn.startMs),
                        width: share(turn.durationMs),
                        ...(src ? { backgroundImage: `url("${src}")` } : {}),
                      }}
                    />
                  );
                }}
              />
              {i === chosen &&
                turns.map(
                  (turn, at) =>
                    stretches(turn.item) && (
                      <TurnEnd
                        key={at}
                        turn={turn}
                        nth={turns.slice(0, at + 1).filter(({ item }) => item === turn.item).length}
                        span={span}
                        pulledMs={pulled?.turn === at ? pulled.durationMs : null}
                        onPull={(durationMs) =>
                          setPulled(durationMs === null ? null : { pass: i, turn: at, item: turn.item, durationMs })
                        }
                        onDone={(durationMs) => {
                          setPulled(null);
                          onStretch(turn.item, durationMs);
                        }}
                      />
                    ),
                )}
              <Again pass={pass} span={span} />
            </div>
          </div>
        );
      })}
      {passes.length > DRAWN && (
        <p className="border-t border-rule pt-1 text-sm text-faint">
          and {counted(passes.length - DRAWN, 'more kind')} of screens that see it otherwise
        </p>
      )}
    </section>
  );
}

/** How much longer or shorter a key makes a turn, in milliseconds. */
const STEP_MS = 1000;

/** A turn whose end is pulled. */
interface Pulled {
  readonly pass: number;
  /** Which turn of the pass. */
  readonly turn: number;
  readonly item: number;
  readonly durationMs: number;
}

/** How much of a whole a part is, in words. */
export function percent(part: number, whole: number): string {
  const share = (100 * part) / whole;
  return share < 1 ? 'under 1 %' : `${Math.round(share)} %`;
}

/** The passes that follow within the ruler: only where each begins. */
function Again({ pass: { lengthMs }, span }: { pass: Pass; span: number }) {
  const more = Math.floor((span - 1) / lengthMs);
  if (more === 0) return null;
  return (
    <div aria-hidden className="absolute inset-y-0 right-0 bg-paper/60" style={{ left: `${(100 * lengthMs) / span}%` }}>
      {Array.from({ length: Math.min(more, 60) }, (_, i) => (
        <span
          key={i}
          className="absolute inset-y-0 border-l-2 border-dusk pl-1 text-xs text-faint"
          style={{ left: `${(100 * i * lengthMs) / (span - lengthMs)}%` }}
        >
          {i === 0 ? 'again' : ''}
        </span>
      ))}
    </div>
  );
}
