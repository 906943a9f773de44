import { QueryTypes, type QueryInterface, type Sequelize, type Transaction } from 'sequelize';
import { Umzug } from 'umzug';
import * as units from './migrations/0001-units.ts';
import * as finding from './migrations/0002-finding.ts';
import * as esr from './migrations/0003-esr.ts';
import * as aspect from './migrations/0004-aspect.ts';
import * as hazardsAndSettings from './migrations/0005-hazards-and-settings.ts';
import * as howItWasRead from './migrations/0006-how-it-was-read.ts';
import * as edits from './migrations/0007-edits.ts';
import * as place from './migrations/0008-place.ts';
import * as people from './migrations/0009-people.ts';
import * as turnedPhotos from './migrations/0010-turned-photos.ts';
import * as changes from './migrations/0011-changes.ts';
import * as drawer from './migrations/0012-drawer.ts';
import * as beeps from './migrations/0013-beeps.ts';
import * as photoOverlay from './migrations/0014-photo-overlay.ts';
import * as build from './migrations/0015-build.ts';
import * as invariants from './migrations/0016-invariants.ts';
import * as workshop from './migrations/0017-workshop.ts';

interface Migration {
  up(query: QueryInterface): Promise<void>;
  down(query: QueryInterface): Promise<void>;
}

const TABLE = 'migrations';

/** A database as migrations see it: whatever they ask of it is part of one transaction. */
function within(query: QueryInterface, transaction: Transaction): QueryInterface {
  const { sequelize } = query;
  const ask = sequelize.query.bind(sequelize) as (sql: unknown, options?: object) => unknown;
  const bound = Object.create(sequelize, {
    query: { value: (sql: unknown, options: object = {}) => ask(sql, { transaction, ...options }) },
  }) as Sequelize;
  return Object.create(query, { sequelize: { value: bound } }) as QueryInterface;
}

/** A migration with its note, all of it or nothing: one that was cut short is begun anew by the next start. */
const named = (name: string, migration: Migration) => {
  const whole =
    (work: (query: QueryInterface) => Promise<void>, note: string) =>
    async ({ context }: { context: QueryInterface }) => {
      await context.sequelize.transaction(async (transaction) => {
        await work(within(context, transaction));
        await context.sequelize.query(note, { bind: { name }, transaction });
      });
    };
  return {
    name,
    up: whole((query) => migration.up(query), `INSERT INTO ${TABLE} (name) VALUES ($name)`),
    down: whole((query) => migration.down(query), `DELETE FROM ${TABLE} WHERE name = $name`),
  };
};

/** All migrations in order, as a list: a bundled server keeps them. */
const MIGRATIONS = [
  named('0001-units', units),
  named('0002-finding', finding),
  named('0003-esr', esr),
  named('0004-aspect', aspect),
  named('0005-hazards-and-settings', hazardsAndSettings),
  named('0006-how-it-was-read', howItWasRead),
  named('0007-edits', edits),
  named('0008-place', place),
  named('0009-people', people),
  named('0010-turned-photos', turnedPhotos),
  named('0011-changes', changes),
  named('0012-drawer', drawer),
  named('0013-beeps', beeps),
  named('0014-photo-overlay', photoOverlay),
  named('0015-build', build),
  named('0016-invariants', invariants),
  named('0017-workshop', workshop),
];

/** Brings the database to the newest state; does nothing when it is there already. */
export async function migrate(sequelize: Sequelize): Promise<void> {
  await sequelize.query(`CREATE TABLE IF NOT EXISTS ${TABLE} (name varchar(255) PRIMARY KEY)`);
  const umzug = new Umzug({
    migrations: MIGRATIONS,
    context: sequelize.getQueryInterface(),
    storage: {
      async executed() {
        const rows = await sequelize.query<{ name: string }>(`SELECT name FROM ${TABLE} ORDER BY name`, {
          type: QueryTypes.SELECT,
        });
        return rows.map(({ name }) => name);
      },
      // Each migration notes itself, in its own transaction.
      logMigration: () => Promise.resolve(),
      unlogMigration: () => Promise.resolve(),
    },
    logger: undefined,
  });
  await umzug.up();
}

/** Of this application among those that may lock on one database. */
const START_LOCK = 4_780_001;

/** Does what is done once, as migrating, while no other process on the database does. */
export async function alone(
  sequelize: Sequelize,
  work: (transaction: Transaction) => Promise<void>,
): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock($lock)', { bind: { lock: START_LOCK }, transaction });
    await work(transaction);
  });
}
