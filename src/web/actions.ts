'use server';

import * as z from 'zod';
import { idSchema, patchesSchema, selectorSchema, type LoosePatch, type Media, type ObjectKey } from '@/core/plan';
import type { Result } from '@/core/refusal';
import { civil, dateOfLocalTime, type LocalTime } from '@/core/when';
import { requestAddress } from '@/web/session';
import {
  closeFeed,
  holidayCountries,
  holidayRegions,
  holidaysOf,
  openFeed,
  type Choice,
  type Holiday,
} from '@/services/calendars';
import {
  askToPublish,
  callOffPlanned,
  keep,
  movePlanned,
  publishPlanned,
  sendBack,
  setFirers,
  withdrawRequest,
  type Firing,
  type GoesOut,
  type IsPutOn,
  type Kept,
  type Piloting,
  type PlannedFor,
  type Publishing,
  type PuttingOn,
} from '@/services/editions';
import {
  batchMedia,
  bringBack,
  describeBatch,
  dismissUpload,
  removeSearch,
  saveSearch,
  type BatchInput,
  type SavedSearch,
} from '@/services/library';
import { cancelCommand, sendCommand, type Sent, type SentCommand } from '@/services/commands';
import { endBoardLink, fireCue, makeBoardLink, pressButton, setBoardPeople, type Fired } from '@/services/cues';
import { readInput } from '@/services/people';
import { watchScreens } from '@/services/glimpses';
import { edit, undo, type EditResult, type UndoResult, type Way } from '@/services/plan';
import {
  endEnrolmentKey,
  giveScreens,
  hurryScreens,
  makeEnrolmentKey,
  pairScreen,
  pairScreens,
  sendAway,
  setPlayerPin,
  unpairScreen,
  type Given,
  type Pair,
} from '@/services/screens';
import { think } from '@/services/thinking';
import type { Town } from '@/services/towns';
import { attemptAs } from './attempt';
import {
  changeSchema,
  chosenSchema,
  givenSchema,
  goesOutSchema,
  idempotencySchema,
  pairsSchema,
  placeSchema,
  pilotingSchema,
  publishingSchema,
  putOnSchema,
  rowSchema,
  screensSchema,
} from './inputs';

const originSchema = z.string().max(40);
/** The service says how long a note may be. */
const noteSchema = z.string().max(10_000);

/**
 * Makes patches from what a browser sent: anything malformed is refused, and files that only the library makes are never accepted. `origin`
 * is what the page calls this edit, so that it knows it in the feed; with `goesOn` it is the same act as an earlier one.
 */
export async function editAction(
  patches: readonly LoosePatch[],
  origin: string,
  goesOn?: string,
): Promise<Result<EditResult>> {
  return attemptAs((actor) =>
    edit(actor, readInput(patchesSchema, patches), {
      origin: readInput(originSchema, origin),
      goesOn: readInput(rowSchema.optional(), goesOn),
    }),
  );
}

/** Takes the signed-in person's last act back, or makes it again: the same in each of their windows, also after a reload. */
export async function undoAction(way: Way, sure?: string): Promise<Result<UndoResult>> {
  return attemptAs((actor) => undo(actor, way === 'redo' ? 'redo' : 'undo', readInput(rowSchema.optional(), sure)));
}

/** What a browser sends to an action may be anything: numbers and ids are checked before they are used. */
const editionSchema = z
  .int()
  .min(1)
  .max(2 ** 31 - 1);
const codeSchema = z.string().max(40, 'A code has eight letters. Read it again from the screen.');

/** Publishes what waits, or a choice of it with what that needs. */
export async function publishAction(basedOn: number, how: Publishing = {}): Promise<Result<{ number: number }>> {
  return attemptAs((actor) =>
    think('publishEdition', actor, readInput(changeSchema, basedOn), readInput(publishingSchema, how)),
  );
}

/** Plans what waits, or a choice of it, for an instant, or for a time on each site's clock. */
export async function planAction(
  basedOn: number,
  goesOut: GoesOut,
  how: Publishing = {},
): Promise<Result<{ id: string } & PlannedFor>> {
  return attemptAs((actor) =>
    think(
      'planEdition',
      actor,
      readInput(changeSchema, basedOn),
      readInput(goesOutSchema, goesOut),
      readInput(publishingSchema, how),
    ),
  );
}

/** Gives what waits, or a choice of it, to some screens first. */
export async function pilotAction(
  basedOn: number,
  pilot: Piloting,
  how: Publishing = {},
): Promise<Result<{ id: string; screens: number }>> {
  return attemptAs((actor) =>
    think(
      'pilotEdition',
      actor,
      readInput(changeSchema, basedOn),
      readInput(pilotingSchema, pilot),
      readInput(publishingSchema, how),
    ),
  );
}

/** Asks those who may publish for what waits, or for a choice of it. */
export async function askToPublishAction(
  note: string,
  chosen?: readonly ObjectKey[],
): Promise<Result<{ readonly id: string }>> {
  return attemptAs((actor) =>
    askToPublish(actor, { note: readInput(noteSchema, note), chosen: readInput(chosenSchema.optional(), chosen) }),
  );
}

/** Sends a request to publish back with a word. */
export async function sendBackAction(id: string, word: string): Promise<Result<void>> {
  return attemptAs((actor) => sendBack(actor, readInput(rowSchema, id), readInput(noteSchema, word)));
}

/** Takes away one's own request to publish, or the answer to it. */
export async function withdrawRequestAction(id: string): Promise<Result<void>> {
  return attemptAs((actor) => withdrawRequest(actor, readInput(rowSchema, id)));
}

/** Moves what is planned to another time. */
export async function movePlannedAction(id: string, goesOut: GoesOut): Promise<Result<PlannedFor>> {
  return attemptAs((actor) => movePlanned(actor, readInput(rowSchema, id), readInput(goesOutSchema, goesOut)));
}

/** Calls off what is planned. */
export async function callOffPlannedAction(id: string): Promise<Result<void>> {
  return attemptAs((actor) => callOffPlanned(actor, readInput(rowSchema, id)));
}

/** Publishes what is planned before its time. */
export async function publishPlannedAction(id: string): Promise<Result<{ number: number }>> {
  return attemptAs((actor) => publishPlanned(actor, readInput(rowSchema, id)));
}

/** Fires a prepared takeover. */
export async function fireAction(booking: string): Promise<Result<Firing>> {
  return attemptAs((actor) => think('fireTakeover', actor, readInput(idSchema, booking)));
}

/** Fires it as a drill on other screens. */
export async function drillAction(booking: string, where: string): Promise<Result<Firing>> {
  return attemptAs((actor) =>
    think('drillTakeover', actor, readInput(idSchema, booking), readInput(selectorSchema, where)),
  );
}

/** The all-clear for what was fired. */
export async function allClearAction(booking: string): Promise<Result<Firing>> {
  return attemptAs((actor) => think('allClear', actor, readInput(idSchema, booking)));
}

/** Says who alone may fire a takeover. */
export async function setFirersAction(booking: string, people: readonly string[]): Promise<Result<void>> {
  return attemptAs((actor) =>
    setFirers(actor, readInput(idSchema, booking), readInput(z.array(rowSchema).max(1000), people)),
  );
}

/** Puts something on screens at once. */
export async function putOnAction(what: PuttingOn): Promise<Result<IsPutOn>> {
  return attemptAs((actor) => think('putOn', actor, readInput(putOnSchema, what)));
}

/** Ends what was put on. */
export async function endPutOnAction(booking: string): Promise<Result<IsPutOn>> {
  return attemptAs((actor) => think('endPutOn', actor, readInput(idSchema, booking)));
}

/** Makes what is chosen as it was published, as one act. */
export async function takeBackAction(
  basedOn: number,
  chosen: readonly ObjectKey[],
  origin: string,
): Promise<Result<EditResult>> {
  return attemptAs((actor) =>
    think(
      'takeBack',
      actor,
      readInput(changeSchema, basedOn),
      readInput(chosenSchema, chosen),
      readInput(originSchema, origin),
    ),
  );
}

export async function publishAgainAction(number: number, seen: number): Promise<Result<{ number: number }>> {
  return attemptAs((actor) =>
    think('publishAgain', actor, readInput(editionSchema, number), readInput(editionSchema, seen)),
  );
}

/** Pairs the player that shows a code with a screen, or with a display of a wall ("wall/2"). */
export async function pairAction(place: string, code: string): Promise<Result<void>> {
  return attemptAs(async (actor) =>
    pairScreen(actor, readInput(placeSchema, place), readInput(codeSchema, code), await requestAddress()),
  );
}

/** Pairs many players at once: says of each what was wrong. */
export async function pairManyAction(
  list: readonly Pair[],
): Promise<Result<(Pair & { readonly error: string | null })[]>> {
  return attemptAs(async (actor) => pairScreens(actor, readInput(pairsSchema, list), await requestAddress()));
}

/** Gives players that wait in the tray their screens: says of each what was wrong. */
export async function giveScreensAction(
  list: readonly Given[],
): Promise<Result<(Given & { readonly error: string | null })[]>> {
  return attemptAs((actor) => giveScreens(actor, readInput(givenSchema, list)));
}

/** Takes a waiting player out of the tray. */
export async function sendAwayAction(id: string): Promise<Result<void>> {
  return attemptAs((actor) => sendAway(actor, readInput(rowSchema, id)));
}

/** Makes an enrolment key: its secret is shown this once. */
export async function makeEnrolmentKeyAction(input: unknown): Promise<Result<{ id: string; key: string }>> {
  return attemptAs((actor) => makeEnrolmentKey(actor, input));
}

export async function endEnrolmentKeyAction(id: string): Promise<Result<void>> {
  return attemptAs((actor) => endEnrolmentKey(actor, readInput(rowSchema, id)));
}

export async function unpairAction(place: string): Promise<Result<void>> {
  return attemptAs((actor) => unpairScreen(actor, readInput(placeSchema, place)));
}

/** Sets the PIN that opens players' own pages, or closes them. */
export async function playerPinAction(pin: string | null): Promise<Result<string | null>> {
  return attemptAs((actor) => setPlayerPin(actor, pin));
}

/** Asks the players of screens to try again at once. */
export async function hurryAction(screens: readonly string[]): Promise<Result<{ asked: number }>> {
  return attemptAs((actor) => hurryScreens(actor, readInput(z.array(idSchema).max(20_000), screens)));
}

/** Sends a command to the players of screens. */
export async function commandAction(command: unknown): Promise<Result<Sent>> {
  return attemptAs((actor) => sendCommand(actor, command));
}

/** Cancels a command where it isn't done yet. */
export async function cancelCommandAction(id: string): Promise<Result<SentCommand>> {
  return attemptAs((actor) => cancelCommand(actor, readInput(rowSchema, id)));
}

/** Fires a cue, or ends it. */
export async function fireCueAction(order: unknown): Promise<Result<Fired>> {
  return attemptAs((actor) => fireCue(actor, order));
}

/** Presses a button of a board; `key` makes a press that is sent twice one. */
export async function pressButtonAction(board: string, press: unknown, key: string): Promise<Result<Fired>> {
  return attemptAs((actor) =>
    pressButton(actor, readInput(idSchema, board), press, { idempotencyKey: readInput(idempotencySchema, key) }),
  );
}

/** Makes a link that opens a board without logging in. */
export async function makeBoardLinkAction(link: unknown): Promise<Result<{ readonly token: string }>> {
  return attemptAs((actor) => makeBoardLink(actor, link));
}

/** Ends such a link. */
export async function endBoardLinkAction(id: string): Promise<Result<void>> {
  return attemptAs((actor) => endBoardLink(actor, readInput(rowSchema, id)));
}

/** Sets who alone may press a board. */
export async function setBoardPeopleAction(board: string, people: readonly string[]): Promise<Result<void>> {
  return attemptAs((actor) =>
    setBoardPeople(actor, readInput(idSchema, board), readInput(z.array(rowSchema).max(1000), people)),
  );
}

/** Has pictures of these screens taken every few seconds, for the next minute. */
export async function watchScreensAction(screens: readonly string[]): Promise<Result<void>> {
  return attemptAs((actor) => watchScreens(actor, readInput(screensSchema, screens)));
}

export async function dismissUploadAction(id: string): Promise<Result<void>> {
  return attemptAs((actor) => dismissUpload(actor, readInput(rowSchema, id)));
}

/** Makes an earlier version of a file the one that shows again. */
export async function bringBackAction(media: string, version: string): Promise<Result<EditResult>> {
  return attemptAs((actor) => bringBack(actor, readInput(idSchema, media), readInput(rowSchema, version)));
}

/** Keeps a search of the library by a name. */
export async function saveSearchAction(input: unknown): Promise<Result<SavedSearch>> {
  return attemptAs((actor) => saveSearch(actor, input));
}

export async function removeSearchAction(id: string): Promise<Result<void>> {
  return attemptAs((actor) => removeSearch(actor, readInput(rowSchema, id)));
}

/** Sets how long old editions and replaced files are kept. */
export async function keepAction(input: Partial<Kept>): Promise<Result<Kept>> {
  return attemptAs((actor) => keep(actor, input));
}

/** Gives all files that were sent together tags, and when they are available. */
export async function describeBatchAction(batch: string, input: BatchInput): Promise<Result<void>> {
  return attemptAs((actor) => describeBatch(actor, readInput(rowSchema, batch), input));
}

/** The files of a batch that are in the library by now. */
export async function batchMediaAction(batch: string): Promise<Result<Media[]>> {
  return attemptAs((actor) => batchMedia(actor, readInput(rowSchema, batch)));
}

export async function openFeedAction(input: { name: string; where: string }): Promise<Result<{ token: string }>> {
  return attemptAs((actor) => openFeed(actor, input));
}

export async function closeFeedAction(id: string): Promise<Result<void>> {
  return attemptAs((actor) => closeFeed(actor, readInput(rowSchema, id)));
}

const areaSchema = z.string().max(12);

const townSchema = z.string().max(100, 'A town’s name has at most 100 characters.');

/** Towns that are called so, with where they are. */
export async function findTownsAction(typed: string): Promise<Result<readonly Town[]>> {
  return attemptAs((actor) => think('towns', actor, readInput(townSchema, typed)));
}

/** The countries whose public holidays are known; with a country, its regions that have their own. */
export async function holidayChoicesAction(country?: string): Promise<Result<readonly Choice[]>> {
  return attemptAs(async () =>
    country === undefined ? holidayCountries() : holidayRegions(readInput(areaSchema, country)),
  );
}

/** A country's public holidays, or a region's, around this year. */
export async function holidaysAction(country: string, region?: string): Promise<Result<readonly Holiday[]>> {
  return attemptAs(async () => {
    const { year } = civil(dateOfLocalTime(Date.now() as LocalTime));
    const place = readInput(z.object({ country: areaSchema, region: areaSchema.optional() }), { country, region });
    return holidaysOf(place, year);
  });
}
