import { existsSync, renameSync } from 'node:fs';
import { Sorry } from './root.mjs';

/** What the product was called before: data folders of that name are taken over, and nothing in them is lost. */
export const FORMER = 'halfsplit';
/** Nobody renames himself: a superuser for the moment in between. */
const MOVER = 'zemble_mover';

/** A data folder under its former name gets the one of now, where there is none yet. */
export function takeFormerFolder(former, now) {
  if (existsSync(former) && !existsSync(now)) renameSync(former, now);
}

/**
 * Gives the roles and the database of a cluster that was made under the former name those of now. A start that is killed in
 * between goes on where it was.
 *
 * @param cluster runs `psql(user, database, sql)` with the superuser's password
 */
export function takeFormerRoles(cluster, { superuser, role, database }) {
  const renamed = cluster.psql(
    FORMER,
    'postgres',
    `
    SELECT 'ALTER DATABASE ${FORMER} RENAME TO ${database}' FROM pg_database WHERE datname = '${FORMER}' \\gexec
    SELECT 'ALTER ROLE ${FORMER}_app RENAME TO ${role}' FROM pg_roles WHERE rolname = '${FORMER}_app' \\gexec
    DROP ROLE IF EXISTS ${MOVER};
    CREATE ROLE ${MOVER} SUPERUSER LOGIN PASSWORD '${cluster.password}';`,
  );
  // Killed after this, the superuser goes by the name of now, and only the mover is left to be dropped.
  if (renamed.status === 0) cluster.psql(MOVER, 'postgres', `ALTER ROLE ${FORMER} RENAME TO ${superuser};`);
  const done = cluster.psql(superuser, 'postgres', `DROP ROLE IF EXISTS ${MOVER};`);
  if (done.status !== 0)
    throw new Sorry(
      `The data folder of ${FORMER} could not be taken over: ${(renamed.stderr || done.stderr).trim()}`,
    );
}
