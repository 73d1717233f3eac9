import { dsvFormat } from 'd3-dsv';
import {
  changed,
  nameSchema,
  screenSchema,
  siteSchema,
  tagsOf,
  type LoosePatch,
  type Plan,
  type Screen,
  type Site,
} from '../../plan';
import { searchable } from '../../text';

/** Screens as a spreadsheet has them: one a line, also as the table of screens writes them. */

/** What a line comes to. */
export interface ScreenLine {
  /** Its number in the file, from 1 on, with the header. */
  readonly line: number;
  readonly name: string;
  readonly site: string;
  /** `same`: nothing of it differs. */
  readonly what: 'new' | 'changed' | 'same';
  /** What is wrong with it; null for nothing. */
  readonly problem: string | null;
}

export interface ReadScreens {
  readonly lines: readonly ScreenLine[];
  /** Names of sites that are made. */
  readonly newSites: readonly string[];
  /** All of it at once, or with a problem in any line nothing. */
  readonly patches: readonly LoosePatch[];
  /** What is wrong with the file as a whole; null for nothing. */
  readonly problem: string | null;
}

/** The columns, by what people call them. */
const COLUMNS = {
  id: ['id'],
  name: ['screen', 'name'],
  site: ['site'],
  zone: ['time zone', 'timezone', 'zone'],
  size: ['size'],
  width: ['width'],
  height: ['height'],
  tags: ['tags', 'tag'],
  profile: ['profile'],
  notes: ['notes', 'note'],
} as const;
type Column = keyof typeof COLUMNS;
type Cells = Readonly<Record<Column, string>>;

/** All of a file is saved in one step, or nothing of it: so many screens fit into one. */
const MOST = 3000;

/**
 * Reads screens from CSV, with commas, semicolons or tabs. A screen is found by its id, else by its site and name; one that isn't found is new. An empty
 * cell leaves a value as it is. A site that there isn't yet is made, if the line has a time zone.
 */
export function readScreens(text: string, plan: Plan): ReadScreens {
  const nothing = { lines: [], newSites: [], patches: [] };
  const [header = [], ...rows] = dsvFormat(separatorOf(text)).parseRows(text.replace(/^\ufeff/, ''));
  const columns = new Map<Column, number>();
  header.forEach((title, i) => {
    const found = Object.entries(COLUMNS).find(([, names]) => (names as readonly string[]).includes(searchable(title)));
    if (found && !columns.has(found[0] as Column)) columns.set(found[0] as Column, i);
  });
  if (!columns.has('id') && !(columns.has('name') && columns.has('site')))
    return {
      ...nothing,
      problem:
        'The first line has to name the columns: Screen and Site, or Id. Also known: Size, Tags, Profile, Notes, Time zone.',
    };
  if (rows.length > MOST)
    return {
      ...nothing,
      problem: `A list may have ${MOST.toLocaleString('en')} screens at most. Split it into several.`,
    };
  const reader = new Reader(plan);
  const lines = rows.flatMap((row, i): ScreenLine[] => {
    if (row.every((cell) => cell.trim() === '')) return [];
    const cells = Object.fromEntries(
      Object.keys(COLUMNS).map((column) => [column, plain(row[columns.get(column as Column) ?? -1] ?? '')]),
    ) as unknown as Cells;
    return [reader.read(cells, i + 2)];
  });
  const isGood = lines.every(({ problem }) => problem === null);
  return {
    lines,
    newSites: reader.newSites,
    patches: isGood ? reader.patches : [],
    problem: lines.length === 0 ? 'There is no screen in this.' : null,
  };
}

/** The separator that the first line has most of. */
function separatorOf(text: string): string {
  const [first = ''] = text.split('\n', 1);
  const count = (separator: string) => first.split(separator).length;
  return [';', '\t'].find((one) => count(one) > count(',')) ?? ',';
}

/** A cell without the apostrophe that keeps spreadsheets from running it as a formula. */
const plain = (cell: string) => cell.trim().replace(/^'(?=[=+\-@])/, '');

class Reader {
  readonly patches: LoosePatch[] = [];
  readonly newSites: string[] = [];
  private readonly sites: Map<string, Site>;
  private readonly seen = new Set<string>();

  constructor(private readonly plan: Plan) {
    this.sites = new Map(plan.sites.map((site) => [searchable(site.name), site]));
  }

  read(cells: Cells, line: number): ScreenLine {
    const known = this.find(cells);
    const siteOfKnown = known && this.plan.sites.find(({ id }) => id === known.site);
    const name = cells.name || (known?.name ?? '');
    const told = { line, name, site: cells.site || (siteOfKnown?.name ?? '') };
    const wrong = (problem: string): ScreenLine => ({ ...told, what: known ? 'changed' : 'new', problem });
    if (cells.id && !known)
      return wrong(`There is no screen with the id “${cells.id}”. Leave the id empty to add one.`);
    const checked = nameSchema.safeParse(name);
    if (!checked.success)
      return wrong(name === '' ? 'Write the screen’s name.' : (checked.error.issues[0]?.message ?? ''));
    const key = known ? known.id : `${searchable(told.site)} ${searchable(name)}`;
    if (this.seen.has(key)) return wrong('This screen is in the file twice.');
    this.seen.add(key);
    const site = cells.site ? this.siteOf(cells) : siteOfKnown;
    if (typeof site === 'string') return wrong(site);
    if (!site) return wrong('Write the site that it is at.');
    const size = sizeOf(cells, known);
    if (typeof size === 'string') return wrong(size);
    const profile = cells.profile
      ? this.plan.profiles.find((one) => searchable(one.name) === searchable(cells.profile))
      : undefined;
    if (cells.profile && !profile)
      return wrong(`There is no profile “${cells.profile}”. Choose one from Profiles, or leave it empty.`);
    const tags = cells.tags ? tagsIn(cells.tags, site) : undefined;
    const tagsRead = screenSchema.shape.tags.safeParse(tags);
    if (!tagsRead.success) return wrong(tagsRead.error.issues[0]?.message ?? 'These tags can’t be read.');
    const notes = screenSchema.shape.notes.safeParse(cells.notes || undefined);
    if (!notes.success) return wrong(notes.error.issues[0]?.message ?? 'These notes can’t be read.');
    const values: Partial<Screen> = {
      ...{ name, site: site.id, ...size },
      ...(tags ? { tags } : {}),
      ...(profile ? { profile: profile.id } : {}),
      ...(notes.data ? { notes: notes.data } : {}),
    };
    if (!known) {
      this.patches.push({ kind: 'screen', add: { width: 1920, height: 1080, ...values } } as LoosePatch);
      return { ...told, what: 'new', problem: null };
    }
    const patches = changed('screen', known, values) as LoosePatch[];
    this.patches.push(...patches);
    return { ...told, what: patches.length > 0 ? 'changed' : 'same', problem: null };
  }

  private find({ id, name, site }: Cells): Screen | undefined {
    const { screens, sites } = this.plan;
    if (id) return screens.find((screen) => screen.id === id);
    const at = sites.find((one) => searchable(one.name) === searchable(site));
    return at && screens.find((screen) => screen.site === at.id && searchable(screen.name) === searchable(name));
  }

  /** The site of a line, made if it is new; or what is wrong. */
  private siteOf({ site: name, zone }: Cells): Site | string {
    const known = this.sites.get(searchable(name));
    if (known) return known;
    if (zone === '') return `“${name}” is a new site. Write its time zone in a column “Time zone”, like Europe/Oslo.`;
    const timeZone = siteSchema.shape.timeZone.safeParse(zone);
    if (!timeZone.success)
      return timeZone.error.issues[0]?.message ?? `“${zone}” isn’t a time zone. Write it like Europe/Oslo.`;
    const checked = nameSchema.safeParse(name);
    if (!checked.success) return checked.error.issues[0]?.message ?? '';
    const id = idOf(name, new Set([...this.sites.values()].map((one) => one.id)));
    const made: Site = { id, name, timeZone: timeZone.data };
    this.sites.set(searchable(name), made);
    this.newSites.push(name);
    this.patches.push({ kind: 'site', id, add: { name, timeZone: timeZone.data } } as LoosePatch);
    return made;
  }
}

/** Tags of the screen's own: those that its site has already are left out. */
function tagsIn(text: string, { tags: ofSite = [] }: Site): string[] {
  return tagsOf(text).filter((tag) => !ofSite.includes(tag));
}

/** An id for a new site, from its name; with a number where that is taken. */
function idOf(name: string, taken: ReadonlySet<string>): string {
  const plain =
    searchable(name)
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 60) || 'site';
  if (!taken.has(plain)) return plain;
  for (let n = 2; ; n++) if (!taken.has(`${plain}-${n}`)) return `${plain}-${n}`;
}

const SIZE = 'Write the size as width × height in pixels, like 1920 × 1080.';

function sizeOf(
  { size, width, height }: Cells,
  known: Screen | undefined,
): { width?: number; height?: number } | string {
  const [, w, h] = /^(\d+)\s*[x×*]\s*(\d+)$/i.exec(size) ?? [];
  if (size !== '' && w === undefined) return SIZE;
  const given = { width: w ?? width, height: h ?? height };
  if (given.width === '' && given.height === '') return {};
  if (!known && (given.width === '' || given.height === '')) return SIZE;
  const read = (text: string) => (text === '' ? undefined : Number(text));
  const numbers = { width: read(given.width), height: read(given.height) };
  for (const value of Object.values(numbers))
    if (value !== undefined && !screenSchema.shape.width.safeParse(value).success) return SIZE;
  return Object.fromEntries(Object.entries(numbers).filter(([, value]) => value !== undefined));
}
