export { addPerson, claim, isUnclaimed, openSampleSession, signIn } from './people';
export { readInput } from './input';
export { changePassword, clearInvitations, join, offerOf, type Offer } from './joining';
export {
  foundNetwork,
  invitations,
  invite,
  networks,
  offerReset,
  people,
  removePerson,
  signOutPerson,
  withdraw,
  type GivenLink,
  type Invitation,
  type Person,
} from './members';
export {
  actorOf,
  endSession,
  endSessions,
  inNameOf,
  sessions,
  signOut,
  watchSession,
  type Actor,
  type OpenSession,
  type Origin,
  type Session,
} from './sessions';
export { actorOfKey, endKey, keys, makeKey, type PersonalKey } from './keys';
export type { Right } from './schemas';
export { clearAttempts, giveBackAttempt, limitAttempts, placeOf } from './limits';
export { newToken, tokenHash } from './tokens';
export { clearTrail, record, trail, type TrailLine } from './trail';
