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
  setRole,
  signOutPerson,
  withdraw,
  type GivenLink,
  type Invitation,
  type Person,
} from './members';
export { actorIn, type Actor } from './actor';
export {
  actorOf,
  endSession,
  endSessions,
  inNameOf,
  roleOf,
  sessions,
  signOut,
  watchSession,
  type OpenSession,
  type Origin,
  type Session,
} from './sessions';
export { demand } from './demand';
export { actorOfKey, endKey, keys, makeKey, othersKeys, type OthersKey, type PersonalKey } from './keys';
export { clearAttempts, giveBackAttempt, limitAttempts, placeOf } from './limits';
export { newToken, tokenHash } from './tokens';
export { clearTrail, record, recordQuietly, trail, type TrailLine } from './trail';
