'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { Controller, useForm } from 'react-hook-form';
import * as z from 'zod';
import { nameAmong } from '@/core/booking';
import { added, changed, nameSchema, newEntryId, objectIn, selectorSchema, type Plan } from '@/core/plan';
import type { Result } from '@/core/refusal';
import { useNetwork } from '@/interface/data/provider';
import { forTextSchema } from '@/interface/booking/booking-values';
import { AutoForm } from '@/interface/forms/auto-form';
import { ContentPicker } from '@/interface/forms/content-picker';
import { WhereField } from '@/interface/forms/where-field';
import { Field, Input, Select } from '@/interface/kit/controls/field';
import { contentOf } from '@/interface/kit/content/content';

const PRIORITY = 5;
/** The place of a board that is not there yet. */
const NEW_BOARD = '';

const newButtonSchema = z.object({
  name: nameSchema,
  content: z.string().min(1, 'Choose what it shows.'),
  where: selectorSchema,
  lasts: forTextSchema,
  board: z.string(),
  boardName: z.string(),
});

/** A button, with all that it needs: a cue of its own, a booking that waits for it, and a place on a board. One step takes it back. */
export function NewButton({ board, onDone }: { board: string | null; onDone: (board: string) => void }) {
  const { draft, edit } = useNetwork('draft', 'edit');
  const form = useForm({
    resolver: zodResolver(newButtonSchema),
    mode: 'onTouched',
    defaultValues: { name: '', content: '', where: '', lasts: '30 s', board: board ?? NEW_BOARD, boardName: 'Board' },
  });
  const { register, control, formState, watch } = form;
  const { errors } = formState;
  const save = async (values: z.output<typeof newButtonSchema>): Promise<Result<unknown>> => {
    const result = await addButton(draft, values, edit);
    if (result.ok) onDone(result.value);
    return result;
  };
  return (
    <AutoForm form={form} about="button new" create="Add it" save={save} fieldOf={fieldOf}>
      <Field label="Name" hint="What the button says" error={errors.name?.message}>
        <Input invalid={!!errors.name} placeholder="Birthday greeting" {...register('name')} />
      </Field>
      <Field label="Shows" error={errors.content?.message}>
        <Controller
          control={control}
          name="content"
          render={({ field: { value, onChange, onBlur } }) => (
            <ContentPicker
              plan={draft}
              none="Choose a playlist, a file, a layout or an input"
              invalid={!!errors.content}
              {...{ value, onChange, onBlur }}
            />
          )}
        />
      </Field>
      <Controller
        control={control}
        name="where"
        render={({ field: { value, onChange, onBlur } }) => (
          <WhereField plan={draft} error={errors.where?.message} {...{ value, onChange, onBlur }} />
        )}
      />
      <Field label="Lasts" hint="E.g. 30 s or 10 min. Leave empty for once through." error={errors.lasts?.message}>
        <Input invalid={!!errors.lasts} {...register('lasts')} />
      </Field>
      <div className="flex gap-4">
        {draft.boards.length > 0 && (
          <Field label="On the board" className="flex-1">
            <Select {...register('board')}>
              {draft.boards.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
              <option value={NEW_BOARD}>A new board</option>
            </Select>
          </Field>
        )}
        {watch('board') === NEW_BOARD && (
          <Field label="Name of the board" error={errors.boardName?.message} className="flex-1">
            <Input {...register('boardName')} />
          </Field>
        )}
      </div>
      <p className="text-sm text-faint">
        It works as soon as it is published. Then its screens keep its files, and show it within a second of a press.
      </p>
    </AutoForm>
  );
}

const fieldOf = ({ path }: { readonly path: string }) => (path.startsWith('/where') ? 'where' : 'name');

/** Adds what a button needs as one act. Returns the id of its board. */
async function addButton(
  draft: Plan,
  { name, content, where, lasts, board, boardName }: z.output<typeof newButtonSchema>,
  edit: ReturnType<typeof useNetwork<'edit'>>['edit'],
): Promise<Result<string>> {
  const namesOf = (list: readonly { readonly name: string }[]) => new Set(list.map((one) => one.name));
  const cue = await edit([added('cue', { name: nameAmong(namesOf(draft.cues), name) })]);
  if (!cue.ok) return cue;
  const id = cue.value.ids[0] ?? '';
  const booking = added('booking', {
    name: nameAmong(namesOf(draft.bookings), name),
    content: contentOf(content),
    where: where.trim(),
    priority: PRIORITY,
    cue: id,
    ...(lasts === undefined ? {} : { forMs: lasts }),
    created: new Date().toISOString(),
  });
  const said = `“${name}” is on the board as a draft. Publish when you’re ready.`;
  const there = objectIn(draft, 'board', board);
  const button = { label: name, cue: id };
  const onBoard = there
    ? changed('board', there, {
        buttons: [...there.buttons, { ...button, id: newEntryId(Math.random) }],
      })
    : [added('board', { name: nameAmong(namesOf(draft.boards), boardName.trim() || 'Board'), buttons: [button] })];
  const rest = await edit([booking, ...onBoard], said, cue.value.act);
  return rest.ok ? { ok: true, value: rest.value.ids[1] ?? board } : rest;
}
