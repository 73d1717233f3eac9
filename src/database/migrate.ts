import type { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import * as networks from './migrations/0001-networks-plans-editions-players';
import * as feeds from './migrations/0002-holidays-and-feeds';
import * as acts from './migrations/0003-acts-for-undo';
import * as planObjects from './migrations/0004-plan-objects';
import * as lives from './migrations/0005-lives-of-players';
import * as people from './migrations/0006-people';
import * as names from './migrations/0007-names-as-people-count-them';
import * as parts from './migrations/0008-uploads-in-parts';
import * as renditions from './migrations/0009-renditions';
import * as mediaIndex from './migrations/0010-media-index';
import * as sounds from './migrations/0011-sounds';
import * as versions from './migrations/0012-archive-and-versions';
import * as personalKeys from './migrations/0013-personal-keys';
import * as savedSearches from './migrations/0014-saved-searches';
import * as foundWithoutAccents from './migrations/0015-found-without-accents';
import * as editionsOfAChoice from './migrations/0016-editions-of-a-choice';
import * as notesOfEditions from './migrations/0017-notes-of-editions';
import * as plannedEditions from './migrations/0018-planned-editions';
import * as firings from './migrations/0019-firings';
import * as batches from './migrations/0020-batches';
import * as filesByName from './migrations/0021-files-by-name';
import * as programsInParts from './migrations/0022-programs-in-parts';
import * as arrivals from './migrations/0023-arrivals';
import * as reachByScreen from './migrations/0024-reach-by-screen';
import * as storeAndItsFiles from './migrations/0025-store-and-its-files';
import * as aBusyYear from './migrations/0026-a-busy-year';
import * as countedEditions from './migrations/0027-counted-editions';
import * as roles from './migrations/0028-roles';
import * as actsOfKeys from './migrations/0029-acts-of-keys';
import * as lastDayOfSeveralHours from './migrations/0030-last-day-of-several-hours';
import * as commands from './migrations/0031-commands';
import * as glimpses from './migrations/0032-glimpses';
import * as health from './migrations/0033-health';
import * as enrolment from './migrations/0034-enrolment';
import * as walls from './migrations/0035-walls';
import * as playerPin from './migrations/0036-player-pin';
import * as removedPlayers from './migrations/0037-removed-players';
import * as wherePicturesDiffer from './migrations/0038-where-pictures-differ';
import * as inputs from './migrations/0039-inputs';
import * as photos from './migrations/0040-photos';
import * as troubles from './migrations/0041-troubles';
import * as cues from './migrations/0042-cues';

/** In order. The database remembers the ids of those that were run: they stay, whatever a file is called later. */
const MIGRATIONS = [
  { name: '0001-first-lamp', ...networks },
  { name: '0002-clockwork', ...feeds },
  { name: '0003-acts', ...acts },
  { name: '0004-plan-objects', ...planObjects },
  { name: '0005-lives-of-players', ...lives },
  { name: '0006-people', ...people },
  { name: '0007-names', ...names },
  { name: '0008-uploads-in-parts', ...parts },
  { name: '0009-renditions', ...renditions },
  { name: '0010-media-index', ...mediaIndex },
  { name: '0011-sounds', ...sounds },
  { name: '0012-archive-and-versions', ...versions },
  { name: '0013-personal-keys', ...personalKeys },
  { name: '0014-saved-searches', ...savedSearches },
  { name: '0015-found-without-accents', ...foundWithoutAccents },
  { name: '0016-editions-of-a-choice', ...editionsOfAChoice },
  { name: '0017-notes-of-editions', ...notesOfEditions },
  { name: '0018-planned-editions', ...plannedEditions },
  { name: '0019-firings', ...firings },
  { name: '0020-batches', ...batches },
  { name: '0021-files-by-name', ...filesByName },
  { name: '0022-programs-in-parts', ...programsInParts },
  { name: '0023-arrivals', ...arrivals },
  { name: '0024-reach-by-screen', ...reachByScreen },
  { name: '0025-store-and-its-files', ...storeAndItsFiles },
  { name: '0026-a-busy-year', ...aBusyYear },
  { name: '0027-counted-editions', ...countedEditions },
  { name: '0028-roles', ...roles },
  { name: '0029-acts-of-keys', ...actsOfKeys },
  { name: '0030-last-day-of-several-hours', ...lastDayOfSeveralHours },
  { name: '0031-commands', ...commands },
  { name: '0032-glimpses', ...glimpses },
  { name: '0033-health', ...health },
  { name: '0034-enrolment', ...enrolment },
  { name: '0035-walls', ...walls },
  { name: '0036-player-pin', ...playerPin },
  { name: '0037-removed-players', ...removedPlayers },
  { name: '0038-where-pictures-differ', ...wherePicturesDiffer },
  { name: '0039-inputs', ...inputs },
  { name: '0040-photos', ...photos },
  { name: '0041-troubles', ...troubles },
  { name: '0042-cues', ...cues },
];

/** A step may take as long as it needs, and wait for another process that makes it. */
const UNLIMITED =
  'SET LOCAL statement_timeout = 0; SET LOCAL lock_timeout = 0; SET LOCAL idle_in_transaction_session_timeout = 0;';

/** Any number that means "this project's migrations", for PostgreSQL's advisory lock. */
const LOCK = 7_130_001;

/**
 * Brings the database to the current schema, or to that of the step `to`; each step whole or not at all. Two processes at once take
 * turns. Returns the names of the steps that were made.
 */
export async function migrate(sequelize: Sequelize, to?: string): Promise<string[]> {
  return sequelize.transaction(async (turn) => {
    await sequelize.query(UNLIMITED, { transaction: turn });
    await sequelize.query('SELECT pg_advisory_xact_lock($1)', { bind: [LOCK], transaction: turn });
    const umzug = new Umzug({
      migrations: MIGRATIONS.map(({ name, up, down }) => ({
        name,
        up: () => sequelize.transaction((transaction) => sequelize.query(`${UNLIMITED} ${up}`, { transaction })),
        down: () => sequelize.transaction((transaction) => sequelize.query(`${UNLIMITED} ${down}`, { transaction })),
      })),
      storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
      logger: undefined,
    });
    return (await umzug.up(to === undefined ? {} : { to })).map((migration) => migration.name);
  });
}
