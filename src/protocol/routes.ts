import { createRoute, z } from '@hono/zod-openapi';
import {
  enrolSchema,
  glimpseQuery,
  pairingSchema,
  problemSchema,
  outcomesSchema,
  pressesSchema,
  reportSchema,
  shaParameter,
  targetSchema,
  tokenErrorSchema,
  tokenRequestSchema,
  tokenSchema,
} from './schemas';

/** The protocol's requests and answers: from these come the checks, and the OpenAPI description. */

const json = <T extends z.ZodType>(schema: T, description: string) => ({
  description,
  content: { 'application/json': { schema } },
});
const refusal = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: problemSchema } },
});
const security = [{ player: [] }];

export const routes = {
  pair: createRoute({
    method: 'post',
    path: '/pairing',
    summary: 'Ask for a code to show (RFC 8628 section 3.1), or wait for a screen with an enrolment key',
    request: { body: { content: { 'application/json': { schema: enrolSchema } } } },
    responses: {
      200: json(pairingSchema, 'A code'),
      403: refusal('The enrolment key is unknown, over, or used up: ask again without it'),
      422: refusal('Malformed'),
      429: refusal('Too many requests from this address'),
    },
  }),
  token: createRoute({
    method: 'post',
    path: '/pairing/token',
    summary: 'Collect the token once the code was typed (RFC 8628 section 3.4)',
    request: { body: { required: true, content: { 'application/json': { schema: tokenRequestSchema } } } },
    responses: {
      200: json(tokenSchema, 'The token. Each call until the code is over gives a new one in place of the last'),
      400: json(tokenErrorSchema, 'Not typed yet, or over'),
      422: refusal('Malformed'),
    },
  }),
  target: createRoute({
    method: 'get',
    path: '/target',
    security,
    summary: 'What to play: the newest program. With If-None-Match, 304 while it is the same',
    responses: {
      200: json(targetSchema, 'The target'),
      304: { description: 'The same as before' },
      401: refusal('Unknown token'),
    },
  }),
  program: createRoute({
    method: 'get',
    path: '/programs/{sha256}',
    security,
    summary: 'A program by the SHA-256 of its RFC 8785 canonical form, which is what is sent',
    request: { params: shaParameter },
    responses: {
      200: json(z.object({}).openapi('Program', { description: 'docs/player-protocol.md' }), 'The program'),
      401: refusal('Unknown token'),
      404: refusal('No such program'),
      422: refusal('No SHA-256'),
    },
  }),
  asset: createRoute({
    method: 'get',
    path: '/assets/{sha256}',
    security,
    summary: 'A file by its SHA-256; one byte range at a time (RFC 9110 section 14)',
    request: { params: shaParameter },
    responses: {
      200: { description: 'The file' },
      206: { description: 'A part of it' },
      304: { description: 'The same as before' },
      401: refusal('Unknown token'),
      404: refusal('No such file'),
      416: refusal('Outside the file'),
      422: refusal('No SHA-256'),
      503: refusal('The stored copy is damaged or lost: keep what you have, and ask again later'),
    },
  }),
  heartbeat: createRoute({
    method: 'post',
    path: '/heartbeat',
    security,
    summary: 'Report, every 15 s and when something changes',
    request: { body: { required: true, content: { 'application/json': { schema: reportSchema } } } },
    responses: {
      200: json(targetSchema, 'The target, as of now'),
      401: refusal('Unknown token'),
      422: refusal('Malformed'),
    },
  }),
  outcomes: createRoute({
    method: 'post',
    path: '/commands',
    security,
    summary: 'How commands of the target went: received at once, done or failed at the end',
    request: { body: { required: true, content: { 'application/json': { schema: outcomesSchema } } } },
    responses: {
      204: { description: 'Noted; what was noted before stays as it is' },
      401: refusal('Unknown token'),
      422: refusal('Malformed'),
    },
  }),
  firings: createRoute({
    method: 'post',
    path: '/firings',
    security,
    summary: 'Cues that were fired at the screen: by a number key, or by touch',
    request: { body: { required: true, content: { 'application/json': { schema: pressesSchema } } } },
    responses: {
      204: { description: 'Noted, or passed over where the plan doesn’t know it: don’t tell it again' },
      401: refusal('Unknown token'),
      422: refusal('Malformed'),
    },
  }),
  glimpse: createRoute({
    method: 'post',
    path: '/glimpses',
    security,
    summary: 'A picture of what the screen shows, as JPEG, PNG or WebP of at most 1 MB',
    request: {
      query: glimpseQuery,
      body: {
        required: true,
        content: { 'image/jpeg': { schema: z.any().openapi({ format: 'binary', type: 'string' }) } },
      },
    },
    responses: {
      204: { description: 'Stored' },
      401: refusal('Unknown token'),
      403: refusal('The screen is private'),
      422: refusal('Not a picture'),
      429: refusal('Too many pictures at once'),
    },
  }),
  events: createRoute({
    method: 'get',
    path: '/events',
    security,
    summary:
      'Server-sent events: target (a Target, at once and at every change), hurry, unpaired. Any may come twice or late',
    responses: { 200: { description: 'text/event-stream' }, 401: refusal('Unknown token') },
  }),
};
