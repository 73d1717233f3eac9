import { MINUTE } from '@/core/instant';
import { onBehalfOf, subscribe } from '@/database';
import { logOnce } from '@/log';
import type { PlayerBackend } from '@/protocol/player-backend';
import { noteOutcomes, pendingCommands } from '../commands';
import { firingsFor, noteFirings } from '../cues';
import { isWatched, takeGlimpse } from '../glimpses';
import { openToSend } from '../library';
import { collectToken, startPairing } from './pairing';
import { heartbeat, playerFile, playerOf, programText, targetOf, type Player } from './players';

/** The player protocol's work, done by the services. */
export const playerBackend: PlayerBackend<Player> = {
  startPairing,
  collectToken,
  playerOf,
  targetOf: (player) =>
    onBehalfOf(player.networkId, async () => ({
      ...(await targetOf(player)),
      commands: await pendingCommands(player),
      firings: await firingsFor(player),
      glimpses: await glimpsesOf(player),
      // When the work is done: the way there and back is measured without it.
      serverTime: Date.now(),
    })),
  programText: (player, hash) => onBehalfOf(player.networkId, () => programText(player, hash)),
  fileOf: (player, hash) => onBehalfOf(player.networkId, () => playerFile(player, hash)),
  openFile: openToSend,
  heartbeat,
  noteOutcomes: (player, outcomes) => onBehalfOf(player.networkId, () => noteOutcomes(player, outcomes)),
  noteFirings: (player, presses) => onBehalfOf(player.networkId, () => noteFirings(player, presses)),
  takeGlimpse: (player, picture, taken) => onBehalfOf(player.networkId, () => takeGlimpse(player, picture, taken)),
  onChange: (player, wake) =>
    subscribe((message) => {
      if (message.kind === 'resync') wake('target');
      else if (message.kind === 'player' && message.player === player.id) wake('unpaired');
      else if (message.kind === 'hurry' && message.players.includes(player.id)) wake('hurry');
      else if (message.kind === 'commands' && message.players.includes(player.id)) wake('target');
      else if (message.kind === 'cues' && message.network === player.networkId) {
        if (message.screens?.includes(player.screen.id) ?? true) wake('target');
      } else if (message.kind === 'edition' && message.network === player.networkId) wake('target');
    }),
  logError: (error) => logOnce(error, 'player request failed'),
};

/** So often a picture is taken of a screen that a person is looking at. */
const WATCHED_EVERY_MS = 10_000;

/** Whether pictures are taken of a player's screen, and how often. */
async function glimpsesOf(player: Player) {
  const { isPrivate, glimpseMinutes } = player;
  if (isPrivate) return { allowed: false };
  if (await isWatched(player)) return { allowed: true, everyMs: WATCHED_EVERY_MS };
  return { allowed: true, ...(glimpseMinutes ? { everyMs: glimpseMinutes * MINUTE } : {}) };
}
