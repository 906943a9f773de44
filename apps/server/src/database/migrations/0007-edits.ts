import { DataTypes, type QueryInterface } from 'sequelize';

const required = { allowNull: false };

/**
 * An edit is what travels: a step of the log keeps what it did, a unit how many it has had and the versions of its fields,
 * and the record of keys only where the answer is found.
 */
export async function up(query: QueryInterface): Promise<void> {
  await query.addColumn('units', 'sequence', { type: DataTypes.INTEGER, ...required, defaultValue: 0 });
  await query.addColumn('units', 'versions', { type: DataTypes.JSONB, ...required, defaultValue: {} });
  await query.addColumn('units', 'is_demo', { type: DataTypes.BOOLEAN, ...required, defaultValue: false });
  await query.sequelize.query(
    `UPDATE units u SET sequence = coalesce((SELECT max(l.sequence) FROM log_entries l WHERE l.unit_id = u.id), 0)`,
  );
  await query.removeColumn('units', 'version');
  await query.addColumn('log_entries', 'effects', { type: DataTypes.JSONB });
  await query.addColumn('log_entries', 'key', { type: DataTypes.TEXT });
  await query.removeColumn('writes', 'answer');
  await query.addColumn('writes', 'unit_id', { type: DataTypes.UUID });
  await query.addColumn('writes', 'sequence', { type: DataTypes.INTEGER });
}

export async function down(query: QueryInterface): Promise<void> {
  for (const column of ['unit_id', 'sequence']) await query.removeColumn('writes', column);
  await query.addColumn('writes', 'answer', { type: DataTypes.JSONB });
  for (const column of ['effects', 'key']) await query.removeColumn('log_entries', column);
  await query.addColumn('units', 'version', { type: DataTypes.INTEGER, ...required, defaultValue: 0 });
  for (const column of ['sequence', 'versions', 'is_demo']) await query.removeColumn('units', column);
}
