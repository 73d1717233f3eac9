/** What a display shows that shows its player, wherever that is plugged in. */
export const PLAYER_INPUT = 'player';

/** The sockets of displays by their usual ids; a profile may name others, or give these names of its own. */
export const SOCKETS: Readonly<Record<string, string>> = {
  ...{ 'hdmi-1': 'HDMI 1', 'hdmi-2': 'HDMI 2', 'hdmi-3': 'HDMI 3', 'hdmi-4': 'HDMI 4' },
  ...{ 'displayport-1': 'DisplayPort 1', 'displayport-2': 'DisplayPort 2' },
  ...{ 'dvi-1': 'DVI 1', 'dvi-2': 'DVI 2', 'vga-1': 'VGA 1', 'vga-2': 'VGA 2' },
};

/** What an input is called: as its id says where it isn't a usual socket. */
export const socketName = (id: string): string =>
  id === PLAYER_INPUT ? 'the player' : ((Object.hasOwn(SOCKETS, id) ? SOCKETS[id] : undefined) ?? id);
