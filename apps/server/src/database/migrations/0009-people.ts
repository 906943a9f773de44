import { DataTypes, type QueryInterface } from 'sequelize';

const required = { allowNull: false };
const person = {
  type: DataTypes.UUID,
  ...required,
  references: { model: 'people', key: 'id' },
  onDelete: 'CASCADE',
};

/** Where the bench is reached from other machines, people have names, and a step of the log says whose it is. */
export async function up(query: QueryInterface): Promise<void> {
  await query.createTable('people', {
    id: { type: DataTypes.UUID, primaryKey: true },
    name: { type: DataTypes.TEXT, ...required },
    passphrase: { type: DataTypes.TEXT, ...required },
    is_owner: { type: DataTypes.BOOLEAN, ...required },
    created_at: { type: DataTypes.DATE, ...required },
  });
  await query.sequelize.query('CREATE UNIQUE INDEX people_name ON people (lower(name))');
  await query.createTable('sessions', {
    token: { type: DataTypes.TEXT, primaryKey: true },
    person_id: person,
    created_at: { type: DataTypes.DATE, ...required },
    seen_at: { type: DataTypes.DATE, ...required },
  });
  await query.createTable('pairings', {
    code: { type: DataTypes.TEXT, primaryKey: true },
    person_id: person,
    expires_at: { type: DataTypes.DATE, ...required },
    used_at: { type: DataTypes.DATE },
  });
  await query.createTable('attempts', {
    key: { type: DataTypes.TEXT, primaryKey: true },
    count: { type: DataTypes.INTEGER, ...required },
    blocked_until: { type: DataTypes.DATE, ...required },
    at: { type: DataTypes.DATE, ...required },
  });
  await query.addColumn('log_entries', 'by', { type: DataTypes.TEXT });
}

export async function down(query: QueryInterface): Promise<void> {
  await query.removeColumn('log_entries', 'by');
  for (const table of ['attempts', 'pairings', 'sessions', 'people']) await query.dropTable(table);
}
