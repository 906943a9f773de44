import { DataTypes, type QueryInterface } from 'sequelize';

/** The equivalent series resistance that was read with a capacity. */
export async function up(query: QueryInterface): Promise<void> {
  await query.addColumn('readings', 'esr', { type: DataTypes.DOUBLE });
}

export async function down(query: QueryInterface): Promise<void> {
  await query.removeColumn('readings', 'esr');
}
