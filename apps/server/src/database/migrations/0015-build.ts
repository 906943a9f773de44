import { DataTypes, type QueryInterface } from 'sequelize';

/** Fields of a unit for building it: wires, boards, panels, and the steps of the bench work that were ticked. */
const COLUMNS = { wires: [], boards: [], panels: [], ticks: {} } as const;

/**
 * A unit keeps its wires, boards and panels, and what was ticked of its bench work. Where an older version took them from a file
 * without using them, they come from what it kept.
 */
export async function up(query: QueryInterface): Promise<void> {
  for (const [column, empty] of Object.entries(COLUMNS))
    await query.addColumn('units', column, { type: DataTypes.JSONB, allowNull: false, defaultValue: empty });
  for (const column of ['wires', 'boards', 'panels'])
    await query.sequelize.query(
      `UPDATE units SET ${column} = extra->'file'->'${column}', extra = extra #- '{file,${column}}'
       WHERE jsonb_typeof(extra->'file'->'${column}') = 'array'`,
    );
  await query.sequelize.query(
    `UPDATE units SET ticks = extra->'file'->'bench'->'ticks', extra = extra #- '{file,bench}'
     WHERE jsonb_typeof(extra->'file'->'bench'->'ticks') = 'object'`,
  );
}

export async function down(query: QueryInterface): Promise<void> {
  for (const column of Object.keys(COLUMNS)) await query.removeColumn('units', column);
}
