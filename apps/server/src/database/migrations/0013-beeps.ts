import { DataTypes, type QueryInterface } from 'sequelize';

const required = { allowNull: false };

/** What beeped with what while a unit was traced. */
export async function up(query: QueryInterface): Promise<void> {
  await query.createTable('beeps', {
    id: { type: DataTypes.UUID, primaryKey: true },
    unit_id: {
      type: DataTypes.UUID,
      ...required,
      references: { model: 'units', key: 'id' },
      onDelete: 'CASCADE',
    },
    definition: { type: DataTypes.JSONB, ...required },
    taken_at: { type: DataTypes.DATE, ...required },
    withdrawn_at: { type: DataTypes.DATE },
  });
  await query.addIndex('beeps', ['unit_id', 'taken_at']);
}

export async function down(query: QueryInterface): Promise<void> {
  await query.dropTable('beeps');
}
