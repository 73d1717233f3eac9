import * as z from 'zod';
import { idSchema, lineSchema, nameSchema, pixelsSchema } from '../fields';
import { defineKind } from '../kind';
import { plain, text } from '../say';

/** The codecs in which players get videos, as the library names them. */
export const CODECS = ['h264', 'hevc', 'vp8', 'vp9', 'av1'] as const;
export type Codec = (typeof CODECS)[number];

const PLAYED = ['image', 'video', 'sound', 'page'] as const;
/** How files come to displays: over the network, on something that a person carries there, or both. */
const WAYS = ['network', 'carrier', 'both'] as const;

/** What a display may lack that commands and lights-out need. */
export const CONTROLS = ['power', 'volume', 'brightness', 'input', 'restart', 'update', 'glimpse'] as const;
export type Control = (typeof CONTROLS)[number];

/** What electronic paper can show. */
export const INKS = ['grey-2', 'grey-4', 'grey-16', 'red-3', 'colour-6', 'colour-7'] as const;

const mostSchema = z.strictObject({
  width: pixelsSchema,
  height: pixelsSchema,
  framesPerSecond: z.number('Write frames a second as a number.').min(1).max(1000).optional(),
});

const watts = z
  .number('Write watts as a number.')
  .min(0, 'A display uses 0 W or more.')
  .max(100_000, 'A display uses at most 100 000 W.');

const inputSchema = z.strictObject({ id: idSchema, name: lineSchema('An input', 60) });

/** What displays of one kind can do. A field that is absent isn't known, and counts as possible. */
export const profileSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  /** What it plays, `page` being web pages; absent: everything. */
  plays: z
    .array(z.enum(PLAYED, `What a display plays is ${PLAYED.join(', ')}.`))
    .min(1, 'A display plays at least one kind of file.')
    .max(PLAYED.length)
    .optional(),
  /** The video codecs that it plays; absent: all. */
  codecs: z
    .array(z.enum(CODECS, `The codecs are ${CODECS.join(', ')}.`))
    .max(CODECS.length)
    .optional(),
  /** The largest picture and video, in pixels. */
  most: mostSchema.optional(),
  /** Whether it has loudspeakers. */
  sound: z.boolean().optional(),
  touch: z.boolean().optional(),
  keys: z.boolean().optional(),
  /** Other sources that it can show, such as a camera at a socket. */
  inputs: z.array(inputSchema).max(20, 'A display has at most 20 inputs.').optional(),
  /** How many videos it can play at once. */
  layers: z
    .int('Write a whole number of videos.')
    .min(0, 'A display plays 0 videos at once or more.')
    .max(100, 'A display plays at most 100 videos at once.')
    .optional(),
  storageBytes: z
    .int('Storage is a whole number of bytes.')
    .min(1, 'A display has some storage.')
    .max(1e14, 'A display has at most 100 000 000 MB of storage.')
    .optional(),
  /** What it uses while it is on, and while it is off. */
  watts: z.strictObject({ on: watts, off: watts }).optional(),
  /** How its files come; absent: by network. */
  by: z.enum(WAYS, `Files come by ${WAYS.join(', ')}.`).optional(),
  /** For displays that only show a folder: how long each picture stands. */
  stillMs: z
    .int('Write whole milliseconds.')
    .min(100)
    .max(86_400_000, 'A picture stands for a day at most.')
    .optional(),
  /** What it can't do from afar. */
  lacks: z
    .array(z.enum(CONTROLS, `What a display may lack is ${CONTROLS.join(', ')}.`))
    .max(CONTROLS.length)
    .optional(),
  /** Electronic paper: it keeps a still picture without power, and changes slowly. */
  paper: z
    .strictObject({
      inks: z.enum(INKS, `Inks are ${INKS.join(', ')}.`),
      refreshMs: z.int('Write whole milliseconds.').min(1).max(600_000, 'A picture changes within 10 minutes.'),
      perRefreshMj: z.number().min(0).max(1e9).optional(),
      idleMw: z.number().min(0).max(1e6).optional(),
      batteryMwh: z.number().min(0).max(1e9).optional(),
      /** What it does without power. */
      rest: z.enum(['keeps'], 'Paper keeps its picture: write “keeps”.').optional(),
    })
    .nullable()
    .optional(),
});

export type Profile = z.infer<typeof profileSchema>;

/** What displays play, as people say it. */
export const PLAYED_WORDS = { image: 'pictures', video: 'videos', sound: 'sound', page: 'web pages' } as const;

/** Codecs as people write them. */
export const CODEC_NAMES: Readonly<Record<Codec, string>> = {
  ...{ h264: 'H.264', hevc: 'HEVC', vp8: 'VP8', vp9: 'VP9', av1: 'AV1' },
};

export const INK_WORDS: Readonly<Record<(typeof INKS)[number], string>> = {
  ...{ 'grey-2': 'black and white', 'grey-4': '4 greys', 'grey-16': '16 greys' },
  ...{ 'red-3': 'black, white and red', 'colour-6': '6 colours', 'colour-7': '7 colours' },
};

/** What a control is called where a display lacks it. */
export const CONTROL_WORDS: Readonly<Record<Control, string>> = {
  power: 'switching off',
  volume: 'volume',
  brightness: 'brightness',
  input: 'switching its input',
  restart: 'restart',
  update: 'update',
  glimpse: 'pictures of it',
};

const has = (label: string) => ({ label, say: (value: boolean) => (value ? 'yes' : 'no') });

export const profile = defineKind({
  kind: 'profile',
  collection: 'profiles',
  noun: 'profile',
  schema: profileSchema,
  fields: {
    name: text('name'),
    plays: { label: 'plays', say: (list) => list.map((kind) => PLAYED_WORDS[kind]).join(', ') },
    codecs: { label: 'codecs', say: (list) => list.map((codec) => CODEC_NAMES[codec]).join(', ') || 'none' },
    most: {
      label: 'largest',
      say: ({ width, height, framesPerSecond }) =>
        `${width} × ${height}${framesPerSecond === undefined ? '' : `, ${framesPerSecond} frames a second`}`,
    },
    sound: has('loudspeakers'),
    touch: has('touch'),
    keys: has('keys'),
    inputs: { label: 'inputs', say: (list) => list.map(({ name }) => name).join(', ') || 'none' },
    layers: plain('videos at once'),
    storageBytes: { label: 'storage', say: (bytes) => `${bytes / 1e6} MB` },
    watts: { label: 'power', say: ({ on, off }) => `${on} W on, ${off} W off` },
    by: plain('files come by'),
    stillMs: { label: 'a picture stands', say: (ms) => `${ms / 1000} s` },
    lacks: { label: 'not from afar', say: (list) => list.map((one) => CONTROL_WORDS[one]).join(', ') || 'nothing' },
    paper: {
      label: 'electronic paper',
      say: (paper) => (paper ? `${INK_WORDS[paper.inks]}, ${paper.refreshMs / 1000} s a change` : 'no'),
    },
  },
  nameScope: () => 'network',
});
