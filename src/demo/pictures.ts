import {
  BRICK,
  DUSK,
  INK,
  LAMP,
  PALETTES,
  PAPER,
  TIDE,
  ferry,
  islands,
  lamp,
  lines,
  mark,
  sea,
  sky,
  svg,
  text,
  type Palette,
} from './drawing';

/** The sizes that the demo's screens have. */
export const FORMATS = { wide: [1920, 1080], tall: [1080, 1920], wall: [384, 192], paper: [800, 480] } as const;
export type Format = keyof typeof FORMATS;

export interface Picture {
  readonly format: Format;
  readonly svg: string;
}

/** A scene at sea with a headline: offers, welcomes, thanks. */
export function scene(format: 'wide' | 'tall', palette: Palette, title: string, line: string, price?: string): Picture {
  const [w, h] = FORMATS[format];
  const tall = format === 'tall';
  const horizon = h * (tall ? 0.62 : 0.6);
  const size = tall ? 128 : 132;
  const head = lines(title, tall ? 13 : 20);
  const parts = head.map((content, i) =>
    text(w * 0.07, h * (tall ? 0.14 : 0.2) + i * size * 1.08, size, content, palette.text, { weight: 800 }),
  );
  const below = h * (tall ? 0.14 : 0.2) + head.length * size * 1.02;
  const small = lines(line, tall ? 30 : 46).map((content, i) =>
    text(w * 0.072, below + i * 62, 48, content, palette.text),
  );
  const tag = price
    ? `<g transform="translate(${w * (tall ? 0.58 : 0.74)} ${h * (tall ? 0.47 : 0.12)})"><path d="M0 0h330l44 44v150H0z" fill="${palette.accent}"/>${text(187, 135, 104, price, palette.accent === LAMP ? INK : PAPER, { weight: 800, anchor: 'middle' })}</g>`
    : '';
  return {
    format,
    svg: svg(
      w,
      h,
      sky(w, h, palette),
      `<circle cx="${w * 0.8}" cy="${horizon - h * 0.06}" r="${h * (tall ? 0.06 : 0.1)}" fill="${palette.accent}" opacity=".5"/>`,
      islands(w, horizon, h * 0.13, palette.sea),
      sea(w, h, horizon, palette.sea),
      ferry(w * (tall ? 0.12 : 0.4), horizon + h * (tall ? 0.1 : 0.22), w * (tall ? 0.78 : 0.5)),
      ...parts,
      ...small,
      tag,
      mark(w - (tall ? 120 : 130), h - 120, 120, PAPER, LAMP),
    ),
  };
}

/** A board of sailings: time, where to, gate, remark. */
export function board(
  format: 'wide' | 'tall',
  title: string,
  rows: readonly (readonly [string, string, string, string?])[],
): Picture {
  const [w, h] = FORMATS[format];
  const tall = format === 'tall';
  const top = tall ? 300 : 220;
  const step = (h - top - 90) / rows.length;
  const body = rows.flatMap(([time, to, gate, remark], i) => {
    const y = top + step * (i + 0.62);
    return [
      i % 2 === 0 ? `<rect y="${top + step * i}" width="${w}" height="${step}" fill="#fff" opacity=".05"/>` : '',
      text(w * 0.06, y, step * (tall ? 0.24 : 0.42), time, LAMP, { weight: 700 }),
      text(w * (tall ? 0.3 : 0.22), y, step * (tall ? 0.26 : 0.42), to, PAPER, { weight: 600 }),
      text(w * (tall ? 0.3 : 0.66), y + (tall ? step * 0.27 : 0), step * (tall ? 0.2 : 0.34), gate, '#AAB6D8'),
      remark
        ? text(w * 0.94, y, step * (tall ? 0.22 : 0.3), remark, remark === 'Boarding' ? LAMP : '#AAB6D8', {
            anchor: 'end',
            weight: 600,
          })
        : '',
    ];
  });
  return {
    format,
    svg: svg(
      w,
      h,
      `<rect width="${w}" height="${h}" fill="${INK}"/><rect width="${w}" height="${top - 30}" fill="${DUSK}"/>`,
      text(w * 0.06, top - 100, tall ? 104 : 96, title, PAPER, { weight: 800 }),
      mark(w - 120, (top - 30) / 2, 110, PAPER, LAMP),
      ...body,
    ),
  };
}

/** Plain words that matter: notices, safety, warnings. */
export function notice(
  format: 'wide' | 'tall',
  kind: 'calm' | 'safety' | 'warning',
  title: string,
  body: string,
): Picture {
  const [w, h] = FORMATS[format];
  const tall = format === 'tall';
  const [ground, ink, band] = { calm: [PAPER, INK, TIDE], safety: [PAPER, INK, DUSK], warning: [BRICK, PAPER, INK] }[
    kind
  ] as [string, string, string];
  const size = tall ? 120 : 128;
  const head = lines(title, tall ? 14 : 24);
  const start = h * (tall ? 0.3 : 0.36);
  return {
    format,
    svg: svg(
      w,
      h,
      `<rect width="${w}" height="${h}" fill="${ground}"/><path d="M0 0h${w}v${h * 0.16}H0z" fill="${band}"/>`,
      kind === 'safety'
        ? ring(w * (tall ? 0.5 : 0.82), h * (tall ? 0.75 : 0.62), h * (tall ? 0.13 : 0.2))
        : lamp(w * (tall ? 0.5 : 0.85), h * (tall ? 0.75 : 0.64), h * (tall ? 0.12 : 0.2)),
      text(
        w * 0.06,
        h * 0.105,
        tall ? 70 : 78,
        kind === 'warning' ? 'WARNING' : kind === 'safety' ? 'FOR YOUR SAFETY' : 'NOTICE',
        PAPER,
        { weight: 700, spacing: 6 },
      ),
      ...head.map((content, i) => text(w * 0.06, start + i * size * 1.1, size, content, ink, { weight: 800 })),
      ...lines(body, tall ? 32 : 48).map((content, i) =>
        text(w * 0.062, start + (head.length - 0.2) * size * 1.1 + 20 + i * 70, 54, content, ink),
      ),
    ),
  };
}

function ring(x: number, y: number, r: number): string {
  return `<g transform="translate(${x} ${y})"><circle r="${r}" fill="none" stroke="${BRICK}" stroke-width="${r * 0.42}"/><circle r="${r}" fill="none" stroke="${PAPER}" stroke-width="${r * 0.42}" stroke-dasharray="${r * 0.5} ${r * 1.07}"/><circle r="${r * 1.21}" fill="none" stroke="${INK}" stroke-width="5"/><circle r="${r * 0.79}" fill="none" stroke="${INK}" stroke-width="5"/></g>`;
}

/** A café's card. */
export function menu(
  format: 'wide' | 'tall',
  title: string,
  hours: string,
  dishes: readonly (readonly [string, string])[],
): Picture {
  const [w, h] = FORMATS[format];
  const top = h * (format === 'tall' ? 0.3 : 0.42);
  const step = (h - top - 110) / dishes.length;
  return {
    format,
    svg: svg(
      w,
      h,
      `<rect width="${w}" height="${h}" fill="#F3E7CF"/><path d="M0 0h${w}v${top - 90}q${-w / 2} 70 ${-w} 0z" fill="${BRICK}"/>`,
      text(w * 0.07, top - 190, 130, title, PAPER, { weight: 800 }),
      text(w * 0.072, top - 115, 50, hours, '#F6D9C6'),
      `<g transform="translate(${w * 0.84} ${top - 260}) scale(1.700)"><path d="M-40 0h70v30a28 28 0 0 1-28 28h-14a28 28 0 0 1-28 -28z" fill="${PAPER}"/><path d="M30 8h12a13 13 0 0 1 0 26h-12" fill="none" stroke="${PAPER}" stroke-width="7"/><path d="M-22 -12q-8 -12 0 -24M0 -12q-8 -12 0 -24" fill="none" stroke="${PAPER}" stroke-width="4"/></g>`,
      ...dishes.flatMap(([dish, price], i) => {
        const y = top + step * (i + 0.65);
        return [
          text(w * 0.07, y, 62, dish, INK, { weight: 600 }),
          text(w * 0.93, y, 62, price, BRICK, { weight: 700, anchor: 'end' }),
          `<path d="M${w * 0.07} ${y + 22}H${w * 0.93}" stroke="${INK}" stroke-opacity=".2" stroke-width="3" stroke-dasharray="2 10"/>`,
        ];
      }),
    ),
  };
}

/** The tide as a curve over the day, with its turns marked. */
export function tide(title: string, place: string, turns: readonly (readonly [number, number])[]): Picture {
  const [w, h] = FORMATS.wide;
  const x = (hour: number) => 140 + (hour / 24) * (w - 280);
  const y = (metres: number) => 880 - metres * 170;
  const path = turns.map(([hour, metres], i) => {
    const before = turns[i - 1];
    if (!before) return `M${x(hour)} ${y(metres)}`;
    const middle = (x(before[0]) + x(hour)) / 2;
    return `C${middle} ${y(before[1])} ${middle} ${y(metres)} ${x(hour)} ${y(metres)}`;
  });
  const first = turns[0] ?? [0, 0];
  const last = turns.at(-1) ?? first;
  return {
    format: 'wide',
    svg: svg(
      w,
      h,
      sky(w, h, PALETTES.day),
      text(140, 190, 110, title, INK, { weight: 800 }),
      text(142, 262, 52, place, INK),
      `<path d="${path.join('')}L${x(last[0])} ${h}L${x(first[0])} ${h}z" fill="${TIDE}"/><path d="${path.join('')}" fill="none" stroke="${INK}" stroke-width="6"/>`,
      ...turns.slice(1, -1).map(([hour, metres]) => {
        const clock = `${String(Math.floor(hour)).padStart(2, '0')}:${String(Math.round((hour % 1) * 60)).padStart(2, '0')}`;
        return `<circle cx="${x(hour)}" cy="${y(metres)}" r="13" fill="${PAPER}" stroke="${INK}" stroke-width="5"/>${text(x(hour), y(metres) - 36, 50, clock, INK, { weight: 700, anchor: 'middle' })}${text(x(hour), y(metres) + 76, 44, `${metres.toFixed(1)} m`, PAPER, { anchor: 'middle' })}`;
      }),
    ),
  };
}

/** The line's routes, drawn as a chart. */
export function chart(format: 'wide' | 'tall'): Picture {
  const [w, h] = FORMATS[format];
  const ports: readonly (readonly [string, number, number])[] = [
    ['Ternholm', 0.52, 0.45],
    ['Sillarvik', 0.64, 0.24],
    ['Brennøy', 0.38, 0.3],
    ['Kaldavík', 0.14, 0.5],
    ['Skerrow', 0.3, 0.76],
    ['Port Annick', 0.5, 0.84],
    ['Lumisaari', 0.85, 0.56],
  ];
  const [hub] = ports;
  const size = format === 'tall' ? 46 : 44;
  const routes = ports
    .slice(1)
    .map(
      ([, px, py]) =>
        `<path d="M${(hub?.[1] ?? 0) * w} ${(hub?.[2] ?? 0) * h}Q${((hub?.[1] ?? 0) + px) * 0.5 * w} ${((hub?.[2] ?? 0) + py) * 0.5 * h - 60} ${px * w} ${py * h}" fill="none" stroke="${BRICK}" stroke-width="7" stroke-dasharray="18 14"/>`,
    );
  const dots = ports.map(([name, px, py]) => {
    // A name that would run out of the picture stands on the other side.
    const isLeft = format === 'tall' && px > 0.8;
    const label = text(px * w + (isLeft ? -30 : 30), py * h + 15, size, name, INK, {
      ...{ weight: 700, anchor: isLeft ? 'end' : 'start' },
    });
    return `<circle cx="${px * w}" cy="${py * h}" r="17" fill="${LAMP}" stroke="${INK}" stroke-width="6"/>${label}`;
  });
  return {
    format,
    svg: svg(
      w,
      h,
      `<rect width="${w}" height="${h}" fill="#CFE3E2"/><path d="M${w} 0v${h * 0.4}q${-w * 0.16} ${-h * 0.08} ${-w * 0.2} ${-h * 0.24}t${-w * 0.12} ${-h * 0.16}z" fill="#E9DFC8"/><path d="M0 ${h}v${-h * 0.16}q${w * 0.12} ${-h * 0.05} ${w * 0.2} ${h * 0.03}t${w * 0.12} ${h * 0.13}z" fill="#E9DFC8"/>`,
      ...routes,
      ...dots,
      text(w * 0.06, h * 0.1, format === 'tall' ? 92 : 96, 'Our routes', INK, { weight: 800 }),
      mark(w - 130, h - 130, 130, INK, BRICK),
    ),
  };
}

export function flag(): Picture {
  const [w, h] = FORMATS.wide;
  return {
    format: 'wide',
    svg: svg(
      w,
      h,
      sky(w, h, PALETTES.dusk),
      sea(w, h, h * 0.82, PALETTES.dusk.sea),
      mark(w / 2, h * 0.4, 420, PAPER, LAMP),
      text(w / 2, h * 0.74, 120, 'Ternholm Line', PAPER, { weight: 800, anchor: 'middle', spacing: 4 }),
    ),
  };
}

/** Few pixels, seen from far: large letters on black. */
export function wall(first: string, second: string, color: string, arrow?: 'left' | 'right'): Picture {
  const [w, h] = FORMATS.wall;
  const point =
    arrow === 'left'
      ? `<path d="M16 96l44 -44v28h30v32h-30v28z" fill="${color}"/>`
      : arrow === 'right'
        ? `<path d="M368 96l-44 -44v28h-30v32h30v28z" fill="${color}"/>`
        : '';
  const x = arrow === 'left' ? 236 : arrow === 'right' ? 148 : 192;
  return {
    format: 'wall',
    svg: svg(
      w,
      h,
      `<rect width="${w}" height="${h}" fill="#000"/>`,
      point,
      text(x, 86, 62, first, color, { weight: 800, anchor: 'middle' }),
      text(x, 152, 46, second, '#fff', { weight: 700, anchor: 'middle' }),
    ),
  };
}

/** Black on white for electronic paper. */
export function doorSign(title: string, who: string, hours: string): Picture {
  const [w, h] = FORMATS.paper;
  return {
    format: 'paper',
    svg: svg(
      w,
      h,
      `<rect width="${w}" height="${h}" fill="#fff"/><rect width="${w}" height="104" fill="#000"/>`,
      text(36, 72, 54, title, '#fff', { weight: 700 }),
      text(36, 240, 88, who, '#000', { weight: 800 }),
      text(38, 320, 44, hours, '#000'),
      `<path d="M36 390h728" stroke="#000" stroke-width="4"/>`,
      text(36, 444, 34, 'Ternholm Line', '#000'),
    ),
  };
}
