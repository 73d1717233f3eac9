import { board } from './board';
import { booking } from './booking';
import { bulletin } from './bulletin';
import { calendar } from './calendar';
import { cue } from './cue';
import { layout } from './layout';
import { media } from './media';
import { network } from './network';
import { playlist } from './playlist';
import { profile } from './profile';
import { screen } from './screen';
import { site } from './site';

/** Every kind of plan object. A kind that is added here, and described in a file of its own, is known everywhere. */
export const KINDS = {
  ...{ network, calendar, media, bulletin, cue, playlist, layout, profile, site, screen, booking, board },
};
