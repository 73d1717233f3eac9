'use client';

import { useEffect, useRef, type ReactNode } from 'react';
import type { Scope } from '@/core/booking';
import type { Explanation } from '@/core/forecast';
import type { Finding, Fix } from '@/core/preflight';
import { selectorWithNames } from '@/core/selector';
import { describeWhen } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { Button } from '@/interface/kit/controls/button';
import { spanWords } from '../site-clock-words';
import { layerName, type Bar } from './layout';
import type { Held } from '../gestures/held';
import type { Choice, Gesture } from '../gestures/use-gesture';

const SCOPE_WORDS: Record<Scope, string> = {
  'this day': 'this day only',
  'from this day': 'from this day on',
  all: 'all its days',
};

/** Why something shows, as it was asked, and what would end a gap there. */
export interface AskedWhy {
  readonly title: string;
  readonly explanation: Explanation | null;
  readonly fixes: readonly Fix[];
}

/** What is in hand, and what can be done with it: one line at the foot of the strata, each part with its key. */
export function Foot({
  gesture,
  picked,
  findings,
  asked,
  onOpen,
  onFix,
  hint,
  heldKeys,
}: {
  gesture: Gesture;
  picked: Bar | null;
  findings: readonly Finding[];
  asked: AskedWhy | null;
  onOpen: (booking: string) => void;
  onFix: (fix: Fix) => void;
  /** What can be done here, while nothing is picked. */
  hint: string;
  /** The keys that move what is held. */
  heldKeys: readonly (readonly [key: string, does: string])[];
}) {
  const { held, choice } = gesture;
  return (
    <div
      aria-live="polite"
      data-testid="foot"
      className="flex min-h-12 items-center gap-4 border-t border-rule bg-sheet px-6 py-1.5 print:hidden"
    >
      {choice ? (
        <ScopeChoice choice={choice} gesture={gesture} />
      ) : held ? (
        <HeldWords held={held} keys={heldKeys} />
      ) : picked ? (
        <Picked bar={picked} findings={findings} gesture={gesture} onOpen={onOpen} onFix={onFix} />
      ) : asked ? (
        <p data-testid="strata-why" className="flex flex-wrap items-center gap-2">
          <span>
            <span className="text-faint">{asked.title}</span> {asked.explanation?.sentence ?? '…'}
          </span>
          <Fixes fixes={asked.fixes} onFix={onFix} />
        </p>
      ) : (
        <p className="text-sm text-faint">{hint}</p>
      )}
    </div>
  );
}

function Key({ children }: { children: ReactNode }) {
  return <kbd className="border border-rule bg-paper px-1 font-code text-[11px]">{children}</kbd>;
}

function ScopeChoice({ choice, gesture }: { choice: Choice; gesture: Gesture }) {
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => first.current?.focus(), []);
  const { bar, change, scopes } = choice;
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- the digits are for the buttons inside
    <div
      role="group"
      aria-label="Which days"
      className="flex items-center gap-3"
      onKeyDown={(event) => {
        const scope = scopes[Number(event.key) - 1];
        if (event.key === 'Escape') gesture.letGo();
        else if (scope) gesture.choose(scope);
        else return;
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      <span>
        {change.remove ? 'Take' : 'Change'} <strong>{bar.booking.name}</strong> {change.remove ? 'off' : 'on'}
      </span>
      {scopes.map((scope, i) => (
        <Button
          key={scope}
          variant="plain"
          onFocus={() => gesture.lookAt(scope)}
          onMouseEnter={() => gesture.lookAt(scope)}
          onClick={() => gesture.choose(scope)}
          {...(i === 0 ? { autoFocus: true } : {})}
        >
          {SCOPE_WORDS[scope]} <Key>{i + 1}</Key>
        </Button>
      ))}
      <Button variant="quiet" onClick={gesture.letGo}>
        Cancel <Key>Esc</Key>
      </Button>
    </div>
  );
}

function HeldWords({ held, keys }: { held: Held; keys: readonly (readonly [key: string, does: string])[] }) {
  return (
    <p>
      {held.bar ? <strong>{held.bar.booking.name}</strong> : <strong>A new booking</strong>}{' '}
      <span className="font-code text-sm">{spanWords(held.start, held.end)}</span>, {layerName(held.layer)}
      {held.copy && ', as a copy'}
      {held.bar && (
        <span className="ml-4 text-sm text-faint">
          {keys.map(([key, does]) => (
            <span key={key}>
              <Key>{key}</Key> {does}{' '}
            </span>
          ))}
        </span>
      )}
    </p>
  );
}

function Fixes({ fixes, onFix }: { fixes: readonly Fix[]; onFix: (fix: Fix) => void }) {
  return fixes.map((fix, i) => (
    <button
      key={fix.label}
      type="button"
      onClick={() => onFix(fix)}
      className="border border-rule bg-paper px-2 hover:border-ink"
    >
      {fix.label} <Key>{i + 1}</Key>
    </button>
  ));
}

function Picked({
  bar,
  findings,
  gesture,
  onOpen,
  onFix,
}: {
  bar: Bar;
  findings: readonly Finding[];
  gesture: Gesture;
  onOpen: (booking: string) => void;
  onFix: (fix: Fix) => void;
}) {
  const { draft } = useNetwork('draft');
  const { booking, localOccasion } = bar;
  const [finding] = findings;
  return (
    <>
      <div className="min-w-0 flex-1">
        <p className="truncate">
          <strong>{booking.name}</strong>{' '}
          <span className="font-code text-sm">{spanWords(localOccasion.start, localOccasion.end)}</span>
          <span className="text-faint">
            , {layerName(bar.layer)}, {describeWhen(booking.when)}, where {selectorWithNames(booking.where, draft)}
          </span>
        </p>
        {finding && (
          <p className="flex flex-wrap items-center gap-2 text-sm">
            <span className="text-brick">{finding.sentence}</span>
            <Fixes fixes={finding.fixes} onFix={onFix} />
            {finding.fixes.length === 0 && <span className="text-faint">{finding.advice}</span>}
          </p>
        )}
      </div>
      <div className="flex shrink-0 items-center gap-1">
        <Button variant="quiet" onClick={() => onOpen(booking.id)}>
          Open <Key>Enter</Key>
        </Button>
        <Button
          needs="plan"
          variant="quiet"
          onClick={() =>
            gesture.hold({ bar, start: localOccasion.start, end: localOccasion.end, layer: bar.layer, copy: false })
          }
        >
          Hold <Key>Space</Key>
        </Button>
        <Button needs="plan" variant="quiet" onClick={() => gesture.remove(bar)}>
          Take off <Key>Del</Key>
        </Button>
      </div>
    </>
  );
}
