import { DEMO_UNITS } from '@halfsplit/demo';
import { buildApp } from './app.ts';
import { connect } from './database/connect.ts';
import { alone, migrate } from './database/migrate.ts';
import { isEmpty, loadDemo } from './features/demo/service.ts';
import { EditsFeed } from './features/edits/feed.ts';
import { forgetDeleted } from './features/units/repository.ts';
import { forgetOldEffects } from './features/edits/repository.ts';
import { forgetOldWrites } from './writes.ts';

/** How the start command tells the server what to do. */
const environment = process.env;
const databaseUrl = environment.HALFSPLIT_DATABASE_URL;
if (databaseUrl === undefined) {
  process.stderr.write(
    'HALFSPLIT_DATABASE_URL is not set; use "npm start", which starts the database too.\n',
  );
  process.exit(2);
}
/** What is old is forgotten at the start and every so often, ms. */
const TIDY_MS = 6 * 3600 * 1000;
const port = Number(environment.HALFSPLIT_PORT ?? '4780');
const demo = environment.HALFSPLIT_DEMO ?? 'first';

const database = connect(databaseUrl);
await alone(database, async () => {
  await migrate(database);
  if (demo === 'reset' || (demo === 'first' && (await isEmpty())))
    await loadDemo(database, DEMO_UNITS, demo === 'reset');
});
const tidy = async () => {
  await forgetOldWrites();
  await forgetOldEffects();
  await forgetDeleted(database);
};
await tidy();
const tidying = setInterval(() => void tidy().catch(() => undefined), TIDY_MS);
tidying.unref();
const webRoot = environment.HALFSPLIT_WEB_ROOT;
const app = await buildApp({
  database,
  feed: await EditsFeed.open(databaseUrl),
  hosts: (environment.HALFSPLIT_HOSTS ?? '').split(',').filter(Boolean),
  ...(webRoot === undefined ? {} : { webRoot }),
});
const address = await app.listen({ port, host: '127.0.0.1' });
process.send?.({ listening: address });

async function stop(): Promise<void> {
  await app.close();
  await database.close();
  process.exit(0);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
process.on('disconnect', () => void stop());
