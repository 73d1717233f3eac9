import { readFileSync } from 'node:fs';
import { planFile, readPlan, type Plan } from '@/core/plan';
import { orThrow } from '@/core/refusal';
import { database, migrate, rows } from '@/database';
import { editions, publishedPlan } from '../editions';
import { libraryFile } from '../library';
import { actorIn, people } from '../people';
import { screenStatuses } from '../screens';
import { useDatabase } from '../tests/database';
import { docket } from '../editions';
import { draftPlan, edit, undo } from '.';

useDatabase();

/** What the tables before held, as they held it; the same plan stands in core/plan/fixtures as an edition of that time. */
const BEFORE = JSON.parse(readFileSync(`${__dirname}/../../core/plan/fixtures/format-1.json`, 'utf8')) as {
  plan: Plan;
};

const id = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const [NETWORK, PERSON, FLAG, HOUSE, OFFERS, SITE, SCREEN, EDITION] = Array.from({ length: 8 }, (_, i) => id(i + 1));
const hash = (digit: string) => digit.repeat(64);

async function fillTablesBefore(): Promise<void> {
  const { plan } = BEFORE;
  const [site, screen, file, house, booking] = [
    plan.sites[0],
    plan.screens[0],
    plan.media[0],
    plan.playlists[0],
    plan.bookings[0],
  ];
  const insert = async (table: string, values: Record<string, unknown>) => {
    const columns = Object.keys(values);
    await rows(
      `INSERT INTO ${table} (${columns.map((one) => `"${one}"`).join()}) VALUES (${columns.map((_, i) => `$${i + 1}`).join()})`,
      Object.values(values).map((value) => value ?? null),
    );
  };
  const json = (value: unknown) => JSON.stringify(value);
  await insert('networks', { id: NETWORK, slug: 'line', name: plan.network.name, default_duration_ms: 10_000 });
  await insert('people', { id: PERSON, network_id: NETWORK, email: 'ida@x.example', name: 'Ida', password_hash: '-' });
  for (const digit of ['a', 'b', 'c']) await insert('files', { sha256: hash(digit), bytes: 10, type: 'image/png' });
  const calendar = plan.calendars[0];
  await insert('calendars', {
    ...{ id: id(20), network_id: NETWORK, slug: calendar?.id, name: calendar?.name },
    ...{ dates: json(calendar?.dates), holidays: json(calendar?.holidays) },
  });
  await insert('media', {
    ...{
      id: FLAG,
      network_id: NETWORK,
      slug: 'line-flag',
      name: 'House flag',
      kind: 'image',
      width: 3840,
      height: 2160,
    },
    ...{ bytes: file?.bytes, tags: ['brand'], when: json(file?.when), added: file?.added, type: 'image/png' },
    ...{ original_sha256: hash('b'), asset_sha256: hash('a'), thumbnail_sha256: hash('c'), codec: 'png' },
  });
  await insert('playlists', { id: HOUSE, network_id: NETWORK, slug: 'house', name: 'House loop' });
  await insert('playlists', { id: OFFERS, network_id: NETWORK, slug: 'offers', name: 'Offers' });
  for (const [position, item] of (house?.items ?? []).entries())
    await insert('playlist_items', {
      ...{ network_id: NETWORK, playlist_id: HOUSE, position },
      ...{ media_id: item.media && FLAG, nested_id: item.playlist && OFFERS, collect: item.collect },
      ...(item.collect === undefined ? {} : { order: item.order, limit: item.limit }),
      ...{ duration_ms: item.durationMs, selector: item.where, when: item.when && json(item.when) },
    });
  await insert('sites', {
    ...{ id: SITE, network_id: NETWORK, slug: 'sillarvik', name: site?.name, time_zone: site?.timeZone },
    ...{ tags: site?.tags, latitude: 62.1, longitude: 5.4, hours: json(site?.hours) },
    ...{ backdrop_media_id: FLAG, backdrop_duration_ms: 12_000 },
  });
  await insert('screens', {
    ...{ id: SCREEN, network_id: NETWORK, site_id: SITE, slug: 'sillarvik-hall', name: screen?.name },
    ...{ width: 1920, height: 1080, tags: screen?.tags, lights_out: json(screen?.lightsOut) },
    ...{ backdrop_media_id: FLAG, backdrop_duration_ms: 15_000 },
  });
  await insert('bookings', {
    ...{ id: id(21), network_id: NETWORK, slug: 'gale', name: booking?.name, media_id: FLAG, duration_ms: 20_000 },
    ...{ selector: booking?.where, priority: 5, takeover: true, wake: true, on_hold: true },
    ...{ created: booking?.created, when: json(booking?.when) },
  });
  await rows('UPDATE networks SET backdrop_playlist_id = $1', [HOUSE]);
  const change = (kind: string, object: string, before: unknown, after: unknown) =>
    insert('changes', {
      ...{ network_id: NETWORK, person_id: PERSON, kind, object, before: before && json(before), after: json(after) },
      ...{ act: id(40) },
    });
  await change('screen', 'sillarvik-hall', { ...screen, name: 'Hall' }, screen);
  await change('playlist', 'house', { ...house, items: house?.items.slice(0, 2) }, house);
  await insert('programs', { hash: hash('f'), document: '{}' });
  await insert('editions', {
    ...{ id: EDITION, network_id: NETWORK, number: 1, person_id: PERSON, last_change: 2, plan: json(plan) },
  });
  await insert('edition_screens', { edition_id: EDITION, screen: 'sillarvik-hall', hash: hash('f') });
  await insert('players', { id: id(30), network_id: NETWORK, screen_id: SCREEN, token_hash: 'x' });
}

test('a network of the tables before comes over whole: plan, files, players, editions, the docket and undo', async () => {
  await rows('DROP SCHEMA public CASCADE');
  await rows('CREATE SCHEMA public');
  expect(await migrate(database(), '0003-acts')).toEqual(['0001-first-lamp', '0002-clockwork', '0003-acts']);
  await fillTablesBefore();
  // All the others, in order.
  const others = await migrate(database());
  expect(others[0]).toBe('0004-plan-objects');
  expect(others.map((name) => Number(name.slice(0, 4)))).toEqual(others.map((_, i) => i + 4));
  expect(await migrate(database())).toEqual([]);

  const actor = actorIn({ networkId: NETWORK ?? '', personId: PERSON ?? '', name: 'Ida', role: 'owner' });
  // Whoever came first could do everything, and still can.
  expect(await people(actor)).toMatchObject([{ name: 'Ida', role: 'owner' }]);
  const { plan } = await draftPlan(actor);
  expect(orThrow(readPlan(planFile(plan)))).toEqual(orThrow(readPlan(BEFORE.plan)));
  expect(await libraryFile(actor, hash('b'))).toMatchObject({ type: 'image/png' });
  expect(await screenStatuses(actor)).toMatchObject([{ id: 'sillarvik-hall', state: 'dark' }]);
  expect((await publishedPlan(actor))?.plan.playlists).toEqual(plan.playlists);
  expect(await editions(actor)).toHaveLength(1);
  expect((await docket(actor)).entries).toEqual([]);
  // Links were read off what was moved: what is used can’t be removed.
  await expect(edit(actor, [{ kind: 'calendar', id: 'storm-days', remove: true }])).rejects.toMatchObject({
    status: 409,
    message: expect.stringContaining('booking “Gale notice”, playlist “House loop”'),
  });
  await expect(edit(actor, [{ kind: 'playlist', id: 'offers', remove: true }])).rejects.toMatchObject({ status: 409 });
  await expect(edit(actor, [{ kind: 'site', id: 'sillarvik', remove: true }])).rejects.toMatchObject({ status: 409 });
  // An act of before is taken back, in today's form.
  expect((await undo(actor, 'undo')).about).toBe('“Departure hall” and 1 more');
  const { plan: back } = await draftPlan(actor);
  expect(back.screens[0]?.name).toBe('Hall');
  expect(back.playlists[0]?.items).toHaveLength(2);
});
