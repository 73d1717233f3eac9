import { booking } from './booking';
import { calendar } from './calendar';
import { media } from './media';
import { network } from './network';
import { playlist } from './playlist';
import { profile } from './profile';
import { screen } from './screen';
import { site } from './site';

/** Every kind of plan object. A kind that is added here, and described in a file of its own, is known everywhere. */
export const KINDS = { network, calendar, media, playlist, profile, site, screen, booking };
