import { z } from '@hono/zod-openapi';
import { lineSchema } from '@/core/plan';

/** The wire between players and server, version 1. Every type of the protocol is inferred from here. */

const sha256 = z.string().regex(/^[0-9a-f]{64}$/, 'A SHA-256 has 64 digits 0-9 and a-f.');

export const problemSchema = z
  .object({
    type: z.string().openapi({ example: 'about:blank' }),
    title: z.string().openapi({ example: 'This token is unknown. Pair this player again.' }),
    status: z.int(),
  })
  .openapi('Problem', { description: 'RFC 9457 problem details' });

export const pairingSchema = z
  .object({
    device_code: z.string(),
    user_code: z.string().openapi({ example: 'BCDF-GHJK' }),
    verification_uri: z.string().openapi({ example: '/screens' }),
    expires_in: z.int().openapi({ description: 'Seconds' }),
    interval: z.int().openapi({ description: 'Seconds to wait between polls' }),
    mark: z.object({ number: z.int(), name: z.string(), colour: z.string(), ink: z.string() }).optional().openapi({
      description: 'With an enrolment key: what to show large, so that people can tell waiting players apart',
    }),
  })
  .openapi('Pairing', { description: 'RFC 8628 section 3.2' });

export const enrolSchema = z
  .object({
    enrol: z
      .object({
        key: z.string().min(20).max(100),
        serial: lineSchema('A serial number', 80)
          .refine((text) => text !== '', 'Send a serial number.')
          .openapi({
            description: 'The same at each start of this device, and different on any other',
          }),
        software: lineSchema('Software', 120).optional(),
      })
      .optional(),
    was: z.string().min(20).max(100).optional().openapi({
      description:
        'The token that the player had until now, if its screen was removed: it gets the screen back when that comes back',
    }),
  })
  .openapi('PairingRequest');

export const tokenRequestSchema = z.object({ device_code: z.string().min(20).max(100) }).openapi('TokenRequest');

export const tokenSchema = z
  .object({ access_token: z.string(), token_type: z.literal('Bearer') })
  .openapi('Token', { description: 'RFC 6749 section 5.1' });

export const tokenErrorSchema = z
  .object({ error: z.enum(['authorization_pending', 'expired_token']), error_description: z.string() })
  .openapi('TokenError', { description: 'RFC 8628 section 3.5' });

const sourceSchema = z.string().openapi({
  description:
    'The edition that the program is of. Programs of one edition show the same, from other files: one that is here whole may begin in place of another that is not.',
});

export const targetSchema = z
  .object({
    screen: z.object({
      ...{ id: z.string(), name: z.string(), width: z.int(), height: z.int() },
      part: z
        .object({
          ...{ number: z.int(), row: z.int(), column: z.int() },
          ...{ left: z.number(), top: z.number(), width: z.number(), height: z.number() },
        })
        .optional()
        .openapi({
          description:
            'Of a wall: which display this is, and which part of the picture it shows, in shares of the whole. Draw the whole picture so much larger, and show this part of it',
        }),
      pin: sha256.optional().openapi({
        description:
          'Of the PIN that opens the player’s own page: the SHA-256 of the screen’s id, a blank, and the PIN. Absent: the page stays closed',
      }),
    }),
    edition: z.int().nullable().openapi({ description: 'Number of the newest edition; null before the first' }),
    program: sha256
      .nullable()
      .openapi({ description: 'What this player is to play; null where the edition has nothing for it' }),
    source: sourceSchema.optional(),
    coming: z
      .array(
        z.object({
          at: z.int().openapi({ description: 'From then on, by the server’s clock, in milliseconds since 1970' }),
          program: sha256.nullable(),
          source: sourceSchema.optional(),
        }),
      )
      .optional()
      .openapi({
        description: 'Planned programs after `program`, the earliest first: fetched ahead, begun on the instant',
      }),
    commands: z
      .array(
        z.object({
          id: z.string(),
          kind: z.string().openapi({
            description: 'What to do; answer `failed` for a kind that you do not know',
            example: 'identify',
          }),
          percent: z.int().optional(),
          degrees: z.int().optional(),
          input: z
            .string()
            .optional()
            .openapi({ description: 'The id of an input of the display; `player`: its own', example: 'hdmi-1' }),
          site: z
            .string()
            .optional()
            .openapi({ description: 'With `identify`: what to show beside the screen’s name' }),
          number: z.int().optional(),
          at: z.int().openapi({ description: 'When to do it, by the server’s clock' }),
          expires: z.int().openapi({ description: 'Don’t do it from then on, by the server’s clock' }),
        }),
      )
      .optional()
      .openapi({ description: 'Commands of which the server does not know yet how they went. Do each once' }),
    firings: z
      .array(
        z.object({
          id: z.string(),
          cue: z.string(),
          at: z.int().openapi({ description: 'When it was fired, by the server’s clock' }),
          end: z.literal(true).optional().openapi({ description: 'It ends what was fired before, in place of firing' }),
          late: z.int().openapi({ description: 'Pass over it if you hear of it first after this instant' }),
        }),
      )
      .optional()
      .openapi({
        description:
          'What was fired on this screen and may still matter: facts beside the program. What is no longer listed is over',
      }),
    glimpses: z
      .object({
        allowed: z.boolean().openapi({ description: 'Whether pictures may be taken of this screen' }),
        everyMs: z
          .int()
          .min(1000)
          .optional()
          .openapi({ description: 'Take one so often; absent: only when commanded' }),
      })
      .optional(),
    serverTime: z.int().openapi({ description: 'Milliseconds since 1970-01-01T00:00:00Z' }),
  })
  .openapi('Target');

/** Numbers past these can't be real measurements. */
const bytes = z.number().min(0).max(1e15);
const instant = z.int().min(-8.64e15).max(8.64e15);
const edition = z
  .int()
  .min(0)
  .max(2 ** 31 - 1);
const id = lineSchema('An id', 80);

export const reportSchema = z
  .object({
    state: z
      .enum(['playing', 'resting', 'empty'])
      .openapi({ description: 'resting: in lights-out hours; empty: no program yet' }),
    edition: edition.nullable(),
    program: sha256.nullable().openapi({ description: 'The program that plays now' }),
    playing: z
      .object({
        media: id
          .optional()
          .openapi({ description: 'The file that is seen; in place of it a layout, bulletin or input' }),
        layout: id.optional(),
        bulletin: id.optional(),
        input: id.optional(),
        source: lineSchema('A source', 20),
        id: id.nullable(),
        since: instant.optional().openapi({
          description: 'Since when this booking or backdrop has been seen without a break, by the server’s clock',
        }),
      })
      .nullable(),
    download: z.object({ doneBytes: bytes, totalBytes: bytes }).nullable(),
    missing: z
      .object({
        files: z.int().min(1).max(1e6),
        bytes,
        neededBy: instant.nullable().openapi({
          description: 'When the first of them is to be seen, by the server’s clock; null: not within two months',
        }),
      })
      .nullish()
      .openapi({ description: 'What of the program that plays is not here; null where all of it is' }),
    ready: z
      .array(sha256)
      .max(20)
      .optional()
      .openapi({ description: 'The programs of `coming` that are here, with all that they show in their first day' }),
    clockOffsetMs: z.number().min(-8.64e15).max(8.64e15).openapi({ description: 'Server time less the own clock' }),
    storage: z.object({ usedBytes: bytes, limitBytes: bytes }).nullable(),
    bytesPerSecond: bytes
      .nullish()
      .openapi({ description: 'How fast the last file that says something came; null before one did' }),
    kinds: z
      .array(z.enum(['image', 'video', 'sound']))
      .max(3)
      .optional()
      .openapi({ description: 'The kinds of files that it can play; absent: all of them' }),
    codecs: z
      .array(lineSchema('A codec', 20))
      .max(20)
      .optional()
      .openapi({
        description: 'The video codecs that it can play: h264, hevc, vp8, vp9, av1; absent: it doesn’t know',
        example: ['h264', 'vp9'],
      }),
    errors: z.array(z.object({ at: instant, message: lineSchema('A message', 300) })).max(20),
    can: z
      .array(lineSchema('An ability', 40))
      .max(40)
      .optional()
      .openapi({ description: 'What its device can do besides playing', example: ['volume', 'restart'] }),
    hardware: z
      .object({
        temperature: z.number().min(-300).max(1000).optional(),
        memory: bytes.optional(),
        load: z.number().min(0).max(1e6).optional(),
        blank: z.boolean().optional().openapi({ description: 'Black and silent, because a person said so' }),
        display: z.enum(['on', 'off']).optional().openapi({ description: 'Whether the display is switched on' }),
        serial: lineSchema('A serial number', 80).optional(),
        firmware: lineSchema('Firmware', 80).optional(),
        input: lineSchema('An input', 60)
          .optional()
          .openapi({ description: 'The id of the input that the display shows; `player`: its own' }),
        volume: z.number().min(0).max(100).optional(),
        brightness: z.number().min(0).max(100).optional(),
        degrees: z.number().min(0).max(360).optional(),
        edges: z.number().min(0).max(50).optional().openapi({
          description:
            'How much smaller everything is drawn for a display that cuts its edges off: percent of the side that is cut most',
        }),
      })
      .optional(),
    software: lineSchema('Software', 120),
    life: lineSchema('A life', 40).optional().openapi({
      description: 'Made at each start, so that two players with one token can be told apart',
    }),
  })
  .openapi('Report');

export const outcomesSchema = z
  .object({
    outcomes: z
      .array(
        z.object({
          id: z.guid('A command’s id is a UUID.'),
          state: z.enum(['received', 'done', 'failed']),
          said: lineSchema('A reason', 300).optional().openapi({ description: 'Why it failed, for people' }),
        }),
      )
      .max(200),
  })
  .openapi('Outcomes');

export const pressesSchema = z
  .object({
    firings: z
      .array(
        z.object({
          id: z.guid('A press’s id is a UUID.').openapi({ description: 'Made by the player: told twice it is one' }),
          cue: id,
          at: instant.openapi({ description: 'When it was pressed, by the server’s clock' }),
          end: z.boolean().optional(),
          touched: z
            .object({ layout: id, zone: id })
            .optional()
            .openapi({ description: 'The zone that was touched; absent for a number key' }),
        }),
      )
      .max(100),
  })
  .openapi('Presses');

/** A picture of the glass comes as it is: its bytes are the body. */
export const glimpseQuery = z.object({
  at: z.coerce
    .number()
    .pipe(instant)
    .openapi({ param: { name: 'at', in: 'query' }, description: 'When it was taken, by the server’s clock' }),
  program: sha256.optional().openapi({
    param: { name: 'program', in: 'query' },
    description:
      'The program that played. Left out if something else is seen over it, such as the screen’s name: then the picture isn’t compared',
  }),
});

export type Pairing = z.infer<typeof pairingSchema>;
export type Target = z.infer<typeof targetSchema>;
/** A cue that was fired at a screen. */
export type Press = z.infer<typeof pressesSchema>['firings'][number];
export type Report = z.infer<typeof reportSchema>;

export const shaParameter = z.object({ sha256: sha256.openapi({ param: { name: 'sha256', in: 'path' } }) });
