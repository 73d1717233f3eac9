import pino from 'pino';

/** Structured lines on standard error: one an event, with what is needed to find its cause. */
export const logger = pino(
  { level: process.env.LANTERNPOST_LOG ?? 'info', base: null, serializers: { error: pino.stdSerializers.err } },
  pino.destination(2),
);
