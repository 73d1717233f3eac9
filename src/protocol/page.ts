/** What our own servers say with each part of the player's page: a portal's login page and a proxy's excuse do not. */
export const PLAYER_PAGE_HEADER = 'lanternpost-player';
