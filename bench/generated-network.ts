import { emptyPlan, type Booking, type Item, type Plan, type Playlist, type Screen, type Site } from '@/core/plan';

/** A steady stream of numbers, 0 to 1, so that every run measures the same network. */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296;
    return state / 4_294_967_296;
  };
}

const ZONES = Intl.supportedValuesOf('timeZone').filter((_, i) => i % 10 === 3);
const KINDS = ['hall', 'gangway', 'deck', 'cafe', 'staff', 'lanes', 'kiosk', 'door'];
const REGIONS = ['north', 'south', 'east', 'west'];
const RULES = [
  'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR',
  'FREQ=WEEKLY;BYDAY=SA,SU',
  'FREQ=DAILY;INTERVAL=2',
  'FREQ=MONTHLY;BYDAY=1MO,3TH',
  'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU',
];

/** A made-up network: `screens` on 200 sites in 40 zones (fewer for few screens), 500 bookings, 300 playlists. */
export function generatedNetwork(screenCount: number): Plan {
  const next = numbers(7);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)] as T;
  const siteCount = Math.min(200, Math.max(2, screenCount / 10));
  const sites = Array.from({ length: siteCount }, (_, i): Site => ({
    id: `site-${i}`,
    name: `Site ${i}`,
    timeZone: ZONES[i % 40] ?? 'UTC',
    tags: [pick(REGIONS), i % 3 === 0 ? 'island' : 'mainland'],
  }));
  const media = Array.from({ length: 400 }, (_, i) => ({
    id: `m${i}`,
    name: `Media ${i}`,
    kind: 'image' as const,
    width: i % 3 === 0 ? 1080 : 1920,
    height: i % 3 === 0 ? 1920 : 1080,
    bytes: 1000,
    tags: [pick(REGIONS)],
    added: '2026-01-01T00:00:00Z',
  }));
  const playlists = Array.from({ length: 300 }, (_, i): Playlist => ({
    id: `p${i}`,
    name: `Playlist ${i}`,
    items: Array.from({ length: 6 }, (_, n): Item => ({
      media: `m${Math.floor(next() * 400)}`,
      durationMs: 8000,
      ...(n > 0 && next() < 0.3 ? { where: pick(KINDS) } : {}),
    })),
  }));
  const screens = Array.from({ length: screenCount }, (_, i): Screen => {
    const portrait = i % 3 === 1;
    return {
      id: `screen-${i}`,
      name: `Screen ${i}`,
      site: `site-${i % siteCount}`,
      width: portrait ? 1080 : 1920,
      height: portrait ? 1920 : 1080,
      tags: [pick(KINDS)],
      lightsOut: i % 4 === 0 ? [{ windows: [['23:30', '04:45']] }] : [],
    };
  });
  const hour = () => String(Math.floor(next() * 23)).padStart(2, '0');
  const bookings = Array.from({ length: 500 }, (_, i): Booking => {
    const begin = `${hour()}:${pick(['00', '15', '30', '45'])}`;
    const end = `${hour()}:${pick(['10', '20', '40', '50'])}`;
    const where = pick([
      `${pick(KINDS)} and ${pick(REGIONS)}`,
      `${pick(KINDS)} and not staff`,
      `(${pick(KINDS)} or ${pick(KINDS)}) and island`,
      `${pick(REGIONS)} and is:portrait and ${pick(KINDS)}`,
    ]);
    return {
      id: `b${i}`,
      name: `Booking ${i}`,
      content: { playlist: `p${i % 300}` },
      where,
      priority: 1 + Math.floor(next() * 5),
      ...(i % 50 === 0 ? { takeover: true, wake: i % 100 === 0 } : {}),
      created: new Date(Date.UTC(2026, 0, 1) + i * 60_000).toISOString(),
      when: {
        from: '2026-01-05',
        repeat: pick(RULES),
        windows: [[begin, end]],
        ...(i % 20 === 0 ? { clock: 'Europe/Oslo' } : {}),
      },
    };
  });
  return {
    ...emptyPlan('Generated'),
    network: { name: 'Generated', backdrop: { playlist: 'p0' } },
    sites,
    screens,
    media,
    playlists,
    bookings,
  };
}
