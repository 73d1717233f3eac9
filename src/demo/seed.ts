import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { publishEdition } from '@/services/editions';
import { addFile } from '@/services/library';
import { addPerson, type Actor } from '@/services/people';
import { createNetwork, draftPlan, edit, lastChange } from '@/services/plan';
import { seedHistory } from './history';
import { LISTED_KINDS, NETWORK_ID, collectionOf } from '@/core/plan';
import { FILMS, PICTURES, SOUNDS, type DemoFilm, type DemoSound } from './media';
import { FORMATS } from './pictures';
import { demoPlan } from './plan';

const run = promisify(execFile);

export const DEMO_PEOPLE = [
  { name: 'Ida Lunde', email: 'ida@ternholm.example', password: 'lamps-at-dusk', role: 'owner' },
  { name: 'Otto Brekke', email: 'otto@ternholm.example', password: 'lamps-at-dawn', role: 'publisher' },
] as const;

export const DEMO_NETWORK = 'ternholm-line';

/** Fills an empty database with the sample network, its media made here, and publishes edition 1. `tell` hears what is being done. */
export async function seedDemo(tell: (step: string) => void): Promise<void> {
  const networkId = await createNetwork({ name: 'Ternholm Line', slug: DEMO_NETWORK });
  const [ida] = await Promise.all(
    DEMO_PEOPLE.map(({ role, ...person }) => addPerson(networkId, person, { role, samplePassword: true })),
  );
  await seedMedia(ida as Actor, tell);
  tell('Sites, screens, playlists and bookings');
  const plan = demoPlan();
  // Kinds are listed so that what others name comes first. Files are there already.
  const made = LISTED_KINDS.filter((kind) => kind !== 'media').flatMap((kind) =>
    (plan[collectionOf(kind)] as readonly { readonly id: string }[]).map(({ id, ...document }) => ({
      ...{ kind, id },
      add: document,
    })),
  );
  await edit(ida as Actor, [...made, { kind: 'network', id: NETWORK_ID, set: plan.network }]);
  await publishEdition(ida as Actor, await lastChange(networkId));
  await seedHistory(networkId, (await draftPlan(ida as Actor)).plan, Date.now());
}

async function seedMedia(actor: Actor, tell: (step: string) => void): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'lanternpost-demo-'));
  const added = (n: number) => new Date(Date.UTC(2026, 0, 2, 8, n)).toISOString();
  try {
    let done = 0;
    const total = PICTURES.length + FILMS.length + SOUNDS.length;
    const count = () => {
      done++;
      if (done % 5 === 0 || done === total) tell(`Pictures, videos and sounds: ${done} of ${total}`);
    };
    for (const [n, { id, name, tags, picture }] of PICTURES.entries()) {
      const photographic = picture.format === 'wide' || picture.format === 'tall';
      const path = join(folder, photographic ? `${id}.jpg` : `${id}.png`);
      const image = sharp(Buffer.from(picture.svg));
      await (photographic ? image.jpeg({ quality: 88 }) : image.png()).toFile(path);
      await addFile(actor, path, { id, name, tags, added: added(n) });
      count();
    }
    for (const [n, film] of FILMS.entries()) {
      const path = await renderFilm(folder, film);
      await addFile(actor, path, { id: film.id, name: film.name, tags: film.tags, added: added(PICTURES.length + n) });
      count();
    }
    for (const sound of SOUNDS) {
      const path = await renderSound(folder, sound);
      // Before all others: what is seen comes first where the newest do.
      await addFile(actor, path, { id: sound.id, name: sound.name, tags: sound.tags, added: added(-1) });
      count();
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function renderSound(folder: string, { id, seconds, source, filter }: DemoSound): Promise<string> {
  const path = join(folder, `${id}.flac`);
  await run('ffmpeg', [
    ...['-v', 'error', '-f', 'lavfi', '-i', source, '-t', String(seconds)],
    ...['-af', `${filter},afade=t=in:d=1,afade=t=out:st=${seconds - 1}:d=1`, '-y', path],
  ]);
  return path;
}

/** Longer side of a film, in pixels: enough to look at, quick to make. */
const FILM_SIDE = 1280;
const FRAMES_PER_SECOND = 25;

async function renderFilm(folder: string, film: DemoFilm): Promise<string> {
  const [ground, moving, path] = ['ground.png', 'moving.png', `${film.id}.mp4`].map((name) => join(folder, name)) as [
    string,
    string,
    string,
  ];
  const [width, height] = FORMATS[film.format];
  const scale = Math.min(1, FILM_SIDE / Math.max(width, height));
  const size = { width: Math.round(width * scale), height: Math.round(height * scale) };
  await sharp(Buffer.from(film.ground)).resize(size).removeAlpha().png().toFile(ground);
  await sharp(Buffer.from(film.moving)).resize(size).png().toFile(moving);
  const still = (format: string) => `format=${format},loop=loop=-1:size=1,setpts=N/${FRAMES_PER_SECOND}/TB`;
  const place = (expression: string) => `'(${expression})*${scale}'`;
  await run('ffmpeg', [
    ...['-v', 'error', '-i', ground, '-i', moving],
    ...[
      '-filter_complex',
      `[0]${still('yuv420p')}[g];[1]${still('yuva420p')}[m];[g][m]overlay=x=${place(film.x)}:y=${place(film.y)}:format=yuv420`,
    ],
    ...[
      '-t',
      String(film.seconds),
      '-r',
      String(FRAMES_PER_SECOND),
      '-c:v',
      'libx264',
      '-preset',
      'superfast',
      '-crf',
      '24',
      '-movflags',
      '+faststart',
    ],
    ...['-map_metadata', '-1', '-fflags', '+bitexact', '-flags:v', '+bitexact', '-y', path],
  ]);
  return path;
}
