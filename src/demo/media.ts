import { BRICK, DUSK, LAMP, PALETTES, PAPER, ferry, islands, mark, sea, sky, svg, text, type Palette } from './drawing';
import {
  FORMATS,
  board,
  chart,
  doorSign,
  flag,
  menu,
  notice,
  scene,
  tide,
  wall,
  type Format,
  type Picture,
} from './pictures';

interface Described {
  readonly id: string;
  readonly name: string;
  readonly tags: readonly string[];
}

export interface DemoPicture extends Described {
  readonly picture: Picture;
}

/** A short film: something that moves over a still ground, by an expression of ffmpeg's overlay filter (t in seconds). */
export interface DemoFilm extends Described {
  readonly format: Format;
  readonly seconds: number;
  readonly ground: string;
  readonly moving: string;
  readonly x: string;
  readonly y: string;
}

/** A sound that is made of nothing but a formula: a source of ffmpeg's, and what is done with it. */
export interface DemoSound extends Described {
  readonly seconds: number;
  readonly source: string;
  readonly filter: string;
}

const { dawn, day, dusk, night, storm } = PALETTES;

export const PICTURES: readonly DemoPicture[] = [
  { id: 'line-flag', name: 'House flag', tags: ['brand'], picture: flag() },
  {
    id: 'sailings-north',
    name: 'Sailings north',
    tags: ['sailings'],
    picture: board('wide', 'Northbound', [
      ['06:20', 'Sillarvik', 'Gate 1', 'Boarding'],
      ['07:45', 'Brennøy', 'Gate 2'],
      ['09:10', 'Sillarvik', 'Gate 1'],
      ['11:30', 'Kaldavík', 'Gate 4', 'Overnight'],
      ['13:15', 'Brennøy', 'Gate 2'],
    ]),
  },
  {
    id: 'sailings-islands',
    name: 'Sailings to the islands',
    tags: ['sailings'],
    picture: board('wide', 'To the islands', [
      ['06:40', 'Brennøy', 'Gate 2', 'Boarding'],
      ['08:00', 'Little Tern', 'Gate 3'],
      ['10:20', 'Brennøy', 'Gate 2'],
      ['12:05', 'Lumisaari', 'Gate 5'],
      ['14:30', 'Little Tern', 'Gate 3', 'Bikes free'],
    ]),
  },
  {
    id: 'sailings-evening',
    name: 'Evening sailings',
    tags: ['sailings', 'evening'],
    picture: board('wide', 'This evening', [
      ['17:20', 'Sillarvik', 'Gate 1', 'Boarding'],
      ['18:45', 'Skerrow', 'Gate 4'],
      ['20:10', 'Brennøy', 'Gate 2'],
      ['22:00', 'Kaldavík', 'Gate 4', 'Overnight'],
    ]),
  },
  {
    id: 'offer-weekend',
    name: 'Island weekend',
    tags: ['offer', 'poster'],
    picture: scene(
      'wide',
      dawn,
      'An island for the weekend',
      'Out on Friday, home on Sunday, the car comes free',
      '49',
    ),
  },
  {
    id: 'offer-bikes',
    name: 'Bikes sail free',
    tags: ['offer', 'poster', 'summer'],
    picture: scene('wide', day, 'Your bicycle sails free', 'From May to September on every day crossing', '0'),
  },
  {
    id: 'offer-cabin',
    name: 'Winter cabins',
    tags: ['offer', 'poster', 'winter'],
    picture: scene('wide', night, 'Sleep across the sea', 'A cabin for two, with breakfast at the window', '89'),
  },
  {
    id: 'tide-ternholm',
    name: 'Tide at Ternholm',
    tags: ['tide', 'weather'],
    picture: tide('Tide today', 'Ternholm inner harbour', [
      [0, 0.8],
      [2.3, 0.3],
      [8.5, 2.4],
      [14.7, 0.5],
      [20.9, 2.6],
      [24, 1.6],
    ]),
  },
  {
    id: 'weather-outlook',
    name: 'Sea weather',
    tags: ['weather'],
    picture: scene('wide', storm, 'South-west 6, easing 4', 'Sea moderate. Good visibility. All sailings as planned.'),
  },
  {
    id: 'cafe-breakfast',
    name: 'Breakfast card',
    tags: ['menu'],
    picture: menu('wide', 'Breakfast', 'until 10:30', [
      ['Porridge, cloudberries', '6'],
      ['Rye bread, brown cheese', '5'],
      ['Smoked trout and egg', '11'],
      ['Coffee, the pot', '4'],
    ]),
  },
  {
    id: 'cafe-lunch',
    name: 'Lunch card',
    tags: ['menu'],
    picture: menu('wide', 'Lunch', '11:00 to 15:00', [
      ['Fish soup', '13'],
      ['Barley and mushrooms', '12'],
      ['Deck sandwich', '9'],
      ['Apple cake', '5'],
    ]),
  },
  {
    id: 'cafe-supper',
    name: 'Supper card',
    tags: ['menu', 'evening'],
    picture: menu('wide', 'Supper', 'from 17:00', [
      ['Cod, butter, potatoes', '19'],
      ['Lamb stew', '18'],
      ['Beetroot and goat cheese', '15'],
      ['Waffle', '6'],
    ]),
  },
  {
    id: 'lost-property',
    name: 'Lost property',
    tags: ['notice'],
    picture: notice('wide', 'calm', 'Lost something?', 'We keep it for a month at the desk in the departure hall.'),
  },
  {
    id: 'crew-drill',
    name: 'Boat drill',
    tags: ['crew'],
    picture: notice('wide', 'calm', 'Boat drill on Thursday', 'All hands of both watches, 14:00, starboard side.'),
  },
  {
    id: 'crew-rota',
    name: 'Watch list',
    tags: ['crew'],
    picture: board('wide', 'Watches', [
      ['00–04', 'Second mate', 'Bridge'],
      ['04–08', 'First mate', 'Bridge'],
      ['08–12', 'Third mate', 'Bridge'],
      ['12–16', 'Second mate', 'Bridge'],
    ]),
  },
  {
    id: 'gale',
    name: 'Gale notice',
    tags: ['gale', 'notice'],
    picture: notice('wide', 'warning', 'Gale: no sailings before noon', 'Tickets stay valid. Coffee is on the house.'),
  },
  { id: 'route-map', name: 'Route map', tags: ['map', 'brand'], picture: chart('wide') },
  {
    id: 'family-deck',
    name: 'Family deck',
    tags: ['offer', 'poster'],
    picture: scene('wide', day, 'The whole deck is theirs', 'Slides, tents and a quiet corner, deck 6 aft'),
  },
  {
    id: 'mind-the-step',
    name: 'Mind the step',
    tags: ['safety'],
    picture: notice(
      'wide',
      'safety',
      'Mind the step',
      'The gangway moves with the ship. Hold the rail, and small hands too.',
    ),
  },
  {
    id: 'house-thanks',
    name: 'Thank you',
    tags: ['brand', 'evening'],
    picture: scene('wide', dusk, 'Thank you for sailing', 'The lamps stay lit until you are home'),
  },
  {
    id: 'gangway-welcome',
    name: 'Welcome aboard',
    tags: ['brand'],
    picture: scene('tall', dusk, 'Welcome aboard', 'Foot passengers this way'),
  },
  {
    id: 'gangway-boarding',
    name: 'Boarding now',
    tags: ['sailings'],
    picture: board('tall', 'Boarding', [
      ['06:20', 'Sillarvik', 'Gate 1', 'Boarding'],
      ['06:40', 'Brennøy', 'Gate 2'],
      ['07:45', 'Brennøy', 'Gate 2'],
      ['08:00', 'Little Tern', 'Gate 3'],
      ['09:10', 'Sillarvik', 'Gate 1'],
    ]),
  },
  {
    id: 'gangway-rail',
    name: 'Hold the rail',
    tags: ['safety'],
    picture: notice('tall', 'safety', 'Hold the rail', 'The gangway moves with the ship.'),
  },
  {
    id: 'offer-weekend-tall',
    name: 'Island weekend, tall',
    tags: ['offer', 'poster'],
    picture: scene('tall', dawn, 'An island for the weekend', 'The car comes free', '49'),
  },
  {
    id: 'offer-aurora-tall',
    name: 'Northern lights',
    tags: ['offer', 'poster', 'winter'],
    picture: scene('tall', night, 'Under the northern lights', 'Night crossings until March', '59'),
  },
  {
    id: 'gale-tall',
    name: 'Gale notice, tall',
    tags: ['gale', 'notice'],
    picture: notice('tall', 'warning', 'Gale: no sailings before noon', 'Tickets stay valid.'),
  },
  {
    id: 'menu-tall',
    name: 'Kiosk card',
    tags: ['menu'],
    picture: menu('tall', 'Kiosk', 'all day', [
      ['Coffee', '3'],
      ['Cocoa', '4'],
      ['Cinnamon bun', '4'],
      ['Hot dog', '6'],
      ['Waffle', '5'],
      ['Ice, two scoops', '5'],
    ]),
  },
  { id: 'map-tall', name: 'Route map, tall', tags: ['map'], picture: chart('tall') },
  { id: 'wall-lanes', name: 'Lanes 1 to 4', tags: ['lanes'], picture: wall('1 – 4', 'Sillarvik', LAMP, 'left') },
  { id: 'wall-slow', name: 'Walking pace', tags: ['lanes', 'safety'], picture: wall('SLOW', '10 km/h', BRICK) },
  { id: 'wall-gale', name: 'No sailings', tags: ['lanes', 'gale'], picture: wall('GALE', 'wait here', LAMP) },
  {
    id: 'wall-welcome',
    name: 'Wall welcome',
    tags: ['lanes', 'brand'],
    picture: wall('TERNHOLM', 'good crossing', '#7FD0B5'),
  },
  {
    id: 'door-office',
    name: 'Harbour office',
    tags: ['door'],
    picture: doorSign('Room 2', 'Harbour office', 'Mon–Fri 08:00–16:00'),
  },
  {
    id: 'door-crew',
    name: 'Crew mess',
    tags: ['door', 'crew'],
    picture: doorSign('Room 5', 'Crew mess', 'Quiet from 22:00'),
  },
];

const sized = (format: Format, ...parts: string[]) => svg(FORMATS[format][0], FORMATS[format][1], ...parts);

function crossing(format: 'wide' | 'tall', palette: Palette, title: string): string {
  const [w, h] = FORMATS[format];
  return sized(
    format,
    sky(w, h, palette),
    islands(w, h * 0.6, h * 0.14, palette.sea),
    sea(w, h, h * 0.6, palette.sea),
    text(w * 0.06, h * 0.16, h * 0.075, title, palette.text, { weight: 800 }),
  );
}

const ship = sized('wide', ferry(40, 420, 900));

export const FILMS: readonly DemoFilm[] = [
  {
    id: 'lifejackets',
    name: 'Lifejackets',
    tags: ['safety', 'film'],
    format: 'wide',
    seconds: 14,
    ground: notice('wide', 'safety', 'Your lifejacket', 'Under the seat. Over the head, strap around, pull tight.').svg,
    moving: sized(
      'wide',
      `<circle cx="120" cy="120" r="70" fill="none" stroke="${BRICK}" stroke-width="44"/><circle cx="120" cy="120" r="70" fill="none" stroke="${PAPER}" stroke-width="44" stroke-dasharray="36 74"/>`,
    ),
    x: '200+t*60',
    y: '760+20*sin(t*3)',
  },
  {
    id: 'morning-crossing',
    name: 'Morning crossing',
    tags: ['sea', 'film'],
    format: 'wide',
    seconds: 12,
    ground: crossing('wide', dawn, 'Good morning'),
    moving: ship,
    x: '-500+t*95',
    y: '330+6*sin(t*2)',
  },
  {
    id: 'departure',
    name: 'Departure',
    tags: ['sea', 'film', 'brand'],
    format: 'wide',
    seconds: 10,
    ground: crossing('wide', day, 'All aboard'),
    moving: ship,
    x: '200+t*t*14',
    y: '350+5*sin(t*2)',
  },
  {
    id: 'night-lights',
    name: 'Night lights',
    tags: ['sea', 'film', 'evening', 'winter'],
    format: 'wide',
    seconds: 16,
    ground: crossing('wide', night, 'Good night'),
    moving: ship,
    x: '1500-t*80',
    y: '340+5*sin(t*1.5)',
  },
  {
    id: 'tern-tall',
    name: 'Tern in flight',
    tags: ['brand', 'film'],
    format: 'tall',
    seconds: 8,
    ground: crossing('tall', dusk, ''),
    moving: sized('tall', mark(200, 200, 300, 'none', PAPER)),
    x: '-200+t*140',
    y: '500+160*sin(t*1.3)',
  },
  {
    id: 'lane-flow',
    name: 'Lane arrows',
    tags: ['lanes', 'film'],
    format: 'wall',
    seconds: 6,
    ground: sized(
      'wall',
      `<rect width="384" height="192" fill="#000"/>`,
      text(192, 170, 34, 'Drive on', '#fff', { weight: 700, anchor: 'middle' }),
    ),
    moving: sized(
      'wall',
      ...[0, 1, 2].map(
        (i) => `<path d="M${20 + i * 70} 20l46 46-46 46h-22l46-46-46-46z" fill="${i === 2 ? LAMP : DUSK}"/>`,
      ),
    ),
    x: '-200+mod(t*160\\,400)',
    y: '10',
  },
];

/** Made up of noise and tones: a swell that comes and goes, and a far bell buoy. */
export const SOUNDS: readonly DemoSound[] = [
  {
    id: 'harbour-swell',
    name: 'Harbour swell',
    tags: ['sea', 'sound'],
    seconds: 24,
    source: 'anoisesrc=color=brown:amplitude=0.6:seed=7',
    filter: 'lowpass=f=700,tremolo=f=0.125:d=0.7',
  },
  {
    id: 'bell-buoy',
    name: 'Bell buoy',
    tags: ['sea', 'sound'],
    seconds: 16,
    source: 'aevalsrc=0.4*(sin(2*PI*660*t)+0.5*sin(2*PI*1550*t))*exp(-3*mod(t\\,4))',
    filter: 'lowpass=f=3000,aecho=0.8:0.6:180:0.35',
  },
];
