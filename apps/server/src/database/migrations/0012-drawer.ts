import { DataTypes, type QueryInterface } from 'sequelize';

const required = { allowNull: false };

/** The drawer of the workshop, and what changes took from it or brought into it. */
export async function up(query: QueryInterface): Promise<void> {
  await query.createTable('stock', {
    id: { type: DataTypes.UUID, primaryKey: true },
    version: { type: DataTypes.INTEGER, ...required },
    count: { type: DataTypes.INTEGER, ...required },
    item: { type: DataTypes.JSONB, ...required },
  });
  await query.sequelize.query('ALTER TABLE stock ADD CONSTRAINT stock_count CHECK (count >= 0)');
  await query.createTable('stock_moves', {
    id: { type: DataTypes.UUID, primaryKey: true },
    unit_id: {
      type: DataTypes.UUID,
      ...required,
      references: { model: 'units', key: 'id' },
      onDelete: 'CASCADE',
    },
    change_id: { type: DataTypes.TEXT, ...required },
    ref: { type: DataTypes.TEXT, ...required },
    direction: { type: DataTypes.TEXT, ...required },
    stock_id: {
      type: DataTypes.UUID,
      references: { model: 'stock', key: 'id' },
      onDelete: 'SET NULL',
    },
  });
  await query.addIndex('stock_moves', ['unit_id', 'change_id']);
}

export async function down(query: QueryInterface): Promise<void> {
  await query.dropTable('stock_moves');
  await query.dropTable('stock');
}
