import type { UseFormRegisterReturn } from 'react-hook-form';
import * as z from 'zod';
import { screenSchema } from '@/core/plan';
import { shapeOf, type Wall } from '@/core/walls';
import { Button } from '@/interface/kit/controls/button';
import { Field, Input } from '@/interface/kit/controls/field';

/** A wall in the form of a screen: text, as people write it. One row and one column: it isn't a wall. */
const NO_WALL = { rows: '1', columns: '1', widthMm: '1210', heightMm: '681', betweenMm: '4' };

export type WallValues = typeof NO_WALL;
export const WALL_FIELDS = ['rows', 'columns', 'widthMm', 'heightMm', 'betweenMm'] as const;
export const WALL_NAMES = {
  rows: 'Rows',
  columns: 'Columns',
  widthMm: 'Width of a display',
  heightMm: 'Height of a display',
  betweenMm: 'Between two displays',
};

export const wallValues = (wall: Wall | undefined): WallValues =>
  wall
    ? {
        ...{ rows: String(wall.rows), columns: String(wall.columns), betweenMm: String(wall.betweenMm) },
        ...{ widthMm: String(wall.widthMm), heightMm: String(wall.heightMm) },
      }
    : NO_WALL;

/** A number as people type it, with a point or a comma; NaN for nothing. */
const read = (typed: unknown): number => {
  const text = String(typed ?? '').trim();
  return text === '' ? NaN : Number(text.replace(',', '.'));
};

const number = z.string().transform(read);

/** The five fields; a form's schema takes them in, and `wallOf` makes a wall of them. */
export const wallShape = { rows: number, columns: number, widthMm: number, heightMm: number, betweenMm: number };

/** Checks the fields as a wall, and tells what is wrong at each. */
export function checkWall(values: Record<keyof WallValues, number>, context: z.RefinementCtx): void {
  if (isOne(values)) return;
  const { rows, columns, widthMm, heightMm, betweenMm } = values;
  const read = screenSchema.shape.wall.safeParse({ rows, columns, widthMm, heightMm, betweenMm });
  for (const { path, message } of read.error?.issues ?? []) context.addIssue({ code: 'custom', path, message });
}

/** The wall that checked fields make; undefined for a single display. */
export function wallOf({ rows, columns, widthMm, heightMm, betweenMm }: Record<keyof WallValues, number>) {
  return isOne({ rows, columns }) ? undefined : { rows, columns, widthMm, heightMm, betweenMm };
}

const isOne = ({ rows, columns }: { rows: number; columns: number }) => rows === 1 && columns === 1;

type Values = WallValues & { readonly width: unknown; readonly height: unknown };

/** How many displays a screen is made of, and how large they are; `onSize` takes the size of the whole picture. */
export function WallFields({
  values,
  register,
  errors,
  onSize,
}: {
  values: Partial<Values>;
  register: (field: keyof WallValues) => UseFormRegisterReturn;
  errors: { readonly [F in keyof WallValues]?: { readonly message?: string | undefined } };
  onSize: (size: { width: number; height: number }) => void;
}) {
  const numbers = Object.fromEntries(
    [...WALL_FIELDS, 'width' as const, 'height' as const].map((field) => [field, read(values[field])]),
  ) as Record<keyof Values, number>;
  const wall = screenSchema.shape.wall.safeParse(wallOf(numbers)).data;
  const input = (field: keyof WallValues, label: string) => (
    <Field label={label} error={errors[field]?.message}>
      <Input inputMode="decimal" invalid={!!errors[field]} {...register(field)} />
    </Field>
  );
  return (
    <fieldset className="border-l-2 border-rule pl-3">
      <legend className="sr-only">Displays</legend>
      <div className="flex gap-4">
        {input('rows', 'Rows of displays')}
        {input('columns', 'Columns')}
      </div>
      <p className="mt-1 text-sm text-faint">
        A wall is several displays that show one picture, each with its own player. For a single display, keep 1 and 1.
        This takes effect at once, without publishing.
      </p>
      {!isOne(numbers) && (
        <>
          <div className="mt-3 flex gap-4">
            {input('widthMm', 'Display width')}
            {input('heightMm', 'Display height')}
            {input('betweenMm', 'Between two')}
          </div>
          <p className="mt-1 text-sm text-faint">
            In millimetres, without frames. “Between two” is from one picture to the next, over both frames.
          </p>
          {wall && <Shape wall={wall} size={numbers} onSize={onSize} />}
        </>
      )}
    </fieldset>
  );
}

/** From so much on a picture looks stretched. */
const TOLERANCE = 0.01;

/** Says if the picture's size in pixels has another shape than the wall, and offers the right one. */
function Shape({
  wall,
  size: { width, height },
  onSize,
}: {
  wall: Wall;
  size: { width: number; height: number };
  onSize: (size: { width: number; height: number }) => void;
}) {
  const { width: across, height: down } = shapeOf(wall, { width: wall.widthMm, height: wall.heightMm });
  if (!(width > 0 && height > 0) || Math.abs((width / height / across) * down - 1) < TOLERANCE) return null;
  const right = { width, height: Math.round((width * down) / across) };
  return (
    <p className="mt-2 text-sm text-brick">
      {width} × {height} pixels have another shape than this wall, so its pictures would be stretched.{' '}
      <Button variant="quiet" className="!px-0" onClick={() => onSize(right)}>
        Use {right.width} × {right.height}
      </Button>
    </p>
  );
}
