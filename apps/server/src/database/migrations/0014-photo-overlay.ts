import { DataTypes, type QueryInterface } from 'sequelize';

/** What is drawn over a photo beside its points: its side, its link with another one, tracks. */
export async function up(query: QueryInterface): Promise<void> {
  await query.addColumn('photos', 'overlay', { type: DataTypes.JSONB, allowNull: false, defaultValue: {} });
}

export async function down(query: QueryInterface): Promise<void> {
  await query.removeColumn('photos', 'overlay');
}
