import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, expect, test } from 'vitest';
import { takeFormerFolder } from './former-name.mjs';
import { Cluster, throwawayFolder } from './postgres.mjs';

let folder;
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** Roles, database and marker as a start under the former name left them; `isHalfDone` as if a start was killed on the way. */
async function formerCluster(isHalfDone) {
  folder = throwawayFolder();
  const cluster = await Cluster.open({ folder });
  const sql = (user, database, text) => {
    const { status, stderr } = cluster.psql(user, database, text);
    expect(status, stderr).toBe(0);
  };
  sql(
    'zemble',
    'zemble',
    "CREATE TABLE kept (words text); INSERT INTO kept VALUES ('R4 reads 62k'); ALTER TABLE kept OWNER TO zemble_app;",
  );
  sql('zemble', 'postgres', `CREATE ROLE other SUPERUSER LOGIN PASSWORD '${cluster.password}';`);
  sql('other', 'postgres', 'ALTER ROLE zemble_app RENAME TO halfsplit_app;');
  if (!isHalfDone) sql('other', 'postgres', "SELECT 'ALTER DATABASE zemble RENAME TO halfsplit' \\gexec");
  sql('other', 'postgres', 'ALTER ROLE zemble RENAME TO halfsplit;');
  writeFileSync(join(folder, 'pg-ready'), 'ready\n');
  await cluster.stop();
}

test.each([false, true])(
  'a data folder of the former name is taken over with all that is in it (killed on the way: %s)',
  async (isHalfDone) => {
    await formerCluster(isHalfDone);
    const cluster = await Cluster.open({ folder });
    try {
      const app = cluster.run('psql', [cluster.url, '-At', '-c', 'SELECT words FROM kept']);
      expect(app.stdout.trim(), app.stderr).toBe('R4 reads 62k');
      expect(cluster.psql('zemble', 'postgres', 'SELECT 1').status).toBe(0);
      const roles = cluster.run('psql', [
        cluster.superUrl,
        '-At',
        '-c',
        'SELECT rolname FROM pg_roles',
      ]).stdout;
      expect(roles).not.toMatch(/halfsplit|mover/);
      expect(readFileSync(join(folder, 'pg-ready'), 'utf8')).toBe('zemble\n');
    } finally {
      await cluster.stop();
    }
  },
);

test('a folder of the former name is not laid over one of now', () => {
  folder = throwawayFolder();
  for (const name of ['former', 'now']) {
    mkdirSync(join(folder, name), { recursive: true });
    writeFileSync(join(folder, name, 'words'), name);
  }
  takeFormerFolder(join(folder, 'former'), join(folder, 'now'));
  expect(readFileSync(join(folder, 'now', 'words'), 'utf8')).toBe('now');
  takeFormerFolder(join(folder, 'former'), join(folder, 'later'));
  expect(readFileSync(join(folder, 'later', 'words'), 'utf8')).toBe('former');
});
