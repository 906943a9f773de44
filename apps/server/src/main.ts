import { DEMO_DRAWER, DEMO_UNITS } from '@zemble/demo';
import { buildApp } from './app.ts';
import { connect } from './database/connect.ts';
import { forgetOldWrites } from './database/keys.ts';
import { alone, migrate } from './database/migrate.ts';
import { ApiError } from './errors.ts';
import { keepDailyCopy } from './features/archive/copies.ts';
import { restoreArchive } from './features/archive/read.ts';
import { loadDemo, loadDemoDrawer } from './features/demo/service.ts';
import { EditsFeed } from './features/edits/feed.ts';
import { forgetOldEffects } from './features/edits/repository.ts';
import { namesOnNetwork } from './features/people/addresses.ts';
import { forgetAttempts, forgetSessions, personByName } from './features/people/repository.ts';
import { offerPairing } from './features/people/service.ts';
import { forgetDeleted, isEmpty } from './features/units/repository.ts';
import { serverLog } from './log.ts';

/** How the start command tells the server what to do. */
const {
  ZEMBLE_DATABASE_URL: databaseUrl,
  ZEMBLE_PORT: portText = '4780',
  ZEMBLE_DEMO: demo = 'first',
  ZEMBLE_HOSTS: hosts = '',
  ZEMBLE_LAN: lan,
  ZEMBLE_WEB_ROOT: webRoot,
  ZEMBLE_RESTORE: restoreFrom,
  ZEMBLE_LEAVE_OUT: leaveOut,
  ZEMBLE_COPIES: copiesFolder,
  ZEMBLE_LOG: logFile,
  ZEMBLE_LET_IN: letInName,
} = process.env;

/** Ends with one sentence where a person can do something about it. */
function giveUp(sentence: string): never {
  process.stderr.write(`${sentence}\n`);
  process.exit(2);
}

/** What is old is forgotten, and the day's copy made, at the start and every so often, ms. */
const TIDY_MS = 6 * 3600 * 1000;

if (databaseUrl === undefined)
  giveUp('ZEMBLE_DATABASE_URL is not set; use "npm start", which starts the database too.');
const port = Number(portText);
const isOnNetwork = lan === 'yes';
const database = connect(databaseUrl);
try {
  await alone(database, async (transaction) => {
    await migrate(database);
    if (restoreFrom !== undefined) {
      const { count, leftOut } = await restoreArchive(database, restoreFrom, transaction, {
        leavesOut: leaveOut === 'yes',
      });
      process.stdout.write(`${count} units are restored from ${restoreFrom}.\n`);
      for (const sentence of leftOut) process.stdout.write(`Left out: ${sentence}\n`);
    } else if (demo === 'reset' || (demo === 'first' && (await isEmpty()))) {
      await loadDemo(database, DEMO_UNITS, demo === 'reset');
      await loadDemoDrawer(database, DEMO_DRAWER);
    }
  });
} catch (error) {
  if (!(error instanceof ApiError)) throw error;
  giveUp(`${error.message} ${error.hint ?? ''}`);
}
const app = await buildApp({
  database,
  feed: await EditsFeed.open(databaseUrl),
  isOnNetwork,
  hosts: hosts.split(',').filter(Boolean),
  logger: serverLog(logFile),
  ...(webRoot === undefined ? {} : { webRoot }),
});
const tidy = async () => {
  await forgetOldWrites();
  await forgetOldEffects();
  await forgetDeleted(database);
  await forgetAttempts(database);
  await forgetSessions();
  if (copiesFolder !== undefined) await keepDailyCopy(database, copiesFolder);
};
const tidyOrSay = () => tidy().catch((error: unknown) => app.log.error(error));
const address = await app.listen({ port, host: isOnNetwork ? '0.0.0.0' : '127.0.0.1' });
void tidyOrSay();
setInterval(() => void tidyOrSay(), TIDY_MS).unref();
process.send?.({
  listening: isOnNetwork ? `http://localhost:${port}` : address,
  elsewhere: isOnNetwork ? namesOnNetwork().map((name) => `http://${name}:${port}`) : [],
});
if (letInName !== undefined && isOnNetwork) {
  const person = await personByName(letInName);
  const { code } = person ? await offerPairing(person.id) : { code: null };
  process.stdout.write(
    code === null
      ? `There is nobody called ${letInName} at this bench.\n`
      : `For two minutes, ${letInName} is let in once by http://localhost:${port}/pair#${code}\n`,
  );
}

async function stop(): Promise<void> {
  await app.close();
  await database.close();
  process.exit(0);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
process.on('disconnect', () => void stop());
