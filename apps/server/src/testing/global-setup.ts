import { rmSync } from 'node:fs';
import type { TestProject } from 'vitest/node';
// @ts-expect-error the scripts are plain JavaScript, so that they run before anything is installed
import { Cluster, throwawayFolder } from '../../../../scripts/lib/postgres.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    /** As the application reaches its database; and as who may make databases does. */
    databaseUrl: string;
    superUrl: string;
  }
}

/** One real PostgreSQL in a throwaway folder for all tests of a run. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder: string = throwawayFolder();
  const cluster = await Cluster.open({ folder });
  project.provide('databaseUrl', cluster.url);
  project.provide('superUrl', cluster.superUrl);
  return async () => {
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
