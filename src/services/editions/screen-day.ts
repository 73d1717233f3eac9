import { Refusal } from '@/core/refusal';
import { dateOfLocalTime, toLocalTime, zoneTable, type LocalDate } from '@/core/when';
import { writeSmil } from '@/core/formats/playlists';
import { notFound } from '../errors';
import type { Actor } from '../people';
import { newestEdition } from './frozen';

/** A day of a screen by the newest edition as SMIL 3.0; today, on its site's clock, where none is named. Throws 404 for no screen, or no edition. */
export async function screenDay({ networkId }: Actor, id: string, date: LocalDate | null): Promise<string> {
  const newest = await newestEdition(networkId);
  if (!newest) throw new Refusal(404, 'Nothing has been published yet. Publish first, then ask what a screen shows.');
  const screen = newest.plan.screens.find((one) => one.id === id);
  const site = newest.plan.sites.find((one) => one.id === screen?.site);
  if (!screen || !site) throw notFound('screen');
  return writeSmil(newest.plan, id, date ?? dateOfLocalTime(toLocalTime(zoneTable(site.timeZone), Date.now())));
}
