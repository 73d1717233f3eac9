'use client';

import { NETWORK_ID, patchOf, readDuration, type Plan } from '@/core/plan';
import { done, type Result } from '@/core/refusal';
import { Locked, WhyNot } from '@/interface/data/may';
import { useNetwork } from '@/interface/data/provider';
import { ContentPicker } from '@/interface/forms/content-picker';
import { readName } from '@/interface/forms/read-text';
import { Select } from '@/interface/kit/controls/field';
import { SavedInput } from '@/interface/forms/saved-input';
import { contentOf, contentValue } from '@/interface/kit/content/content';
import { counted } from '@/interface/kit/words/format';
import { KeptFor } from './kept-for';
import { PlanFile } from './plan-file';
import { PlayerPin } from './player-pin';
import { Word } from '@/interface/kit/words/word';

/** Seconds for which a picture is shown where nothing says otherwise. */
const USUAL_SECONDS = 10;

/** What holds for the whole network: its name, how long a picture stands, and what shows where nothing is booked. */
export function NetworkPlace() {
  const { draft, edit } = useNetwork('draft', 'edit');
  const { network, sites, screens } = draft;
  const set = (values: Partial<Plan['network']>): Promise<Result<unknown>> => {
    const patch = patchOf('network', NETWORK_ID, network, { ...network, ...values });
    return patch ? edit([patch]) : Promise.resolve(done(null));
  };
  return (
    <div className="mx-auto max-w-2xl px-3 py-5 sm:px-6">
      <h1 className="text-2xl">Network</h1>
      <p className="mt-1 text-faint">
        {counted(sites.length, 'site')}, {counted(screens.length, 'screen')}. Changes here are drafts until you publish,
        like everything else.
      </p>
      <WhyNot needs="settings" />
      <dl className="mt-6 grid gap-x-8 gap-y-5 border-t border-rule pt-5 sm:grid-cols-[11rem_1fr]">
        <dt className="font-semibold">Name</dt>
        <dd>
          <Locked needs="settings">
            <SavedInput
              label="Name of the network"
              of={{ kind: 'network', id: NETWORK_ID, field: 'name' }}
              value={network.name}
              read={readName}
              save={(name) => set({ name })}
            />
          </Locked>
        </dd>
        <dt className="font-semibold">
          Usual duration
          <span className="block text-sm font-normal text-faint">for pictures without a time of their own</span>
        </dt>
        <dd>
          <Locked needs="settings">
            <SavedInput
              label="Usual duration in seconds"
              of={{ kind: 'network', id: NETWORK_ID, field: 'defaultDurationMs' }}
              placeholder={String(USUAL_SECONDS)}
              value={network.defaultDurationMs === undefined ? '' : String(network.defaultDurationMs / 1000)}
              read={(text) => (text.trim() === '' ? done(undefined) : readDuration(text))}
              save={(defaultDurationMs) => set({ defaultDurationMs })}
              width="w-40"
              className="text-right font-code"
            >
              s
            </SavedInput>
          </Locked>
        </dd>
        <dt className="font-semibold">
          <Word of="backdrop">Backdrop</Word>
          <span className="block text-sm font-normal text-faint">
            where nothing is booked, unless the site or screen has its own
          </span>
        </dt>
        <dd>
          <Locked needs="plan">
            <ContentPicker
              plan={draft}
              none="nothing, a plain card"
              aria-label="The network’s backdrop"
              value={contentValue(network.backdrop)}
              onChange={(value) => void set({ backdrop: contentOf(value) })}
            />
          </Locked>
        </dd>
        {draft.profiles.some(({ inputs = [] }) => inputs.length > 0) && (
          <>
            <dt className="font-semibold">
              Without an input
              <span className="block text-sm font-normal text-faint">
                what a display shows that doesn’t have the input that is planned
              </span>
            </dt>
            <dd>
              <Locked needs="plan">
                <Select
                  aria-label="Without an input"
                  value={network.withoutInput ?? ''}
                  onChange={({ target: { value } }) =>
                    void set({ withoutInput: value === '' ? undefined : 'backdrop' })
                  }
                >
                  <option value="">a card that says so</option>
                  <option value="backdrop">the backdrop; a zone stays empty</option>
                </Select>
              </Locked>
            </dd>
          </>
        )}
      </dl>
      <Locked needs="settings">
        <PlayerPin />
        <KeptFor />
      </Locked>
      <PlanFile />
    </div>
  );
}
