import type { QueryInterface } from 'sequelize';

/** What holds for the whole workshop: one row at most. */
export async function up(query: QueryInterface): Promise<void> {
  await query.sequelize.query(
    `CREATE TABLE workshop (
       id smallint PRIMARY KEY CHECK (id = 1),
       mains_hz smallint NOT NULL CHECK (mains_hz IN (50, 60))
     )`,
  );
}

export async function down(query: QueryInterface): Promise<void> {
  await query.dropTable('workshop');
}
