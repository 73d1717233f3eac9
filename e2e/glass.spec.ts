import type { BrowserContext, Page } from '@playwright/test';
import { forecast, screenProgram } from '@/core/forecast';
import type { Item } from '@/core/plan';
import { film, loudFilm } from './support/files';
import { draft, ternholm } from './support/plan';
import { server, signIn } from './support/session';
import { expect, test } from './support/test';

/**
 * Two real browsers of different shapes as players of one playlist with every transition: no blank frame, each picture as forecast, in step,
 * and sound where it is asked for and nowhere else. GLASS_SECONDS=300 plays for five minutes. `npm test` runs it when all others are through.
 */
test.describe.configure({ mode: 'serial' });

const SECONDS = Number(process.env.GLASS_SECONDS ?? 30);
const SCREENS = { 'glass-wide': { width: 960, height: 540 }, 'glass-tall': { width: 400, height: 720 } };
type Name = keyof typeof SCREENS;
const NAMES = Object.keys(SCREENS) as Name[];

/** What a player's page reports of one of its frames. */
interface Frame {
  readonly at: number;
  readonly media: string;
  /** Whether something that is drawn covers the stage. */
  readonly covered: boolean;
  /** Layers that are seen: two in a transition. */
  readonly layers: number;
}
/** A piece of music, from when to when, in seconds of the sound card's clock. */
interface Cue {
  readonly begins: number;
  readonly ends: number;
  /** Whether it was begun before its time, to follow another. */
  readonly isAhead: boolean;
}
/** A film or music that plays, where it may be heard. */
interface Heard {
  readonly at: number;
  readonly tag: string;
  readonly volume: number;
}

// A page may sound without being touched, as on a player that is set up for it.
test.use({
  launchOptions: {
    executablePath: '/usr/bin/chromium',
    args: [
      ...['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking'],
      ...['--disable-component-update', '--disable-sync', '--autoplay-policy=no-user-gesture-required'],
    ],
  },
});

const contexts: BrowserContext[] = [];
const players = new Map<Name, Page>();
test.afterAll(() => Promise.all(contexts.map((one) => one.close())));

const ITEMS: Item[] = [
  { media: 'line-flag', durationMs: 2_000, transition: { kind: 'fade', ms: 600 }, fit: 'fill' },
  { media: 'horn', clip: [0, 3_000], transition: { kind: 'slide', ms: 500 }, volume: 0.5 },
  { media: 'route-map', durationMs: 2_000, transition: { kind: 'wipe', ms: 700 } },
  { media: 'buoy', clip: [500, 2_500], transition: { kind: 'fade', ms: 1_000 } },
  { media: 'gangway-rail', durationMs: 2_000, fit: 'stretch' },
  { media: 'horn', clip: [1_000, 3_000], fit: 'exact' },
  { media: 'wall-lanes', durationMs: 2_000, transition: { kind: 'slide', ms: 1_000 }, fit: 'exact' },
  { media: 'buoy', clip: [0, 2_000], transition: { kind: 'wipe', ms: 300 }, fit: 'fill' },
  { media: 'weather-outlook', durationMs: 2_000, transition: { kind: 'fade', ms: 1_000 } },
  { media: 'line-flag', durationMs: 1_000, transition: { kind: 'fade', ms: 5_000 } },
];

test('two players of different shapes are paired, and a playlist with all transitions goes out to them', async ({
  browser,
  page,
}) => {
  const actor = await ternholm();
  await signIn(page, '/library');
  await page.locator('[data-testid="files"]').setInputFiles([film(), loudFilm()]);
  await expect(page.locator('[data-media="horn"]')).toContainText('0:04');
  await expect(page.locator('[data-media="buoy"]')).toContainText('0:04');
  const { edit, lastChange } = await import('@/services/plan');
  const { publishEdition } = await import('@/services/editions');
  const { pairScreen } = await import('@/services/screens');
  await edit(actor, [
    ...NAMES.map((id) => ({
      ...{ kind: 'screen' as const, id },
      add: { name: id, site: 'sillarvik', ...SCREENS[id], tags: ['glass'] },
    })),
    {
      ...{ kind: 'playlist' as const, id: 'all-looks' },
      add: { name: 'All looks', items: ITEMS, music: { playlist: 'harbour-sounds', volume: 0.25 } },
    },
    {
      ...{ kind: 'booking' as const, id: 'glass' },
      add: {
        ...{ name: 'Glass', content: { playlist: 'all-looks' }, where: 'glass', takeover: true, wake: true },
        ...{ created: new Date().toISOString(), when: {} },
      },
    },
  ]);
  for (const name of NAMES) {
    const context = await browser.newContext({ viewport: SCREENS[name] });
    contexts.push(context);
    const player = await context.newPage();
    players.set(name, player);
    await player.addInitScript(watch);
    await player.goto(server('/player'));
    await expect(player.locator('#code')).toHaveText(/-/);
    await pairScreen(actor, name, await player.locator('#code').innerText(), '127.0.0.1');
  }
  await publishEdition(actor, await lastChange(actor.networkId));
  for (const player of players.values()) await expect(player.locator('#stage')).toHaveAttribute('data-media', /./);
});

test('each frame shows what is due, none is blank, both are in step, and sound is where it is asked for', async () => {
  test.setTimeout(SECONDS * 1000 + 60_000);
  const plan = await draft();
  const from = Date.now() + 1_000;
  const to = from + SECONDS * 1000;
  await expect.poll(() => Date.now(), { timeout: SECONDS * 1000 + 10_000, intervals: [500] }).toBeGreaterThan(to);
  const switches = new Map<Name, Map<number, Switch>>();
  for (const name of NAMES) {
    const player = players.get(name) as Page;
    const { frames, heard, cues } = await player.evaluate(() => (window as unknown as Watched).watched);
    const seen = frames.filter(({ at }) => at >= from && at < to);
    expect(seen.length).toBeGreaterThan(SECONDS * 5);
    expect(seen.filter(({ covered }) => !covered)).toEqual([]);
    expect(seen.some(({ layers }) => layers === 2)).toBe(true);
    expect(Math.max(...seen.map(({ layers }) => layers))).toBe(2);

    const { plays } = forecast(screenProgram(plan, name), from - 10_000, to, { plays: true });
    const due = (at: number) => plays.find((play) => play.from <= at && at < play.to)?.media;
    // Whatever the machine does, it is what is due or what was due just before: late it may be, wrong never.
    const around = (at: number) => {
      const i = plays.findIndex((play) => play.from <= at && at < play.to);
      return [plays[i - 1]?.media, plays[i]?.media];
    };
    const early = (at: number) => around(at + NEAR_MS).concat(around(at));
    expect(seen.filter(({ at, media }) => !early(at).includes(media))).toEqual([]);
    const late = seen.filter(({ at, media }) => ![due(at), due(at - LATE_MS), due(at + LATE_MS)].includes(media));
    expect(late.length).toBeLessThanOrEqual(seen.length * LATE_SHARE);
    const changes = new Map<number, Switch>();
    for (const play of plays.filter((one) => one.from > from && one.from < to - 1_000)) {
      const first = seen.find(({ at, media }) => at >= play.from - NEAR_MS && media === play.media);
      const near = seen.filter(({ at }) => at >= play.from - NEAR_MS && at <= (first?.at ?? NaN));
      const stoodMs = Math.max(0, ...near.map(({ at }, i) => at - (near[i - 1]?.at ?? play.from - NEAR_MS)));
      changes.set(play.from, { at: first?.at ?? NaN, stoodMs });
    }
    switches.set(name, changes);

    // A film sounds in its own turn where it is asked to, and the music beside all of it.
    const loud = heard.filter(({ at }) => at >= from && at < to);
    const films = loud.filter(({ tag }) => tag === 'VIDEO');
    const asked = plays.filter(({ item }) => (ITEMS[item]?.volume ?? 0) > 0);
    expect(films.length).toBeGreaterThan(0);
    expect(new Set(films.map(({ volume }) => volume))).toEqual(new Set([0.5]));
    const out = films.filter(({ at }) => !asked.some((play) => play.from - LATE_MS <= at && at < play.to + LATE_MS));
    expect(out.length).toBeLessThanOrEqual(films.length * LATE_SHARE);
    const music = loud.filter(({ tag }) => tag === 'MUSIC');
    expect(music.length).toBeGreaterThan(seen.length * 0.9);
    expect(new Set(music.map(({ volume }) => Number(volume.toFixed(3))))).toEqual(new Set([0.25]));
    // Each sound that was begun ahead begins where the one before ends, to a sample, by the sound card's own clock.
    const joins = cues.flatMap(({ begins, isAhead }, i) =>
      isAhead ? Math.abs(begins - (cues[i - 1]?.ends ?? NaN)) : [],
    );
    expect(joins.length).toBeGreaterThanOrEqual(Math.floor(SECONDS / 40));
    expect(joins.filter((apart) => !(apart < 1 / 48_000))).toEqual([]);
  }
  const [wide, tall] = NAMES.map((name) => switches.get(name) as Map<number, Switch>);
  // So long as the machine gave one of the pages no frame, nothing is told of being in step: only the rest counts.
  const apart = [...(wide ?? [])].map(([due, one]) => {
    const other = tall?.get(due);
    return Math.abs(one.at - (other?.at ?? NaN)) - Math.max(one.stoodMs, other?.stoodMs ?? NaN);
  });
  expect(apart.length).toBeGreaterThan(10);
  const outOfStep = apart.filter((ms) => !(ms < NEAR_MS));
  expect(outOfStep.length).toBeLessThanOrEqual(apart.length / 4);
});

/** So long a machine without a graphics processor may be late; on a quiet one five minutes passed with 100. */
const LATE_MS = 250;
/** So much of the frames may be later still, where the machine stood still: 5 %. */
const LATE_SHARE = 0.05;
/** Two pictures that are within so long of each other are seen as one change. */
const NEAR_MS = 100;

/** The first frame that showed something new, and the longest time without a frame around the instant it was due. */
interface Switch {
  at: number;
  stoodMs: number;
}

interface Watched {
  watched: { frames: Frame[]; heard: Heard[]; cues: Cue[] };
}

/** Writes down, in a player's page, what each frame shows and what is heard. */
function watch(): void {
  const frames: Frame[] = [];
  const heard: Heard[] = [];
  const cues: Cue[] = [];
  Object.assign(window, { watched: { frames, heard, cues } });
  const playing = new Set<HTMLMediaElement>();
  const own = HTMLMediaElement.prototype.play;
  HTMLMediaElement.prototype.play = function () {
    playing.add(this);
    return own.call(this);
  };
  const { start, connect } = AudioBufferSourceNode.prototype;
  const gains = new Map<AudioNode, GainNode>();
  Object.assign(AudioBufferSourceNode.prototype, {
    connect(this: AudioBufferSourceNode, to: GainNode) {
      gains.set(this, to);
      return connect.call(this, to as unknown as AudioParam) as unknown as AudioNode;
    },
  });
  AudioBufferSourceNode.prototype.start = function (begins = 0, from = 0) {
    const ends = begins + ((this.buffer?.duration ?? 0) - from) / this.playbackRate.value;
    const { context } = this;
    const cue = { begins, ends, isAhead: begins > context.currentTime };
    cues.push(cue);
    playingCues.push({ ...cue, now: () => context.currentTime, volume: gains.get(this)?.gain.value ?? 0 });
    start.call(this, begins, from);
  };
  const playingCues: (Cue & { now: () => number; volume: number })[] = [];
  const drawn = (layer: HTMLElement) =>
    !layer.hidden &&
    (layer instanceof HTMLVideoElement
      ? layer.readyState >= HTMLMediaElement.HAVE_CURRENT_DATA
      : (layer as HTMLImageElement).complete && (layer as HTMLImageElement).naturalWidth > 0);
  const look = () => {
    requestAnimationFrame(look);
    const stage = document.getElementById('stage');
    if (!stage) return;
    const at = Date.now();
    const media = stage.dataset.media ?? '';
    const layers = [...stage.children].filter((one): one is HTMLElement => drawn(one as HTMLElement));
    const box = stage.getBoundingClientRect();
    // One that moves, fades or is uncovered leaves the other below it: one of them has to stand still and cover all.
    const covers = (layer: HTMLElement) => {
      const { left, top, right, bottom } = layer.getBoundingClientRect();
      const { opacity, clipPath } = getComputedStyle(layer);
      const whole = left <= 0.5 && top <= 0.5 && right >= box.width - 0.5 && bottom >= box.height - 0.5;
      return whole && opacity === '1' && (clipPath === 'none' || clipPath === 'inset(0px)');
    };
    const slides = layers.length === 2 && layers.some((one) => getComputedStyle(one).translate !== 'none');
    frames.push({ at, media, covered: slides || layers.some(covers), layers: layers.length });
    for (const element of playing) {
      if (element.paused || element.muted || element.volume === 0) continue;
      heard.push({ at, tag: element.tagName, volume: element.volume });
    }
    for (const { begins, ends, now, volume } of playingCues)
      if (begins <= now() && now() < ends) heard.push({ at, tag: 'MUSIC', volume });
  };
  look();
}
