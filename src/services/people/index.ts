export { actorOf, addPerson, claim, isUnclaimed, readInput, signIn, signOut } from './people';
export type { Actor } from './people';
export { clearAttempts, giveBackAttempt, limitAttempts } from './limits';
export { newToken, tokenHash } from './tokens';
