/** The cookie in which a browser or a program keeps its session. */
export const SESSION_COOKIE = 'lanternpost-session';
