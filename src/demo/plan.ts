import {
  emptyPlan,
  type Board,
  type Booking,
  type Bulletin,
  type Cue,
  type Item,
  type Layout,
  type Plan,
  type Playlist,
  type Profile,
  type Screen,
  type Site,
} from '@/core/plan';
import { SHIPPED_PROFILES } from '@/core/profiles';

/** Ternholm Line: a ferry company of ours that does not exist. Everything but the media, which are drawn. */

const weekly = (open: string, close: string): Site['hours'] => ({
  weekly: Object.fromEntries(['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'].map((day) => [day, [[open, close]]])) as never,
});

const SITES: Site[] = [
  {
    id: 'ternholm',
    name: 'Ternholm Terminal',
    timeZone: 'Europe/Oslo',
    tags: ['quay', 'south'],
    location: { latitude: 59.2, longitude: 5.1 },
    hours: weekly('05:00', '23:30'),
  },
  {
    id: 'sillarvik',
    name: 'Sillarvik Quay',
    timeZone: 'Europe/Oslo',
    tags: ['quay', 'north'],
    location: { latitude: 62.1, longitude: 5.4 },
    hours: weekly('05:30', '22:00'),
  },
  {
    id: 'brennoy',
    name: 'Brennøy Landing',
    timeZone: 'Europe/Oslo',
    tags: ['quay', 'north', 'island'],
    location: { latitude: 64.9, longitude: 10.8 },
    hours: weekly('06:00', '21:00'),
  },
  { id: 'ms-havlys', name: 'MS Havlys', timeZone: 'Europe/Oslo', tags: ['ship'] },
  {
    id: 'kaldavik',
    name: 'Kaldavík Harbour',
    timeZone: 'Atlantic/Reykjavik',
    tags: ['quay', 'west'],
    location: { latitude: 65.2, longitude: -13.9 },
    hours: weekly('06:00', '22:30'),
  },
  { id: 'ms-ternen', name: 'MS Ternen', timeZone: 'Atlantic/Reykjavik', tags: ['ship'] },
  {
    id: 'skerrow',
    name: 'Skerrow Pier',
    timeZone: 'Europe/London',
    tags: ['quay', 'west'],
    location: { latitude: 58.4, longitude: -6.2 },
    hours: weekly('05:45', '22:00'),
  },
  {
    id: 'port-annick',
    name: 'Port Annick',
    timeZone: 'Europe/London',
    tags: ['quay', 'west', 'island'],
    location: { latitude: 60.1, longitude: -1.3 },
    hours: weekly('07:00', '19:00'),
  },
  {
    id: 'lumisaari',
    name: 'Lumisaari Dock',
    timeZone: 'Europe/Helsinki',
    tags: ['quay', 'east'],
    location: { latitude: 60.3, longitude: 22.1 },
    hours: weekly('06:00', '23:00'),
  },
  { id: 'ms-kivikko', name: 'MS Kivikko', timeZone: 'Europe/Helsinki', tags: ['ship'] },
];

type Kind = 'hall' | 'gangway' | 'cafe' | 'deck' | 'staff' | 'lanes' | 'door' | 'kiosk';
const SIZES: Record<Kind, readonly [number, number]> = {
  hall: [1920, 1080],
  gangway: [1080, 1920],
  cafe: [1920, 1080],
  deck: [1920, 1080],
  staff: [1920, 1080],
  lanes: [384, 192],
  door: [800, 480],
  kiosk: [1080, 1920],
};

const SHIPPED = new Map(SHIPPED_PROFILES.map((profile) => [profile.name, profile]));
const like = (name: string, rest: Partial<Profile> & { id: string }): Profile => ({
  ...{ name, ...SHIPPED.get(name) },
  ...rest,
});

const PROFILES: Profile[] = [
  like('Display with a small computer', { id: 'small-computer' }),
  like('Display with a player inside', {
    id: 'player-inside',
    inputs: [
      { id: 'hdmi-1', name: 'Bow camera' },
      { id: 'hdmi-2', name: 'Chart' },
    ],
  }),
  like('Touch kiosk', { id: 'touch-kiosk', inputs: [{ id: 'hdmi-1', name: 'Service laptop' }] }),
  like('Display with a player inside', {
    ...{ id: 'mess-display', name: 'Mess display with a remote control', keys: true },
    inputs: [{ id: 'hdmi-1', name: 'Mess television' }],
  }),
  like('LED wall', { id: 'led-wall' }),
  like('Electronic paper', { id: 'electronic-paper' }),
];

/** What stands where; the staff rooms have old displays of which little is known. */
const PROFILE_OF: Partial<Record<Kind, string>> = {
  ...{ hall: 'small-computer', gangway: 'small-computer', cafe: 'small-computer', deck: 'player-inside' },
  ...{ kiosk: 'touch-kiosk', lanes: 'led-wall', door: 'electronic-paper' },
};

/** Two by two displays of 55 inches, with thin frames. */
const WALL = { rows: 2, columns: 2, widthMm: 1210, heightMm: 681, betweenMm: 4 };

const PLACES: Record<string, readonly (readonly [Kind, string])[]> = {
  ternholm: [
    ['hall', 'Departure hall'],
    ['hall', 'Ticket hall wall'],
    ['gangway', 'Gangway 1'],
    ['lanes', 'Car lanes'],
    ['cafe', 'Quay café'],
    ['door', 'Harbour office door'],
  ],
  sillarvik: [
    ['hall', 'Departure hall'],
    ['gangway', 'Gangway'],
    ['staff', 'Staff room'],
    ['kiosk', 'Kiosk'],
  ],
  brennoy: [
    ['hall', 'Waiting room'],
    ['gangway', 'Gangway'],
    ['door', 'Office door'],
  ],
  'ms-havlys': [
    ['deck', 'Deck 5 forward'],
    ['deck', 'Deck 6 aft'],
    ['cafe', 'Café Havlys'],
    ['staff', 'Crew mess'],
    ['door', 'Crew mess door'],
  ],
  kaldavik: [
    ['hall', 'Departure hall'],
    ['gangway', 'Gangway'],
    ['lanes', 'Car lanes'],
    ['cafe', 'Harbour café'],
  ],
  'ms-ternen': [
    ['deck', 'Saloon'],
    ['cafe', 'Galley bar'],
    ['staff', 'Crew mess'],
  ],
  skerrow: [
    ['hall', 'Pier hall'],
    ['gangway', 'Gangway'],
    ['kiosk', 'Kiosk'],
    ['staff', 'Staff room'],
  ],
  'port-annick': [
    ['hall', 'Waiting room'],
    ['gangway', 'Gangway'],
  ],
  lumisaari: [
    ['hall', 'Departure hall'],
    ['gangway', 'Gangway'],
    ['cafe', 'Dock café'],
  ],
  'ms-kivikko': [
    ['deck', 'Saloon'],
    ['staff', 'Crew mess'],
  ],
};

function screens(): Screen[] {
  return Object.entries(PLACES).flatMap(([site, list]) =>
    list.map(([kind, name], i): Screen => {
      const [width, height] = SIZES[kind];
      return {
        id: `${site}-${kind}${list.slice(0, i).some(([other]) => other === kind) ? '-2' : ''}`,
        name,
        site,
        width,
        height,
        ...(name === 'Ticket hall wall' ? { wall: WALL } : {}),
        ...(PROFILE_OF[kind] ? { profile: PROFILE_OF[kind] } : {}),
        ...(name === 'Crew mess' ? { profile: 'mess-display' } : {}),
        tags: kind === 'door' ? ['door', 'epaper'] : [kind],
        ...(kind === 'door' ? { backdrop: { playlist: 'doors' } } : {}),
        ...(kind === 'lanes' ? { backdrop: { media: 'wall-welcome', durationMs: 12_000 } } : {}),
        ...(kind === 'kiosk' ? { glimpseMinutes: 5 } : {}),
        ...(kind === 'staff' ? { private: true } : {}),
        ...(kind === 'hall' ? { lightsOut: [{ windows: [['closes+01:00', 'opens-00:30']] }] } : {}),
        ...(kind === 'cafe' ? { lightsOut: [{ windows: [['23:30', '04:45']] }] } : {}),
      } as Screen;
    }),
  );
}

const still = (media: string, seconds: number, rest: object = {}): Item =>
  ({ media, durationMs: seconds * 1000, ...rest }) as Item;
const film = (media: string, rest: object = {}): Item => ({ media, ...rest }) as Item;

const FADE = { transition: { kind: 'fade' as const, ms: 800 } };

const PLAYLISTS: Playlist[] = [
  {
    id: 'offers',
    name: 'Offers',
    items: [
      { collect: 'poster and is:landscape', order: 'newest', limit: 4, durationMs: 9000, where: 'is:landscape' },
      { collect: 'poster and is:portrait', order: 'newest', durationMs: 9000, where: 'is:portrait' },
    ],
  },
  {
    id: 'safety',
    name: 'Safety',
    items: [
      film('lifejackets', { where: 'is:landscape' }),
      still('mind-the-step', 10, { where: 'is:landscape' }),
      still('gangway-rail', 10, { where: 'is:portrait' }),
    ],
  },
  {
    id: 'house',
    name: 'House loop',
    items: [
      still('line-flag', 8, { where: 'is:landscape' }),
      film('departure', { where: 'is:landscape' }),
      still('gangway-welcome', 10, { where: 'is:portrait' }),
      film('tern-tall', { where: 'is:portrait' }),
      { playlist: 'offers', where: 'not staff' },
      still('route-map', 12, { where: 'is:landscape' }),
      still('map-tall', 12, { where: 'is:portrait' }),
    ],
  },
  {
    id: 'sailings-am',
    name: 'Morning sailings',
    items: [
      still('sailings-north', 15),
      still('sailings-islands', 15),
      film('morning-crossing'),
      still('tide-ternholm', 10),
      still('weather-outlook', 10),
    ],
  },
  {
    id: 'sailings-board',
    name: 'Sailings of the day',
    items: [
      still('sailings-north', 15),
      still('sailings-islands', 15),
      film('departure'),
      still('weather-outlook', 10),
    ],
  },
  {
    id: 'offers-tall',
    name: 'Offers, tall',
    items: [{ collect: 'poster and is:portrait', order: 'newest', durationMs: 12_000 }],
  },
  {
    id: 'gale-notices',
    name: 'Gale notices',
    items: [
      still('wall-gale', 10, { where: 'lanes' }),
      still('gale', 10, { where: 'is:landscape and not lanes' }),
      still('gale-tall', 10, { where: 'is:portrait' }),
    ],
  },
  {
    id: 'sailings-pm',
    name: 'Evening sailings',
    items: [
      still('sailings-evening', 20),
      still('weather-outlook', 10),
      film('night-lights'),
      still('house-thanks', 8),
    ],
  },
  {
    id: 'cafe',
    name: 'Café cards',
    music: { playlist: 'harbour-sounds', volume: 0.3 },
    items: [
      still('cafe-breakfast', 20, { ...FADE, when: { windows: [['05:00', '10:30']] } }),
      still('cafe-lunch', 20, { ...FADE, when: { windows: [['10:30', '17:00']] } }),
      still('cafe-supper', 20, { ...FADE, when: { windows: [['17:00', '23:30']] } }),
      still('family-deck', 8, FADE),
    ],
  },
  { id: 'harbour-sounds', name: 'Harbour sounds', items: [{ media: 'harbour-swell' }, { media: 'bell-buoy' }] },
  {
    id: 'gangway',
    name: 'Gangway',
    items: [
      still('gangway-boarding', 12),
      still('gangway-rail', 8),
      still('gangway-welcome', 8),
      still('offer-weekend-tall', 8),
    ],
  },
  { id: 'lanes', name: 'Car lanes', items: [still('wall-lanes', 10), still('wall-slow', 5), film('lane-flow')] },
  {
    id: 'crew',
    name: 'Crew notices',
    items: [still('crew-rota', 20), still('crew-drill', 15), still('weather-outlook', 10)],
  },
  {
    id: 'doors',
    name: 'Door signs',
    items: [
      still('door-crew', 600, { where: 'ship or site:ms-havlys' }),
      still('door-office', 600, { where: 'not ship' }),
    ],
  },
];

const WIDE = { width: 1920, height: 1080 };
const TALL = { width: 1080, height: 1920 };
const GROUND = { background: '#1b2330' };

const LAYOUTS: Layout[] = [
  {
    ...{ id: 'hall-board', name: 'Hall board', ...WIDE, ...GROUND, durationMs: 60_000 },
    zones: [
      {
        id: 'main',
        x: 0,
        y: 0,
        width: 1312,
        height: 738,
        content: { playlist: 'sailings-board' },
        transition: FADE.transition,
      },
      { id: 'side', x: 1312, y: 0, width: 608, height: 1080, content: { playlist: 'offers-tall' }, fit: 'fill' },
      { id: 'foot', x: 0, y: 738, width: 1312, height: 342, content: { bulletin: 'today' } },
    ],
  },
  {
    ...{ id: 'birthday-kiosk', name: 'Birthday kiosk', ...TALL, ...GROUND },
    zones: [
      { id: 'main', x: 0, y: 0, width: 1080, height: 1440, content: { media: 'map-tall' }, fit: 'fill' },
      {
        ...{ id: 'foot', x: 0, y: 1440, width: 1080, height: 480 },
        content: { bulletin: 'touch-birthday' },
        touch: { cue: 'birthday' },
      },
    ],
  },
  {
    ...{ id: 'foot-line', name: 'Foot line', ...WIDE },
    zones: [{ id: 'foot', x: 0, y: 990, width: 1920, height: 90, content: { bulletin: 'ticket-office' } }],
  },
  {
    ...{ id: 'foot-line-tall', name: 'Foot line, tall', ...TALL },
    zones: [{ id: 'foot', x: 0, y: 1830, width: 1080, height: 90, content: { bulletin: 'ticket-office' } }],
  },
];

const weekdays = { from: '2026-01-05', repeat: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR' };
const booking = (
  id: string,
  name: string,
  content: Booking['content'],
  where: string,
  when: Booking['when'],
  rest: Partial<Booking> = {},
): Booking => ({
  id,
  name,
  content,
  where,
  priority: 3,
  created: '2026-01-05T09:00:00Z',
  when,
  ...rest,
});
const winter = { from: '2026-01-01', repeat: 'FREQ=DAILY;BYMONTH=11,12,1,2,3' };

const BOOKINGS: Booking[] = [
  booking('morning-sailings', 'Morning sailings', { playlist: 'sailings-am' }, 'hall', {
    ...weekdays,
    windows: [['05:30', '10:00']],
    not: ['storm-days'],
  }),
  booking('weekend-sailings', 'Weekend sailings', { playlist: 'sailings-am' }, 'hall', {
    from: '2026-01-03',
    repeat: 'FREQ=WEEKLY;BYDAY=SA,SU',
    windows: [['07:00', '11:00']],
  }),
  booking('evening-sailings', 'Evening sailings', { playlist: 'sailings-pm' }, 'hall', {
    windows: [['16:30', 'closes']],
  }),
  booking(
    'noon-safety',
    'Safety at noon',
    { playlist: 'safety' },
    'hall or deck',
    { windows: [['11:55', '12:05']] },
    { priority: 4 },
  ),
  booking(
    'hourly-drill-deck',
    'Lifejackets on deck',
    { media: 'lifejackets' },
    'deck',
    {
      windows: [
        ['07:00', '07:30'],
        ['13:00', '13:30'],
        ['18:30', '19:00'],
      ],
    },
    { priority: 4 },
  ),
  booking('gangway-day', 'Gangway by day', { playlist: 'gangway' }, 'gangway', { windows: [['05:30', '22:00']] }),
  booking('lanes-day', 'Car lanes', { playlist: 'lanes' }, 'lanes', { windows: [['05:00', '23:00']] }),
  booking('cafe-cards', 'Café cards', { playlist: 'cafe' }, 'cafe', { windows: [['05:00', '23:30']] }),
  booking('kiosk-card', 'Kiosk card', { media: 'menu-tall', durationMs: 20_000 }, 'kiosk', {
    windows: [['opens', 'closes']],
  }),
  booking('crew-board', 'Crew board', { playlist: 'crew' }, 'staff', {}),
  booking(
    'crew-drill-thursday',
    'Drill reminder',
    { media: 'crew-drill', durationMs: 30_000 },
    'staff and ship',
    { from: '2026-01-01', repeat: 'FREQ=WEEKLY;BYDAY=TH', windows: [['08:00', '14:00']] },
    { priority: 4 },
  ),
  booking('deck-day', 'Deck loop', { playlist: 'house' }, 'deck', { windows: [['08:00', '20:00']] }, { priority: 2 }),
  booking(
    'deck-night',
    'Night at sea',
    { media: 'night-lights' },
    'deck',
    { windows: [['20:00', '06:00']] },
    { priority: 2 },
  ),
  booking('winter-cabins', 'Winter cabins', { media: 'offer-cabin', durationMs: 15_000 }, 'hall and west', {
    ...winter,
    windows: [
      ['10:00', '11:30'],
      ['14:00', '15:00'],
    ],
  }),
  booking(
    'aurora',
    'Northern lights',
    { media: 'offer-aurora-tall', durationMs: 15_000 },
    'kiosk or (gangway and north)',
    { ...winter, windows: [['15:00', '17:00']] },
  ),
  booking(
    'island-weekend',
    'Island weekend',
    { media: 'offer-weekend', durationMs: 12_000 },
    'hall and not island',
    { from: '2026-01-01', repeat: 'FREQ=WEEKLY;BYDAY=TH,FR', windows: [['12:30', '16:00']] },
    { priority: 2 },
  ),
  booking('tide-bulletin', 'Tide bulletin', { media: 'tide-ternholm', durationMs: 60_000 }, 'site:ternholm and hall', {
    windows: [
      ['10:00', '10:30'],
      ['15:30', '16:00'],
    ],
  }),
  booking(
    'lost-property-monday',
    'Lost property',
    { media: 'lost-property', durationMs: 15_000 },
    'hall',
    { from: '2026-01-05', repeat: 'FREQ=WEEKLY;BYDAY=MO', windows: [['10:30', '11:30']] },
    { priority: 2 },
  ),
  booking(
    'storm-timetable',
    'Storm timetable',
    { media: 'weather-outlook', durationMs: 30_000 },
    'hall',
    { only: ['storm-days'], windows: [['05:00', '12:00']] },
    { priority: 4 },
  ),
  booking(
    'gale',
    'Gale notice',
    { media: 'gale' },
    'hall or cafe or deck',
    { windows: [['04:00', '12:00']] },
    {
      ...{ takeover: true, wake: true, priority: 5, onHold: true },
      prepared: { words: 'When the harbour office calls a gale. Tell the bridge of each ship first.' },
    },
  ),
];

/** Layouts, and layouts that are drawn over everything else. */
const IN_PARTS: Booking[] = [
  booking('hall-board', 'Hall board', { layout: 'hall-board' }, 'hall and (east or site:brennoy)', {
    windows: [['11:00', '16:30']],
  }),
  booking(
    'birthday-kiosk',
    'Birthday kiosk',
    { layout: 'birthday-kiosk' },
    'site:skerrow and kiosk',
    { windows: [['opens', 'closes']] },
    { priority: 4 },
  ),
  booking(
    'foot-line',
    'Foot line',
    { layout: 'foot-line' },
    'site:kaldavik and is:landscape and not lanes',
    { windows: [['opens', 'closes']] },
    { overlay: {} },
  ),
  booking(
    'foot-line-tall',
    'Foot line, tall',
    { layout: 'foot-line-tall' },
    'site:kaldavik and is:portrait',
    { windows: [['opens', 'closes']] },
    { overlay: {} },
  ),
];

/** What waits for a button or a key. */
const FIRED: Booking[] = [
  booking(
    'gale-alarm',
    'Gale alarm',
    { playlist: 'gale-notices' },
    'quay and not door',
    {},
    { priority: 5, wake: true, cue: 'gale-alarm', forMs: 900_000 },
  ),
  booking(
    'birthday',
    'Birthday greeting',
    { bulletin: 'birthday' },
    'deck',
    {},
    {
      ...{ priority: 5, cue: 'birthday', forMs: 30_000 },
    },
  ),
  booking(
    'safety-video',
    'Safety video',
    { media: 'lifejackets' },
    'ship and not door',
    {},
    {
      ...{ priority: 5, cue: 'safety-video' },
    },
  ),
  booking(
    'mess-television',
    'Mess television',
    { input: 'hdmi-1' },
    'ship and staff',
    {},
    {
      ...{ priority: 4, cue: 'mess-television', forMs: 7_200_000 },
    },
  ),
];

const CUES: Cue[] = [
  { id: 'gale-alarm', name: 'Gale alarm' },
  { id: 'birthday', name: 'Birthday greeting', lateMs: 30_000 },
  { id: 'safety-video', name: 'Safety video' },
  { id: 'our-programme', name: 'Our programme', key: 1 },
  { id: 'mess-television', name: 'Mess television', key: 2 },
];

const BULLETINS: Bulletin[] = [
  { id: 'birthday', name: 'Birthday greeting', kind: 'notice', text: 'Happy birthday\nfrom all of us on board!' },
  {
    id: 'today',
    name: 'Today in the hall',
    kind: 'notice',
    text: 'All boats sail as planned.\nCoffee in the hall until 16:30.',
  },
  {
    id: 'touch-birthday',
    name: 'Touch for a birthday',
    kind: 'notice',
    text: 'A birthday on board?\nTouch here: the screens on deck will say so.',
  },
  { id: 'ticket-office', name: 'Ticket office', kind: 'notice', text: 'The ticket office is open until 22:00' },
];

const BOARDS: Board[] = [
  {
    ...{ id: 'stewards', name: 'Stewards' },
    buttons: [
      { cue: 'birthday', colour: 'tide' },
      { cue: 'safety-video', colour: 'brick' },
    ],
  },
  {
    ...{ id: 'terminal-office', name: 'Terminal office' },
    buttons: [{ cue: 'gale-alarm', colour: 'brick' }],
  },
];

/** The sample network's decisions; its media are made and uploaded by the seed. */
export function demoPlan(): Plan {
  return {
    ...emptyPlan('Ternholm Line'),
    network: { name: 'Ternholm Line', defaultDurationMs: 10_000, backdrop: { playlist: 'house' } },
    calendars: [{ id: 'storm-days', name: 'Storm timetable', dates: ['2026-12-05', ['2026-12-24', '2026-12-26']] }],
    profiles: PROFILES,
    sites: SITES,
    screens: screens(),
    playlists: PLAYLISTS,
    layouts: LAYOUTS,
    bulletins: BULLETINS,
    cues: CUES,
    bookings: [...BOOKINGS, ...IN_PARTS, ...FIRED],
    boards: BOARDS,
  };
}
