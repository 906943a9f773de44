import { DataTypes, QueryTypes, type QueryInterface } from 'sequelize';
import { plannedChanges } from './frozen-planned-values.ts';

const required = { allowNull: false };

/**
 * What is planned, done and temporary are changes of a circuit; a part's planned value becomes one. A reading says which
 * change put in what was read. Steps that set planned values can no longer be taken back: those are no values of parts now.
 */
export async function up(query: QueryInterface): Promise<void> {
  await query.createTable('changes', {
    id: { type: DataTypes.UUID, primaryKey: true },
    unit_id: {
      type: DataTypes.UUID,
      ...required,
      references: { model: 'units', key: 'id' },
      onDelete: 'CASCADE',
    },
    version: { type: DataTypes.INTEGER, ...required },
    position: { type: DataTypes.INTEGER, ...required },
    definition: { type: DataTypes.JSONB, ...required },
    removed_at: { type: DataTypes.DATE },
  });
  await query.addIndex('changes', ['unit_id']);
  await query.addColumn('units', 'sets', { type: DataTypes.JSONB, ...required, defaultValue: [] });
  await query.addColumn('readings', 'change_id', { type: DataTypes.UUID });
  await query.addColumn('readings', 'ref', { type: DataTypes.TEXT });
  await query.sequelize.query('ALTER TABLE readings DROP CONSTRAINT readings_one_subject');
  await query.sequelize.query(
    `ALTER TABLE readings ADD CONSTRAINT readings_one_subject
     CHECK (num_nonnulls(part_id, readout_id, ref) = 1 AND (ref IS NULL OR change_id IS NOT NULL))`,
  );
  const parts = await query.sequelize.query<{ unit_id: string; ref: string; planned: unknown }>(
    `SELECT unit_id, ref, planned FROM parts
     WHERE removed_at IS NULL AND jsonb_typeof(planned) <> 'null' ORDER BY unit_id, position`,
    { type: QueryTypes.SELECT },
  );
  const rows = plannedChanges(parts.map(({ unit_id, ...part }) => ({ unitId: unit_id, ...part })));
  if (rows.length > 0)
    await query.bulkInsert(
      'changes',
      rows.map(({ unitId, removedAt, definition, ...row }) => ({
        ...row,
        unit_id: unitId,
        removed_at: removedAt,
        definition: JSON.stringify(definition),
      })),
    );
  await query.sequelize.query(`UPDATE log_entries SET inverse = '[]' WHERE kind = 'plan'`);
  await query.removeColumn('parts', 'planned');
}

export async function down(query: QueryInterface): Promise<void> {
  await query.addColumn('parts', 'planned', { type: DataTypes.JSONB });
  await query.sequelize.query('ALTER TABLE readings DROP CONSTRAINT readings_one_subject');
  await query.sequelize.query('DELETE FROM readings WHERE ref IS NOT NULL');
  await query.sequelize.query(
    'ALTER TABLE readings ADD CONSTRAINT readings_one_subject CHECK ((part_id IS NULL) <> (readout_id IS NULL))',
  );
  for (const column of ['change_id', 'ref']) await query.removeColumn('readings', column);
  await query.removeColumn('units', 'sets');
  await query.dropTable('changes');
}
