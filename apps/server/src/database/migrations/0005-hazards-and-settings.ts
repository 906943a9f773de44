import { DataTypes, QueryTypes, type QueryInterface } from 'sequelize';
import { splitHazards } from './frozen-hazards.ts';

const required = { allowNull: false };

/** Hazards become a list of known ones with free notes beside them; a unit keeps settings of its controls. */
export async function up(query: QueryInterface): Promise<void> {
  await query.addColumn('units', 'hazard_notes', { type: DataTypes.TEXT, ...required, defaultValue: '' });
  await query.addColumn('units', 'settings', { type: DataTypes.JSONB, ...required, defaultValue: [] });
  const rows = await query.sequelize.query<{ id: string; hazards: string[] }>(
    'SELECT id, hazards FROM units',
    {
      type: QueryTypes.SELECT,
    },
  );
  for (const { id, hazards } of rows) {
    const known = splitHazards(hazards);
    await query.sequelize.query(
      'UPDATE units SET hazards = CAST(:hazards AS jsonb), hazard_notes = :notes WHERE id = :id',
      {
        type: QueryTypes.UPDATE,
        replacements: { id, hazards: JSON.stringify(known.hazards), notes: known.notes.join('; ') },
      },
    );
  }
}

export async function down(query: QueryInterface): Promise<void> {
  for (const column of ['hazard_notes', 'settings']) await query.removeColumn('units', column);
}
