import { DataTypes, type QueryInterface } from 'sequelize';

const reference = (model: string) => ({ references: { model, key: 'id' }, onDelete: 'CASCADE' as const });
const required = { allowNull: false };

/** Units, their parts, readouts, readings and log, and the record of writes. */
export async function up(query: QueryInterface): Promise<void> {
  await query.createTable('units', {
    id: { type: DataTypes.UUID, primaryKey: true },
    number: { type: DataTypes.INTEGER, autoIncrement: true, unique: true, ...required },
    version: { type: DataTypes.INTEGER, ...required },
    name: { type: DataTypes.TEXT, ...required },
    kind: { type: DataTypes.TEXT, ...required },
    hazards: { type: DataTypes.JSONB, ...required },
    notes: { type: DataTypes.TEXT, ...required },
    stage: { type: DataTypes.TEXT, ...required },
    ground: { type: DataTypes.TEXT, ...required },
    nudges: { type: DataTypes.JSONB, ...required },
    extra: { type: DataTypes.JSONB, ...required },
    last_activity_at: { type: DataTypes.DATE, ...required },
  });
  await query.createTable('parts', {
    id: { type: DataTypes.UUID, primaryKey: true },
    unit_id: { type: DataTypes.UUID, ...required, ...reference('units') },
    version: { type: DataTypes.INTEGER, ...required },
    position: { type: DataTypes.INTEGER, ...required },
    ref: { type: DataTypes.TEXT, ...required },
    kind: { type: DataTypes.TEXT, ...required },
    pins: { type: DataTypes.JSONB, ...required },
    marked: { type: DataTypes.JSONB },
    planned: { type: DataTypes.JSONB },
    proven: { type: DataTypes.JSONB },
    extra: { type: DataTypes.JSONB, ...required },
    removed_at: { type: DataTypes.DATE },
  });
  await query.createTable('readouts', {
    id: { type: DataTypes.UUID, primaryKey: true },
    unit_id: { type: DataTypes.UUID, ...required, ...reference('units') },
    version: { type: DataTypes.INTEGER, ...required },
    position: { type: DataTypes.INTEGER, ...required },
    definition: { type: DataTypes.JSONB, ...required },
    removed_at: { type: DataTypes.DATE },
  });
  await query.createTable('readings', {
    id: { type: DataTypes.UUID, primaryKey: true },
    unit_id: { type: DataTypes.UUID, ...required, ...reference('units') },
    part_id: { type: DataTypes.UUID, ...reference('parts') },
    readout_id: { type: DataTypes.UUID, ...reference('readouts') },
    value: { type: DataTypes.JSONB, ...required },
    condition: { type: DataTypes.TEXT, ...required },
    instrument: { type: DataTypes.TEXT },
    taken_at: { type: DataTypes.DATE, ...required },
    withdrawn_at: { type: DataTypes.DATE },
  });
  await query.sequelize.query(
    'ALTER TABLE readings ADD CONSTRAINT readings_one_subject CHECK ((part_id IS NULL) <> (readout_id IS NULL))',
  );
  await query.createTable('log_entries', {
    id: { type: DataTypes.UUID, primaryKey: true },
    unit_id: { type: DataTypes.UUID, ...required, ...reference('units') },
    sequence: { type: DataTypes.INTEGER, ...required },
    at: { type: DataTypes.DATE, ...required },
    kind: { type: DataTypes.TEXT, ...required },
    summary: { type: DataTypes.TEXT, ...required },
    inverse: { type: DataTypes.JSONB, ...required },
    undone_at: { type: DataTypes.DATE },
  });
  await query.createTable('writes', {
    key: { type: DataTypes.TEXT, primaryKey: true },
    fingerprint: { type: DataTypes.TEXT, ...required },
    status: { type: DataTypes.INTEGER },
    answer: { type: DataTypes.JSONB },
    created_at: { type: DataTypes.DATE, ...required, defaultValue: DataTypes.NOW },
  });
  await query.addIndex('parts', ['unit_id', 'position']);
  await query.addIndex('readouts', ['unit_id', 'position']);
  await query.addIndex('readings', ['unit_id', 'taken_at']);
  await query.addIndex('readings', ['part_id']);
  await query.addIndex('log_entries', ['unit_id', 'sequence'], { unique: true });
}

export async function down(query: QueryInterface): Promise<void> {
  for (const table of ['writes', 'log_entries', 'readings', 'readouts', 'parts', 'units'])
    await query.dropTable(table);
}
