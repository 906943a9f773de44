import { QueryTypes, type QueryInterface } from 'sequelize';

/** What is there once among the living of a unit: how a table names it, and where that stands. */
const ONCE = [
  { table: 'parts', key: 'ref', rename: (to: string) => `ref = ${to}` },
  {
    table: 'readouts',
    key: `(definition ->> 'id')`,
    rename: (to: string) => `definition = jsonb_set(definition, '{id}', to_jsonb(${to}))`,
  },
  {
    table: 'changes',
    key: `(definition ->> 'id')`,
    rename: (to: string) => `definition = jsonb_set(definition, '{id}', to_jsonb(${to}))`,
  },
] as const;

/**
 * The database itself holds what a lapse of the server would break: a designator, and the id of a readout and of a change, is
 * there once among the living of a unit. Of those that undo had made twice the later one gets a name of its own. Ticks whose
 * time nobody can show are let go, and reads that had no index have one.
 */
export async function up(query: QueryInterface): Promise<void> {
  const run = (sql: string) => query.sequelize.query(sql, { type: QueryTypes.RAW });
  for (const { table, key, rename } of ONCE) {
    // A row at a time: the new name is looked up among those that there are by then.
    await run(`
      DO $$ DECLARE twin record; n integer; free text; BEGIN
        FOR twin IN
          SELECT id, unit_id, ${key} AS name FROM (
            SELECT *, row_number() OVER (PARTITION BY unit_id, ${key} ORDER BY position, id) AS nth
            FROM ${table} WHERE removed_at IS NULL) t
          WHERE nth > 1
        LOOP
          n := 2;
          LOOP
            free := left(twin.name, 24) || '-' || n;
            EXIT WHEN NOT EXISTS (
              SELECT FROM ${table} WHERE unit_id = twin.unit_id AND removed_at IS NULL AND ${key} = free);
            n := n + 1;
          END LOOP;
          UPDATE ${table} SET ${rename('free')}, version = version + 1 WHERE id = twin.id;
        END LOOP;
      END $$`);
    await run(
      `CREATE UNIQUE INDEX ${table}_once_a_unit ON ${table} (unit_id, ${key}) WHERE removed_at IS NULL`,
    );
  }
  await run(`
    UPDATE units SET ticks = coalesce(
      (SELECT jsonb_object_agg(id, tick) FROM jsonb_each(ticks) AS t (id, tick)
       WHERE tick ->> 'at' >= '1970' AND tick ->> 'at' < '2200'), '{}')
    WHERE ticks <> '{}'`);
  await run('CREATE INDEX log_entries_at ON log_entries (at)');
  await run('CREATE INDEX writes_created_at ON writes (created_at)');
  await run('CREATE INDEX readings_change_id ON readings (change_id)');
}

export async function down(query: QueryInterface): Promise<void> {
  for (const index of ['log_entries_at', 'writes_created_at', 'readings_change_id'])
    await query.sequelize.query(`DROP INDEX ${index}`);
  for (const { table } of ONCE) await query.sequelize.query(`DROP INDEX ${table}_once_a_unit`);
}
