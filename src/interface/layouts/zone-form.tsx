'use client';

import { nameAmong } from '@/core/booking';
import { isFree, measured, type Measure } from '@/core/layouts';
import { changed, idSchema, objectIn, type Layout, type Zone } from '@/core/plan';
import { done, misread, type Result } from '@/core/refusal';
import { describeWhen } from '@/core/when';
import { useNetwork } from '@/interface/data/provider';
import { ContentPicker } from '@/interface/forms/content-picker';
import { FitField, Labelled, TransitionField } from '@/interface/forms/look-fields';
import { readingsNote } from '@/interface/forms/other-readings';
import { readSaid } from '@/interface/forms/read-said';
import { readWhere } from '@/interface/forms/read-text';
import { SavedInput } from '@/interface/forms/saved-input';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { WhereBox } from '@/interface/forms/where-box';
import { contentOf, contentValue } from '@/interface/kit/content/content';
import { Select } from '@/interface/kit/controls/field';
import { newId } from './new-id';

const MEASURES: readonly (readonly [Measure, string])[] = [
  ['x', 'Left'],
  ['y', 'Top'],
  ['width', 'Width'],
  ['height', 'Height'],
];

/** What a zone shows and how, on which screens and when; and its four numbers. Each field saves itself. */
export function ZoneForm({
  layout,
  zone,
  onChange,
  onNamed,
}: {
  layout: Layout;
  zone: Zone;
  onChange: (zones: readonly Zone[]) => Promise<Result<unknown>>;
  onNamed: (id: string) => void;
}) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const context = usePhraseContext(zone.where);
  const { zones } = layout;
  const { id } = zone;
  const of = (field: string) => ({ kind: 'layout' as const, id: layout.id, field: `zone ${id} ${field}` });
  const set = (part: Partial<Zone>) => onChange(zones.map((one) => (one.id === id ? { ...one, ...part } : one)));
  const rename = async (name: string) => {
    const result = await set({ id: name });
    if (result.ok) onNamed(name);
    return result;
  };
  const heard = zones.find((one) => one.sound && one.id !== id);
  const hear = (sound: boolean) =>
    // Only one zone is heard: the other gives way.
    onChange(
      zones.map((one) =>
        one.id === id ? { ...one, sound: sound || undefined } : sound ? { ...one, sound: undefined } : one,
      ),
    );
  const bulletin = zone.content?.bulletin === undefined ? null : objectIn(draft, 'bulletin', zone.content.bulletin);
  /** Makes a card of a text, and puts it into the zone: one act. */
  const writeCard = (text: string) => {
    const name = nameAmong(new Set(draft.bulletins.map((one) => one.name)), `${layout.name}, ${id}`);
    const card = newId(`${layout.id}-${id}`, draft.bulletins);
    const filled = zones.map((one) => (one.id === id ? { ...one, content: { bulletin: card } } : one));
    return edit([
      { kind: 'bulletin', id: card, add: { name, kind: 'notice', text } },
      ...changed('layout', layout, { zones: filled }),
    ]);
  };
  return (
    <section aria-label={`Zone ${id}`} className="min-w-72 flex-1 basis-80 space-y-2.5">
      <Labelled name="Zone" wide>
        <SavedInput
          label="Name of the zone"
          of={of('id')}
          value={id}
          read={(text) => readZoneName(text, zones, id)}
          save={rename}
          width="min-w-0 flex-1"
          className="font-semibold"
        />
      </Labelled>
      <Labelled name="Shows" wide>
        <span className="min-w-0 flex-1">
          <ContentPicker
            plan={draft}
            value={contentValue(zone.content)}
            none="Choose a playlist, file, card or input"
            notIn="zone"
            aria-label={`What ${id} shows`}
            onChange={(value) => void set({ content: contentOf(value) })}
          />
        </span>
      </Labelled>
      {bulletin ? (
        <Labelled name="Its text" wide>
          <SavedInput
            label="Text of the card"
            of={{ kind: 'bulletin', id: bulletin.id, field: 'text' }}
            value={bulletin.text}
            read={readText}
            save={(text) => edit(changed('bulletin', bulletin, { text }))}
            rows={3}
            width="min-w-0 flex-1"
          />
        </Labelled>
      ) : (
        !zone.content && (
          <Labelled name="Or a text" wide>
            <SavedInput
              label={`Text for ${id}`}
              of={of('text')}
              value=""
              read={readText}
              save={(text) => (text === '' ? undefined : writeCard(text))}
              rows={2}
              placeholder="It becomes a card with these words"
              width="min-w-0 flex-1"
            />
          </Labelled>
        )
      )}
      <div className="flex flex-wrap gap-x-5 gap-y-2.5">
        <FitField names={id} fit={zone.fit ?? 'whole'} onChange={(fit) => void set({ fit })} />
        <TransitionField
          names={id}
          of={of('transition')}
          kind={zone.transition?.kind ?? 'cut'}
          ms={zone.transition?.ms}
          onChange={(transition) => set({ transition })}
        />
      </div>
      <Labelled name="Only on" wide>
        <SavedInput
          label={`Screens of ${id}`}
          of={of('where')}
          placeholder="all screens of the layout"
          value={zone.where ?? ''}
          read={(text) => readWhere(text, draft)}
          save={(where) => set({ where })}
          box={({ onWrite, focusOn, ...field }) => (
            <WhereBox plan={draft} {...field} onChange={onWrite} inputRef={focusOn} />
          )}
          width="min-w-0 flex-1"
        />
      </Labelled>
      <Labelled name="Only when" wide>
        <SavedInput
          label={`When ${id} shows`}
          of={of('when')}
          value={zone.when ? describeWhen(zone.when) : ''}
          placeholder="always; or weekdays 07:00–09:00 …"
          read={(text) => readSaid(text, context, zone.when)}
          note={(text) => readingsNote(text, context)}
          save={(when) => set({ when })}
          width="min-w-0 flex-1"
        />
      </Labelled>
      <Tick
        label={heard ? `Heard, in place of ${heard.id}` : 'Heard'}
        checked={zone.sound === true}
        onChange={(on) => void hear(on)}
      />
      <Tick
        label="Its loop goes on while the layout is away"
        checked={zone.goesOn === true}
        onChange={(on) => void set({ goesOn: on || undefined })}
      />
      {draft.cues.length > 0 && (
        <Labelled name="A touch fires" wide>
          <Select
            aria-label={`A touch on ${id} fires`}
            value={zone.touch?.cue ?? ''}
            className="!w-auto"
            onChange={({ target }) =>
              void set({ touch: target.value === '' ? undefined : { ...zone.touch, cue: target.value } })
            }
          >
            <option value="">nothing</option>
            {draft.cues.map((cue) => (
              <option key={cue.id} value={cue.id}>
                {cue.name}
              </option>
            ))}
          </Select>
        </Labelled>
      )}
      {zone.touch && (
        <Labelled name="on" wide>
          <SavedInput
            label={`Screens on which a touch on ${id} fires`}
            of={of('touch')}
            placeholder="all screens that the cue reaches"
            value={zone.touch.where ?? ''}
            read={(text) => readWhere(text, draft)}
            save={(where) =>
              zone.touch && set({ touch: { cue: zone.touch.cue, ...(where === undefined ? {} : { where }) } })
            }
            box={({ onWrite, focusOn, ...field }) => (
              <WhereBox plan={draft} {...field} onChange={onWrite} inputRef={focusOn} />
            )}
            width="min-w-0 flex-1"
          />
        </Labelled>
      )}
      <div className="flex flex-wrap gap-x-4 gap-y-2 border-t border-rule pt-2.5">
        {MEASURES.map(([measure, name]) => (
          <Labelled key={measure} name={name}>
            <SavedInput
              label={`${name} of ${id}, in pixels`}
              of={of(measure)}
              value={String(zone[measure])}
              inputMode="decimal"
              read={readPixels}
              save={(pixels) => onChange(measured(zones, id, measure, pixels, layout))}
              width="w-20"
              className="text-right font-code"
            />
          </Labelled>
        ))}
        <p className="w-full text-xs text-faint">
          In pixels.{' '}
          {isFree(zones, id) ? 'It moves alone: it lies over another zone.' : 'The zones beside it move along.'}
        </p>
      </div>
    </section>
  );
}

function Tick({ label, checked, onChange }: { label: string; checked: boolean; onChange: (on: boolean) => void }) {
  return (
    <label className="flex min-h-6 items-center gap-2 text-sm">
      <input
        type="checkbox"
        className="size-4 accent-dusk"
        checked={checked}
        onChange={({ target }) => onChange(target.checked)}
      />
      {label}
    </label>
  );
}

/** Letters, digits and hyphens: reports and forecasts name the zone by it. */
function readZoneName(text: string, zones: readonly Zone[], now: string): Result<string> {
  const name = text.trim().toLowerCase().replace(/\s+/g, '-');
  const read = idSchema.safeParse(name);
  if (!read.success) return misread('A zone’s name has small letters, digits and hyphens.');
  if (name !== now && zones.some(({ id }) => id === name)) return misread(`There is a zone “${name}” already.`);
  return done(name);
}

function readPixels(text: string): Result<number> {
  const pixels = Number(text.trim());
  return Number.isInteger(pixels) && pixels >= 0 ? done(pixels) : misread('Write whole pixels, like 480.');
}

const readText = (text: string): Result<string> =>
  text.length <= 4000 ? done(text.trim()) : misread('A card has at most 4 000 characters.');
