'use client';

import { useForm } from 'react-hook-form';
import { tagsOf } from '@/core/plan';
import { refused } from '@/core/refusal';
import { describeWhen } from '@/core/when';
import { answered } from '@/interface/data/answered';
import { useBatch, useLibraryTags } from '@/interface/data/queries';
import { AutoForm } from '@/interface/forms/auto-form';
import { readingsNote } from '@/interface/forms/other-readings';
import { readSaid } from '@/interface/forms/read-said';
import { TagsField } from '@/interface/forms/tags-field';
import { usePhraseContext } from '@/interface/forms/use-phrase-context';
import { Field, Input } from '@/interface/kit/controls/field';
import { tagsText } from '@/interface/kit/screens/tags';
import type { BatchSaid } from '@/services/library';
import { describeBatchAction } from '@/web/actions';

interface Said {
  readonly tags: string;
  readonly available: string;
}

/** What is said of all files that are sent together, also of those that are still to come. */
export function Batch({ batch }: { batch: string }) {
  const said = useBatch(batch);
  if (!said) return null;
  return <BatchForm batch={batch} said={said} />;
}

function BatchForm({ batch, said }: { batch: string; said: BatchSaid }) {
  const context = usePhraseContext();
  const known = useLibraryTags();
  const form = useForm<Said>({
    mode: 'onTouched',
    defaultValues: {
      tags: tagsText(said.tags),
      available: said.available ? describeWhen(said.available) : '',
    },
  });
  const { register, formState } = form;
  const save = async ({ tags, available }: Said) => {
    const when = readSaid(available, context);
    if (!when.ok) return refused([{ path: '/available', message: when.message }]);
    return answered(
      describeBatchAction(batch, { tags: tagsOf(tags), ...(when.value ? { available: when.value } : {}) }),
    );
  };
  return (
    <AutoForm form={form} about={`batch ${batch}`} save={save}>
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
        <TagsField
          control={form.control}
          name="tags"
          hint="For all of these, and those still uploading"
          known={known}
        />
        <Field
          label="Available"
          hint={
            readingsNote(form.watch('available'), context) ??
            'Leave empty to keep them available. Type it in words, e.g. “until 28 Feb”.'
          }
          error={formState.errors.available?.message}
        >
          <Input
            autoComplete="off"
            spellCheck={false}
            invalid={!!formState.errors.available}
            {...register('available')}
          />
        </Field>
      </div>
    </AutoForm>
  );
}
