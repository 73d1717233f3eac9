import type { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import * as firstLamp from './migrations/0001-first-lamp';
import * as clockwork from './migrations/0002-clockwork';
import * as acts from './migrations/0003-acts';

const MIGRATIONS = [
  { name: '0001-first-lamp', ...firstLamp },
  { name: '0002-clockwork', ...clockwork },
  { name: '0003-acts', ...acts },
];

/** Any number that means "this project's migrations", for PostgreSQL's advisory lock. */
const LOCK = 7_130_001;

/** Brings the database to the current schema, each migration whole or not at all. Two processes at once take turns. */
export async function migrate(sequelize: Sequelize): Promise<string[]> {
  return sequelize.transaction(async (turn) => {
    await sequelize.query('SELECT pg_advisory_xact_lock($1)', { bind: [LOCK], transaction: turn });
    const umzug = new Umzug({
      migrations: MIGRATIONS.map(({ name, up, down }) => ({
        name,
        up: () => sequelize.transaction((transaction) => sequelize.query(up, { transaction })),
        down: () => sequelize.transaction((transaction) => sequelize.query(down, { transaction })),
      })),
      storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
      logger: undefined,
    });
    return (await umzug.up()).map((migration) => migration.name);
  });
}
