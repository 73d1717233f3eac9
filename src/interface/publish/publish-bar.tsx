'use client';

import { useEffect, useRef } from 'react';
import { keyText, type ObjectKey } from '@/core/plan';
import { WhyNot, useMay } from '@/interface/data/may';
import { useRequests } from '@/interface/data/queries';
import { Button } from '@/interface/kit/controls/button';
import { counted } from '@/interface/kit/words/format';
import { useKey } from '@/interface/shell/keys';
import type { Docket } from '@/services/editions';
import { chosenWords } from './docket-list';
import type { Choice } from './use-choice';
import type { Fresh } from './use-fresh';
import type { Ways } from './use-ways';

/** The bar at the bottom of the docket: publish, plan, try on some screens, ask for it, or discard. */
export function PublishBar({
  docket,
  choice,
  ways,
  fresh,
  busy,
  onTakeBack,
}: {
  docket: Docket;
  choice: Choice;
  ways: Ways;
  fresh: Fresh;
  busy: boolean;
  onTakeBack: (chosen: readonly ObjectKey[]) => void;
}) {
  const mayPublish = useMay('publish');
  const mayPlan = useMay('plan');
  const { entries, edition } = docket;
  const { chosen, isWhole, keys } = choice;
  const bar = useMainButton();
  const own = useRequests().list.find(({ yours, answer }) => yours && answer === null);
  const isAsked = own !== undefined && sameKeys(own.chosen, keys);
  return (
    <div
      ref={bar}
      className="sticky bottom-0 z-10 mt-4 flex flex-wrap items-center gap-3 border-t border-rule bg-paper py-3"
    >
      {mayPublish ? (
        <>
          {fresh.errors.length > 0 && <Errors fresh={fresh} />}
          <Button
            data-main
            variant="main"
            className="text-lg"
            disabled={!ways.isReady}
            onClick={() => void ways.publish()}
          >
            {ways.looking ? 'Checking first…' : busy ? 'Publishing…' : ways.said}
          </Button>
        </>
      ) : mayPlan ? (
        <Button
          data-main
          variant="main"
          className="text-lg"
          disabled={busy || chosen.length === 0 || isAsked}
          onClick={() => void ways.ask()}
        >
          {isAsked
            ? 'You asked for this'
            : `Ask to publish ${isWhole ? counted(entries.length, 'change') : chosenWords(choice, entries.length)}`}
        </Button>
      ) : (
        <WhyNot needs="publish" />
      )}
      {edition && mayPublish && !ways.waits && <PilotToggle piloting={ways.piloting} onToggle={ways.setPiloting} />}
      {edition && chosen.length > 0 && (
        <Button needs="plan" variant="grave" disabled={busy} onClick={() => onTakeBack(keys)}>
          Discard {isWhole && entries.length > 1 ? `all ${chosen.length} changes` : counted(chosen.length, 'change')}
        </Button>
      )}
    </div>
  );
}

/** P leads to the main button. If it can't be pressed yet, the focus goes to it as soon as it can. */
function useMainButton() {
  const bar = useRef<HTMLDivElement>(null);
  const isWanted = useRef(false);
  const toButton = () => {
    const button = bar.current?.querySelector<HTMLButtonElement>('[data-main]');
    isWanted.current = button?.disabled ?? false;
    button?.focus();
  };
  useKey('p', 'To the button that publishes', toButton);
  useEffect(() => {
    if (isWanted.current) toButton();
  });
  return bar;
}

/** Whether two choices are of the same objects. */
const sameKeys = (some: readonly ObjectKey[], others: readonly ObjectKey[]): boolean =>
  some.length === others.length && new Set([...some, ...others].map(keyText)).size === some.length;

/** Errors that the changes bring stop them, until the person ticks that they may go out anyway. */
function Errors({ fresh: { errors, accepted, accept } }: { fresh: Fresh }) {
  return (
    <p className="flex w-full flex-wrap items-center gap-x-3 text-sm text-brick">
      {errors.length === 1
        ? 'These changes bring 1 error, so they can’t be published yet. Fix it, or leave that change out.'
        : `These changes bring ${errors.length} errors, so they can’t be published yet. Fix them, or leave those changes out.`}
      <label className="inline-flex items-center gap-1.5 text-ink">
        <input
          type="checkbox"
          className="size-6 accent-dusk"
          checked={accepted}
          onChange={({ target }) => accept(target.checked)}
        />
        Publish {errors.length === 1 ? 'it' : 'them'} anyway
      </label>
    </p>
  );
}

/** Opens and closes the way by some screens first. */
function PilotToggle({ piloting, onToggle }: { piloting: boolean; onToggle: (piloting: boolean) => void }) {
  return (
    <Button aria-expanded={piloting} onClick={() => onToggle(!piloting)}>
      {piloting ? 'On all screens at once' : 'On some screens first…'}
    </Button>
  );
}
