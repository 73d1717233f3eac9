export { addPerson, claim, isUnclaimed, readInput, signIn } from './people';
export { actorOf, signOut, watchSession, type Actor } from './sessions';
export { clearAttempts, giveBackAttempt, limitAttempts } from './limits';
export { newToken, tokenHash } from './tokens';
