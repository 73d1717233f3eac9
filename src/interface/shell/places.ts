/** The places, and the key that goes to each after g. The last five are reached from the right of the bar. */
export const PLACES = [
  { path: '/', name: 'Now', key: 'n' },
  { path: '/library', name: 'Library', key: 'l' },
  { path: '/playlists', name: 'Playlists', key: 'p' },
  { path: '/layouts', name: 'Layouts', key: 'y' },
  { path: '/plan', name: 'Plan', key: 'b' },
  { path: '/screens', name: 'Screens', key: 's' },
  { path: '/cues', name: 'Boards', key: 'c' },
  { path: '/takeovers', name: 'Takeovers', key: 't' },
  { path: '/publish', name: 'Publish', key: 'u' },
  { path: '/people', name: 'People', key: 'e' },
  { path: '/network', name: 'Network', key: 'k' },
] as const;
