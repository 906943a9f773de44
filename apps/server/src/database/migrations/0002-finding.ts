import { DataTypes, type QueryInterface } from 'sequelize';

const reference = (model: string) => ({ references: { model, key: 'id' }, onDelete: 'CASCADE' as const });
const required = { allowNull: false };

/** Models, path and intake of a unit, the evidence of its search, and the photos of its boards. */
export async function up(query: QueryInterface): Promise<void> {
  await query.addColumn('units', 'models', { type: DataTypes.JSONB, ...required, defaultValue: [] });
  await query.addColumn('units', 'path', { type: DataTypes.JSONB });
  await query.addColumn('units', 'intake', { type: DataTypes.JSONB, ...required, defaultValue: {} });
  await query.createTable('evidence', {
    id: { type: DataTypes.UUID, primaryKey: true },
    unit_id: { type: DataTypes.UUID, ...required, ...reference('units') },
    definition: { type: DataTypes.JSONB, ...required },
    taken_at: { type: DataTypes.DATE, ...required },
    withdrawn_at: { type: DataTypes.DATE },
  });
  await query.addIndex('evidence', ['unit_id', 'taken_at']);
  await query.createTable('photos', {
    id: { type: DataTypes.UUID, primaryKey: true },
    unit_id: { type: DataTypes.UUID, ...required, ...reference('units') },
    version: { type: DataTypes.INTEGER, ...required },
    position: { type: DataTypes.INTEGER, ...required },
    name: { type: DataTypes.TEXT, ...required },
    width: { type: DataTypes.INTEGER, ...required },
    height: { type: DataTypes.INTEGER, ...required },
    picture: { type: DataTypes.BLOB, ...required },
    points: { type: DataTypes.JSONB, ...required },
    removed_at: { type: DataTypes.DATE },
  });
  await query.addIndex('photos', ['unit_id', 'position']);
}

export async function down(query: QueryInterface): Promise<void> {
  await query.dropTable('photos');
  await query.dropTable('evidence');
  for (const column of ['models', 'path', 'intake']) await query.removeColumn('units', column);
}
