import { DataTypes, type QueryInterface } from 'sequelize';

/** A unit can be put away, and deleted. */
export async function up(query: QueryInterface): Promise<void> {
  await query.addColumn('units', 'place', { type: DataTypes.TEXT, allowNull: false, defaultValue: 'bench' });
}

export async function down(query: QueryInterface): Promise<void> {
  await query.removeColumn('units', 'place');
}
