import { QueryTypes, Sequelize } from 'sequelize';
import { describe, expect, it } from 'vitest';
import { freshDatabase } from '../testing/test-app.ts';
import { connect } from './connect.ts';
import { migrate } from './migrate.ts';

/** The shape of a database: columns, constraints and indexes. */
async function shapeOf(database: ReturnType<typeof connect>): Promise<unknown> {
  const all = (sql: string) => database.query(sql, { type: QueryTypes.SELECT });
  return [
    await all(`SELECT table_name, column_name, data_type, is_nullable, column_default FROM information_schema.columns
      WHERE table_schema = 'public' ORDER BY 1, 2`),
    await all(
      `SELECT tablename, indexname, indexdef FROM pg_indexes WHERE schemaname = 'public' ORDER BY 1, 2`,
    ),
    await all(
      `SELECT conname, pg_get_constraintdef(oid) FROM pg_constraint WHERE connamespace = 'public'::regnamespace ORDER BY 1, 2`,
    ),
    await all('SELECT name FROM migrations ORDER BY 1'),
  ];
}

describe('a start that is cut short while it brings the database on', () => {
  it('leaves every migration whole or undone, wherever it ends, and the next start goes on', async () => {
    const whole = connect(await freshDatabase());
    let statements = 0;
    whole.query = counted(whole, () => (statements += 1));
    await migrate(whole);
    const expected = await shapeOf(whole);
    await whole.close();
    expect(statements).toBeGreaterThan(60);

    const url = await freshDatabase();
    const cut = connect(url);
    const query = cut.query;
    // By a connection of its own: this one is cut.
    const beside = new Sequelize(url, { logging: false });
    const count = async (from: string) =>
      (
        await beside.query<{ n: number }>(`SELECT count(*)::int AS n FROM ${from}`, {
          type: QueryTypes.SELECT,
        })
      )[0]!.n;
    const done = async () =>
      (await count(`pg_tables WHERE tablename = 'migrations'`)) === 0 ? 0 : count('migrations');
    let attempts = 0;
    let before = 0;
    // Each attempt gets one statement further than the one before; behind each migration it begins anew.
    for (let allowed = 0; ; allowed += 1) {
      let left = allowed;
      cut.query = counted({ query: query.bind(cut) }, () => {
        left -= 1;
        if (left < 0) throw new Error('The power went.');
      });
      attempts += 1;
      const isDone = await migrate(cut).then(
        () => true,
        () => false,
      );
      if (isDone) break;
      const now = await done();
      if (now > before) allowed = 0;
      before = now;
    }
    cut.query = query;
    expect(attempts).toBeGreaterThan(100);
    expect(await shapeOf(cut)).toEqual(expected);
    await cut.close();
    await beside.close();
  });
});

/** A connection's `query` that calls somebody before each statement. */
function counted(
  database: { readonly query: ReturnType<typeof connect>['query'] },
  before: () => void,
): ReturnType<typeof connect>['query'] {
  const ask = database.query.bind(database) as (...args: unknown[]) => Promise<unknown>;
  return (async (...args: unknown[]) => {
    // Where the power goes, the database takes back by itself what was begun.
    if (!String(args[0]).startsWith('ROLLBACK')) before();
    return ask(...args);
  }) as ReturnType<typeof connect>['query'];
}

describe('a bench on which undo had made two parts of one name', () => {
  it('keeps both, the later one under a name of its own', async () => {
    const database = connect(await freshDatabase());
    await migrate(database);
    await database.query('DROP INDEX parts_once_a_unit');
    await database.query(`DELETE FROM migrations WHERE name = '0016-invariants'`);
    for (const index of [
      'readouts_once_a_unit',
      'changes_once_a_unit',
      'log_entries_at',
      'writes_created_at',
      'readings_change_id',
    ])
      await database.query(`DROP INDEX ${index}`);
    const unit = '01a2311e-0000-7000-8000-000000000000';
    await database.query(
      `INSERT INTO units (id, name, kind, hazards, notes, stage, place, ground, nudges, models, intake, extra, ticks, last_activity_at)
       VALUES ('${unit}', 'Twice', '', '[]', '', 'trace', 'bench', '0', '{}', '[]', '{}', '{}',
         '{"good": {"at": "2026-01-01T00:00:00.000Z"}, "bad": {"at": "2200-01-01T00:00:00Z"}, "worse": {"at": "0000-01-01T00:00:00Z"}}', now())`,
    );
    for (const [i, ref] of ['R4', 'R4', 'R4-2', 'R4'].entries())
      await database.query(
        `INSERT INTO parts (id, unit_id, version, position, ref, kind, pins, extra)
         VALUES ('01a2311e-0000-7000-8000-00000000000${i + 1}', '${unit}', 0, ${i}, '${ref}', 'resistor', '{}', '{}')`,
      );
    await migrate(database);
    const rows = await database.query<{ ref: string }>('SELECT ref FROM parts ORDER BY position', {
      type: QueryTypes.SELECT,
    });
    expect(rows.map((r) => r.ref)).toEqual(['R4', 'R4-3', 'R4-2', 'R4-4']);
    const [{ ticks }] = (await database.query('SELECT ticks FROM units', { type: QueryTypes.SELECT })) as [
      { ticks: object },
    ];
    expect(Object.keys(ticks)).toEqual(['good']);
    await database.close();
  });
});
