import { DataTypes, type QueryInterface } from 'sequelize';

/** Which pin had the red lead, whether the controls stood as drawn, and where a value from a change lies. */
export async function up(query: QueryInterface): Promise<void> {
  await query.addColumn('readings', 'red', { type: DataTypes.TEXT });
  await query.addColumn('readings', 'is_as_drawn', {
    type: DataTypes.BOOLEAN,
    allowNull: false,
    defaultValue: false,
  });
  await query.addColumn('readings', 'between', { type: DataTypes.JSONB });
}

export async function down(query: QueryInterface): Promise<void> {
  for (const column of ['red', 'is_as_drawn', 'between']) await query.removeColumn('readings', column);
}
