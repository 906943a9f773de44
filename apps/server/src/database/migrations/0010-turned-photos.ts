import { DataTypes, type QueryInterface } from 'sequelize';

/** A turned photo keeps its picture; by how many quarters it is turned stands beside it. */
export async function up(query: QueryInterface): Promise<void> {
  await query.addColumn('photos', 'turn', { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 });
}

export async function down(query: QueryInterface): Promise<void> {
  await query.removeColumn('photos', 'turn');
}
