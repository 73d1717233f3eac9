import { timingSafeEqual } from 'node:crypto';
import { Hono } from 'hono';
import { bodyLimit } from 'hono/body-limit';
import * as z from 'zod';
import type { BridgeAbility, BridgeState } from '@/protocol/bridge';
import type { LinuxDevice } from './device';
import { wayThere, type Ways } from './way-there';

const LOOK_AGAIN_MS = 60_000;

const percent = z.int().min(0).max(100);
const orderSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('volume'), percent }),
  z.strictObject({ kind: z.literal('brightness'), percent }),
  z.strictObject({
    kind: z.literal('turn'),
    degrees: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
  }),
  z.strictObject({ kind: z.literal('power'), isOn: z.boolean() }),
  z.strictObject({ kind: z.literal('input'), input: z.string().max(60) }),
  z.strictObject({ kind: z.literal('restart') }),
]);

/**
 * The bridge between a player's page and its device, over loopback. Only the page of `origin` that knows `token` is heard: any program, and any page
 * that the browser has open, may try this port.
 */
export function createBridge(
  device: Pick<
    LinuxDevice,
    'look' | 'measure' | 'volume' | 'brightness' | 'turn' | 'input' | 'power' | 'restart' | 'picture'
  >,
  {
    token,
    origin,
    now = Date.now,
    ways,
  }: { readonly token: string; readonly origin: string; readonly now?: () => number; readonly ways?: Ways },
): Hono {
  const bridge = new Hono();
  let looked = -Infinity;
  let can: ReadonlySet<BridgeAbility> = new Set();
  const look = async () => {
    if (now() - looked < LOOK_AGAIN_MS) return can;
    looked = now();
    return (can = await device.look());
  };

  bridge.use('*', async (context, next) => {
    // By name it could be a stranger's page that had its own name lead here.
    const { hostname } = new URL(`http://${context.req.header('host') ?? ''}`);
    const from = context.req.header('origin');
    if ((hostname !== '127.0.0.1' && hostname !== 'localhost') || (from !== undefined && from !== origin))
      return context.json({ title: 'This bridge is for the player of its own server.' }, 403);
    if (from !== undefined) {
      context.header('access-control-allow-origin', origin);
      context.header('access-control-allow-headers', 'authorization, content-type');
      context.header('access-control-allow-methods', 'GET, POST');
      context.header('access-control-allow-private-network', 'true');
      context.header('vary', 'origin');
    }
    if (context.req.method === 'OPTIONS') return context.body(null, 204);
    if (!isSame(context.req.header('authorization') ?? '', `Bearer ${token}`))
      return context.json({ title: 'Wrong token. Start the kiosk again: it gives both the same.' }, 401);
    return next();
  });
  bridge.use('*', bodyLimit({ maxSize: 10_000 }));

  bridge.get('/state', async (context) => {
    const state: BridgeState = { can: [...(await look())], measured: await device.measure() };
    return context.json(state);
  });

  // Of its own server alone: what else is in this network can't be found out by it.
  bridge.get('/way', async (context) => context.json(await wayThere(origin, new Date(now()), ways)));

  bridge.get('/picture', async (context) => {
    if (!(await look()).has('picture')) return context.json({ title: 'This device can’t take pictures.' }, 422);
    return context.body(Uint8Array.from(await device.picture()), 200, { 'content-type': 'image/jpeg' });
  });

  bridge.post('/do', async (context) => {
    const read = orderSchema.safeParse(await context.req.json().catch(() => null));
    if (!read.success) return context.json({ title: 'This isn’t an order that a device can carry out.' }, 422);
    const order = read.data;
    if (!(await look()).has(order.kind)) return context.json({ title: `This device can’t do “${order.kind}”.` }, 422);
    switch (order.kind) {
      case 'volume':
        await device.volume(order.percent);
        break;
      case 'brightness':
        await device.brightness(order.percent);
        break;
      case 'turn':
        await device.turn(order.degrees);
        break;
      case 'input':
        await device.input(order.input);
        break;
      case 'power':
        await device.power(order.isOn);
        break;
      case 'restart':
        await device.restart();
    }
    return context.body(null, 204);
  });

  bridge.onError((error, context) => context.json({ title: error.message }, 500));
  return bridge;
}

/** In a time that tells nothing of where the two differ. */
function isSame(given: string, wanted: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(wanted)];
  return a.length === b.length && timingSafeEqual(a, b);
}
