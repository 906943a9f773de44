import { DataTypes, type QueryInterface } from 'sequelize';

/** What was read of a part beside its main value: a junction, a gain, a leakage, a contact. */
export async function up(query: QueryInterface): Promise<void> {
  await query.addColumn('readings', 'aspect', { type: DataTypes.TEXT });
}

export async function down(query: QueryInterface): Promise<void> {
  await query.removeColumn('readings', 'aspect');
}
