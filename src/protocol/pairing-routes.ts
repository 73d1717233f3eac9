import type { Context } from 'hono';
import { markOf } from '@/core/enrolment';
import type { PlayerApp, PlayerBackend } from './player-backend';
import { routes } from './routes';

/** From box to lit: a code to show, and the token for it (RFC 8628). */
export function addPairing<P>(
  app: PlayerApp<P>,
  backend: PlayerBackend<P>,
  addressOf: (context: Context) => string,
): void {
  app.openapi(routes.pair, async (context) => {
    const { enrol, was } = context.req.valid('json') ?? {};
    const { deviceCode, userCode, expiresIn, interval, number } = await backend.startPairing(
      ...([addressOf(context), enrol, was] as const),
    );
    return context.json(
      {
        ...{
          device_code: deviceCode,
          user_code: userCode,
          verification_uri: '/screens',
          expires_in: expiresIn,
          interval,
        },
        ...(number === undefined ? {} : { mark: { number, ...markOf(number) } }),
      },
      200,
      { 'cache-control': 'no-store' },
    );
  });

  app.openapi(routes.token, async (context) => {
    const result = await backend.collectToken(context.req.valid('json').device_code);
    if (result === 'pending')
      return context.json(
        { error: 'authorization_pending', error_description: 'The code hasn’t been typed yet.' } as const,
        400,
      );
    if (result === 'expired')
      return context.json(
        { error: 'expired_token', error_description: 'The code has expired. Ask for another.' } as const,
        400,
      );
    return context.json({ access_token: result.token, token_type: 'Bearer' } as const, 200, {
      'cache-control': 'no-store',
    });
  });
}
