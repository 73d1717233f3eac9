import type { NextConfig } from 'next';

const security = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'Referrer-Policy', value: 'same-origin' },
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
  { key: 'Permissions-Policy', value: 'camera=(), microphone=(), geolocation=()' },
];

/** The player's page needs no inline script, so its policy is fixed; the interface's is made for each request in src/proxy.ts. */
const playerPolicy =
  "default-src 'self'; img-src 'self' blob:; media-src 'self' blob:; connect-src 'self' http://127.0.0.1:*; object-src 'none'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

/**
 * A player shows what a capture device brings, and nothing else may. By the last one the page's service worker knows what is ours
 * (src/player/page/kept-page.ts).
 */
const player = [
  { key: 'Content-Security-Policy', value: playerPolicy },
  { key: 'Permissions-Policy', value: 'camera=(self), microphone=(), geolocation=()' },
  { key: 'Lanternpost-Player', value: '1' },
];

const config: NextConfig = {
  poweredByHeader: false,
  // A route is loaded when it is first asked for: each brings its own copy of what it needs.
  experimental: { preloadEntriesOnStart: false },
  reactStrictMode: true,
  // `npm test` checks them, once.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: [
    'sequelize',
    'pg',
    'pg-boss',
    'umzug',
    'sharp',
    '@node-rs/argon2',
    'pino',
    'file-type',
    'date-holidays',
  ],
  async rewrites() {
    return [{ source: '/player', destination: '/player/index.html' }];
  },
  async headers() {
    return [
      { source: '/:path*', headers: security },
      { source: '/player/:path*', headers: player },
      { source: '/player', headers: player },
      {
        source: '/player/sw.js',
        headers: [
          { key: 'Service-Worker-Allowed', value: '/player' },
          { key: 'Cache-Control', value: 'no-cache' },
        ],
      },
    ];
  },
};

export default config;
