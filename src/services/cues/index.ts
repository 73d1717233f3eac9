export {
  board,
  boardPicture,
  boardsAccess,
  endBoardLink,
  makeBoardLink,
  openBoard,
  pressButton,
  pressByLink,
  setBoardPeople,
  type BoardLink,
  type BoardsAccess,
  type ShownBoard,
  type ShownButton,
} from './boards';
export { fireCue, type Fired } from './fire';
export { floods, writeFloods, type Flood } from './floods';
export { noteFirings, type Pressed } from './from-players';
export { clearFirings, cuesOn, lastFired, type CueOn } from './in-force';
export { firingsFor, firingsOn, firingsWithin, type ToldFiring } from './told';
