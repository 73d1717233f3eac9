import * as z from 'zod';
import type { Profile } from '@/core/plan';

/** Fields of profiles as people write them. */

type Size = Pick<NonNullable<Profile['most']>, 'width' | 'height'>;

export const sizeText = (size: Size | undefined) => (size ? `${size.width} × ${size.height}` : '');

const SIZE = /^\s*(\d{1,6})\s*(?:×|x|\*|by)\s*(\d{1,6})\s*$/i;

/** "3840 × 2160", "3840x2160" or nothing. */
export const sizeTextSchema = z.string().transform((text, context): Size | undefined => {
  if (text.trim() === '') return undefined;
  const [, width, height] = SIZE.exec(text) ?? [];
  if (Number(width) > 0 && Number(height) > 0) return { width: Number(width), height: Number(height) };
  context.addIssue({ code: 'custom', message: 'Write width and height in pixels, like 1920 × 1080.' });
  return z.NEVER;
});

/** A number, with a point or a comma, or nothing. */
export const numberTextSchema = z.string().transform((text, context): number | undefined => {
  if (text.trim() === '') return undefined;
  const value = Number(text.trim().replace(',', '.'));
  if (Number.isFinite(value)) return value;
  context.addIssue({ code: 'custom', message: 'Write a number.' });
  return z.NEVER;
});

export const numberText = (value: number | undefined) => (value === undefined ? '' : String(value));

export const inputsText = (inputs: Profile['inputs'] = []) => inputs.map(({ name }) => name).join(', ');

/** Names of inputs, separated by commas. One that was there before keeps its id, since playlists and bookings use that. */
export const inputsOf = (text: string, before: Profile['inputs'] = []): Profile['inputs'] => {
  const names = [...new Set(text.split(',').map((name) => name.trim()))].filter((name) => name !== '');
  const ids = new Set<string>();
  const inputs = names.map((name) => {
    const known = before.find((one) => one.name === name)?.id;
    const plain =
      name
        .toLowerCase()
        .normalize('NFKD')
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-+|-+$/g, '') || 'input';
    let id = known ?? plain;
    for (let next = 2; ids.has(id); next++) id = `${plain}-${next}`;
    ids.add(id);
    return { id, name };
  });
  return inputs.length > 0 ? inputs : undefined;
};
