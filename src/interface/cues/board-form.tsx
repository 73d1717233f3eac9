'use client';

import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { BUTTON_COLOURS, changed, newEntryId, removed, type Board, type BoardButton, type Plan } from '@/core/plan';
import { done } from '@/core/refusal';
import { Locked } from '@/interface/data/may';
import { useNetwork } from '@/interface/data/provider';
import { ContentPicker } from '@/interface/forms/content-picker';
import { readName, readWhere } from '@/interface/forms/read-text';
import { SavedInput } from '@/interface/forms/saved-input';
import { WhereBox } from '@/interface/forms/where-box';
import { Button } from '@/interface/kit/controls/button';
import { Field, Select } from '@/interface/kit/controls/field';

const COLOUR_WORDS = { dusk: 'Dusk blue', tide: 'Sea green', brick: 'Brick red', ink: 'Ink', paper: 'Paper' } as const;

/** A board's name, and its buttons in their order: each with its words, cue, screens, colour and picture. */
export function BoardForm({ board, onDone }: { board: Board; onDone: () => void }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const { id, name, buttons } = board;
  const save = (next: Partial<Board>, said?: string) => edit(changed('board', board, next), said);
  return (
    <Locked needs="plan">
      <Field label="Name">
        <SavedInput
          of={{ kind: 'board', id, field: 'name' }}
          label="Name of the board"
          value={name}
          read={readName}
          save={(text) => save({ name: text })}
        />
      </Field>
      <ol className="mt-4">
        {buttons.map((button, i) => (
          <ButtonFields
            key={button.id}
            board={id}
            button={button}
            plan={draft}
            isFirst={i === 0}
            isLast={i === buttons.length - 1}
            onChange={(next) =>
              save({ buttons: buttons.map((one) => (one === button ? { ...button, ...next } : one)) })
            }
            onMove={(by) => {
              const rest = buttons.filter((one) => one !== button);
              return save({ buttons: [...rest.slice(0, i + by), button, ...rest.slice(i + by)] });
            }}
            onRemove={(said) => save({ buttons: buttons.filter((one) => one !== button) }, said)}
          />
        ))}
      </ol>
      {buttons.length === 0 && <p className="mt-2 text-faint">This board has no buttons yet.</p>}
      {draft.cues.length > 0 && (
        <Button
          needs="plan"
          className="mt-4"
          onClick={() =>
            void save({ buttons: [...buttons, { id: newEntryId(Math.random), cue: draft.cues[0]?.id ?? '' }] })
          }
        >
          Add a button for a cue that exists
        </Button>
      )}
      <Button
        needs="plan"
        variant="grave"
        className="mt-8 block"
        onClick={() =>
          void edit([removed('board', board)], `“${name}” was deleted. Ctrl Z brings it back.`).then(
            (result) => result.ok && onDone(),
          )
        }
      >
        Delete this board
      </Button>
    </Locked>
  );
}

function ButtonFields({
  board,
  button,
  plan,
  isFirst,
  isLast,
  onChange,
  onMove,
  onRemove,
}: {
  board: string;
  button: BoardButton;
  plan: Plan;
  isFirst: boolean;
  isLast: boolean;
  onChange: (next: Partial<BoardButton>) => ReturnType<ReturnType<typeof useNetwork<'edit'>>['edit']>;
  onMove: (by: 1 | -1) => void;
  onRemove: (said: string) => void;
}) {
  const { id = '', label, cue, where, colour, picture } = button;
  const called = label ?? plan.cues.find((one) => one.id === cue)?.name ?? cue;
  const of = (field: string) => ({ kind: 'board' as const, id: board, field: `${id} ${field}` });
  return (
    <li className="space-y-3 border-t border-rule py-4" aria-label={called}>
      <div className="flex items-end gap-2">
        <Field label="Says" className="flex-1">
          <SavedInput
            of={of('label')}
            label={`Words on ${called}`}
            value={label ?? ''}
            placeholder={called}
            read={(text) => (text.trim() === '' ? done(undefined) : readName(text))}
            save={(text) => onChange({ label: text })}
          />
        </Field>
        <Button variant="quiet" aria-label={`Move ${called} up`} disabled={isFirst} onClick={() => onMove(-1)}>
          <ArrowUp size={16} aria-hidden />
        </Button>
        <Button variant="quiet" aria-label={`Move ${called} down`} disabled={isLast} onClick={() => onMove(1)}>
          <ArrowDown size={16} aria-hidden />
        </Button>
        <Button
          variant="quiet"
          aria-label={`Remove ${called}`}
          onClick={() => onRemove(`“${called}” is off the board. Ctrl Z brings it back.`)}
        >
          <X size={16} aria-hidden />
        </Button>
      </div>
      <div className="flex flex-wrap gap-3">
        <Field label="Cue" className="min-w-40 flex-1">
          <Select value={cue} onChange={({ target }) => void onChange({ cue: target.value })}>
            {plan.cues.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </Select>
        </Field>
        <Field label="Colour" className="w-36">
          <Select
            value={colour ?? 'dusk'}
            onChange={({ target }) => void onChange({ colour: BUTTON_COLOURS.find((one) => one === target.value) })}
          >
            {BUTTON_COLOURS.map((one) => (
              <option key={one} value={one}>
                {COLOUR_WORDS[one]}
              </option>
            ))}
          </Select>
        </Field>
      </div>
      <Field label="Screens">
        <SavedInput
          of={of('where')}
          label={`Screens of ${called}`}
          placeholder="all that its bookings reach"
          value={where ?? ''}
          read={(text) => readWhere(text, plan)}
          save={(text) => onChange({ where: text })}
          box={({ onWrite, focusOn, ...field }) => (
            <WhereBox plan={plan} {...field} onChange={onWrite} inputRef={focusOn} />
          )}
        />
      </Field>
      <Field label="Picture">
        <ContentPicker
          plan={plan}
          only="media"
          none="None"
          aria-label={`Picture of ${called}`}
          value={picture === undefined ? '' : `media:${picture}`}
          onChange={(value) => void onChange({ picture: value === '' ? undefined : value.split(':')[1] })}
        />
      </Field>
    </li>
  );
}
