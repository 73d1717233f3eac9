'use client';

import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, type Path, type UseFormRegister } from 'react-hook-form';
import * as z from 'zod';
import {
  CODECS,
  CONTROLS,
  CONTROL_WORDS,
  INKS,
  INK_WORDS,
  nameSchema,
  profileSchema,
  removed,
  type Profile,
} from '@/core/plan';
import { codecName } from '@/core/profiles';
import { useNetwork } from '@/interface/data/provider';
import { AutoForm } from '@/interface/forms/auto-form';
import { Conflicts, useRecord } from '@/interface/forms/use-record';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input, Select, Tick } from '@/interface/kit/controls/field';
import { counted } from '@/interface/kit/words/format';
import { inputsOf, inputsText, numberText, numberTextSchema, sizeText, sizeTextSchema } from './profile-text';

const { shape } = profileSchema;
const DEFAULT_REFRESH_S = 15;

/** What was ticked; nothing ticked means that it isn't known. */
const ticked = <T extends string>(values: readonly [T, ...T[]]) =>
  z.array(z.enum(values)).transform((list) => (list.length > 0 ? list : undefined));

const profileFormSchema = z.object({
  name: nameSchema,
  plays: ticked(['image', 'video', 'sound', 'page']),
  codecs: ticked(CODECS),
  most: sizeTextSchema,
  fps: numberTextSchema.pipe(shape.most.unwrap().shape.framesPerSecond),
  has: z.array(z.enum(['touch', 'keys'])),
  inputs: z.string(),
  sound: z.enum(['', 'yes', 'no']),
  layers: numberTextSchema.pipe(shape.layers),
  storageMb: numberTextSchema.transform((megabytes) => megabytes && megabytes * 1e6).pipe(shape.storageBytes),
  onW: numberTextSchema.pipe(shape.watts.unwrap().shape.on.optional()),
  offW: numberTextSchema.pipe(shape.watts.unwrap().shape.off.optional()),
  lacks: ticked(CONTROLS),
  inks: z.enum(['', ...INKS]),
  refreshS: numberTextSchema.pipe(
    z.number().min(0.001, 'A change takes some time.').max(600, 'A picture changes within 600 seconds.').optional(),
  ),
});
type Values = z.input<typeof profileFormSchema>;

/** What people call the fields. */
const FIELD_NAMES = {
  ...{ name: 'Name', plays: 'Plays', codecs: 'Video codecs', most: 'Largest' },
  ...{ fps: 'Frames a second', has: 'Has', inputs: 'Inputs', sound: 'Loudspeakers', layers: 'Videos at once' },
  ...{ storageMb: 'Storage', onW: 'Watts while on', offW: 'Watts while off', lacks: 'Can’t be done from afar' },
  ...{ inks: 'Electronic paper', refreshS: 'Seconds for a change' },
};

const valuesOf = (profile: Omit<Profile, 'id'> | null): Values => ({
  name: profile?.name ?? '',
  plays: profile?.plays ?? [],
  codecs: profile?.codecs ?? [],
  most: sizeText(profile?.most),
  fps: numberText(profile?.most?.framesPerSecond),
  has: [...(profile?.touch ? (['touch'] as const) : []), ...(profile?.keys ? (['keys'] as const) : [])],
  inputs: inputsText(profile?.inputs),
  sound: profile?.sound === undefined ? '' : profile.sound ? 'yes' : 'no',
  layers: numberText(profile?.layers),
  storageMb: numberText(profile?.storageBytes && profile.storageBytes / 1e6),
  onW: numberText(profile?.watts?.on),
  offW: numberText(profile?.watts?.off),
  lacks: profile?.lacks ?? [],
  inks: profile?.paper?.inks ?? '',
  refreshS: profile?.paper ? String(profile.paper.refreshMs / 1000) : '',
});

/** What displays of one kind can do. `begun` fills the form of a new one. */
export function ProfileForm({
  profile,
  begun = null,
  onDone,
}: {
  profile: Profile | null;
  begun?: Omit<Profile, 'id'> | null;
  onDone: (id: string) => void;
}) {
  const { draft, edit, save } = useNetwork('draft', 'edit', 'save');
  const form = useForm({
    resolver: zodResolver(profileFormSchema),
    mode: 'onTouched',
    defaultValues: valuesOf(profile ?? begun),
  });
  const record = useRecord(form, {
    kind: 'profile',
    object: profile,
    valuesOf,
    madeOf: {
      ...{ touch: ['has'], keys: ['has'], most: ['most', 'fps'], storageBytes: ['storageMb'] },
      ...{ watts: ['onW', 'offW'], paper: ['inks', 'refreshS'] },
    },
  });
  const { register, formState, watch } = form;
  const { errors } = formState;
  const users = profile ? draft.screens.filter((screen) => screen.profile === profile.id) : [];

  const submit = async (values: z.output<typeof profileFormSchema>) => {
    const {
      has,
      inputs,
      sound,
      most,
      fps,
      storageMb,
      onW,
      offW,
      inks,
      refreshS = DEFAULT_REFRESH_S,
      ...others
    } = values;
    const before = profile ?? begun;
    const result = await save(
      record.patch({
        ...others,
        touch: has.includes('touch') || undefined,
        keys: has.includes('keys') || undefined,
        inputs: inputsOf(inputs, before?.inputs),
        sound: sound === '' ? undefined : sound === 'yes',
        most: most && { ...most, ...(fps === undefined ? {} : { framesPerSecond: fps }) },
        storageBytes: storageMb,
        watts: onW === undefined && offW === undefined ? undefined : { on: onW ?? 0, off: offW ?? 0 },
        paper: inks ? { ...before?.paper, inks, refreshMs: Math.round(refreshS * 1000) } : undefined,
      }),
      profile ? undefined : `“${values.name}” was added. Choose it in the settings of your screens.`,
    );
    if (result.ok && !profile) onDone(result.value.ids[0] ?? '');
    return result;
  };

  return (
    <>
      <p className="mb-4 text-faint">
        What you leave empty or unticked isn’t known, and counts as possible. If a player says otherwise, the player is
        right.
      </p>
      <AutoForm
        form={form}
        about={profile ? `profile ${profile.id}` : 'profile new'}
        save={submit}
        create={profile ? undefined : 'Add profile'}
        held={record.conflicts.length > 0}
        settled={record.settled}
      >
        <Conflicts record={record} names={FIELD_NAMES} />
        <Field label="Name" error={errors.name?.message}>
          <Input invalid={!!errors.name} {...register('name')} />
        </Field>
        <Ticks
          {...{ register }}
          name="plays"
          values={[
            ['image', 'pictures'],
            ['video', 'videos'],
            ['sound', 'sound'],
            ['page', 'web pages'],
          ]}
        />
        <Ticks {...{ register }} name="codecs" values={CODECS.map((codec) => [codec, codecName(codec)])} />
        <div className="flex gap-4">
          <Field label="Largest picture and video" hint="Like 3840 × 2160" error={errors.most?.message}>
            <Input invalid={!!errors.most} {...register('most')} />
          </Field>
          <Field label="Frames a second" error={errors.fps?.message}>
            <Input inputMode="decimal" invalid={!!errors.fps} {...register('fps')} />
          </Field>
        </div>
        <Field label="Inputs" hint="Other sources that it can show, separated by commas" error={errors.inputs?.message}>
          <Input placeholder="HDMI 1, Radar" {...register('inputs')} />
        </Field>
        <Ticks
          {...{ register }}
          name="has"
          values={[
            ['touch', 'touch'],
            ['keys', 'keys or a keyboard'],
          ]}
        />
        <Ticks {...{ register }} name="lacks" values={CONTROLS.map((control) => [control, CONTROL_WORDS[control]])} />
        <div className="flex gap-4">
          <Field label="Loudspeakers" className="flex-1">
            <Select {...register('sound')}>
              <option value="">Not known</option>
              <option value="yes">Yes</option>
              <option value="no">No</option>
            </Select>
          </Field>
          <Field label="Videos at once" error={errors.layers?.message}>
            <Input inputMode="numeric" invalid={!!errors.layers} {...register('layers')} />
          </Field>
        </div>
        <div className="flex gap-4">
          <Field label="Watts while on" hint="By its data sheet" error={errors.onW?.message}>
            <Input inputMode="decimal" invalid={!!errors.onW} {...register('onW')} />
          </Field>
          <Field label="Watts while off" error={errors.offW?.message}>
            <Input inputMode="decimal" invalid={!!errors.offW} {...register('offW')} />
          </Field>
          <Field label="Storage in MB" error={errors.storageMb?.message}>
            <Input inputMode="numeric" invalid={!!errors.storageMb} {...register('storageMb')} />
          </Field>
        </div>
        <div className="flex gap-4">
          <Field label="Electronic paper" className="flex-1">
            <Select {...register('inks')}>
              <option value="">No</option>
              {INKS.map((inks) => (
                <option key={inks} value={inks}>
                  {INK_WORDS[inks]}
                </option>
              ))}
            </Select>
          </Field>
          {watch('inks') !== '' && (
            <Field label="Seconds for a change" error={errors.refreshS?.message}>
              <Input inputMode="decimal" invalid={!!errors.refreshS} {...register('refreshS')} />
            </Field>
          )}
        </div>
      </AutoForm>
      {profile && (
        <Button
          needs="plan"
          variant="grave"
          className="mt-8"
          disabled={users.length > 0}
          onClick={() =>
            void edit([removed('profile', profile)], `“${profile.name}” was deleted. Ctrl Z brings it back.`).then(
              (result) => result.ok && onDone(''),
            )
          }
        >
          {users.length > 0 ? `In use by ${counted(users.length, 'screen')}` : 'Delete this profile'}
        </Button>
      )}
    </>
  );
}

/** Several things to tick under one name. */
function Ticks({
  register,
  name,
  values,
}: {
  register: UseFormRegister<Values>;
  name: Path<Values> & keyof typeof FIELD_NAMES;
  values: readonly (readonly [value: string, words: string])[];
}) {
  return (
    <fieldset>
      <legend className="text-sm font-semibold">{FIELD_NAMES[name]}</legend>
      <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
        {values.map(([value, words]) => (
          <Tick key={value} label={words} value={value} {...register(name)} />
        ))}
      </div>
    </fieldset>
  );
}
