import multipart from '@fastify/multipart';
import sse from '@fastify/sse';
import swagger from '@fastify/swagger';
import { API_ROOT } from '@halfsplit/contract';
import fastify, {
  type FastifyBaseLogger,
  type FastifyInstance,
  type RawReplyDefaultExpression,
  type RawRequestDefaultExpression,
  type RawServerDefault,
} from 'fastify';
import {
  jsonSchemaTransform,
  serializerCompiler,
  validatorCompiler,
  type ZodTypeProvider,
} from 'fastify-type-provider-zod';
import type { Sequelize } from 'sequelize';
import { evidenceRoutes } from './features/evidence/routes.ts';
import { photoRoutes } from './features/photos/routes.ts';
import type { EditsFeed } from './features/edits/feed.ts';
import { editRoutes } from './features/edits/routes.ts';
import { logRoutes } from './features/log/routes.ts';
import { partRoutes } from './features/parts/routes.ts';
import { planRoutes } from './features/plan/routes.ts';
import { readingRoutes } from './features/readings/routes.ts';
import { readoutRoutes } from './features/readouts/routes.ts';
import { unitRoutes } from './features/units/routes.ts';
import { problemErrors } from './plugins/problems.ts';
import { refuseUnkeepable } from './plugins/keepable.ts';
import { refuseStrangers } from './plugins/hosts.ts';
import { webPlugins } from './plugins/web.ts';

declare module 'fastify' {
  interface FastifyInstance {
    database: Sequelize;
    feed: EditsFeed;
  }
}

export type App = FastifyInstance<
  RawServerDefault,
  RawRequestDefaultExpression,
  RawReplyDefaultExpression,
  FastifyBaseLogger,
  ZodTypeProvider
>;

export interface AppOptions {
  readonly database: Sequelize;
  /** Tells of edits, of this process and of others on the database; closed with the application. */
  readonly feed: EditsFeed;
  /** Folder of the built page; without it only the API is served. */
  readonly webRoot?: string;
  readonly logLevel?: string;
  /** Names by which it may be reached beside those of this machine. */
  readonly hosts?: readonly string[];
}

/** Time that requests have to end when the server stops. */
const CLOSING_MS = 1500;
/** Largest request body: a unit file of 10 MB in its JSON string. */
const BODY_LIMIT = 12 * 1024 * 1024;

/** Builds the application; the caller listens, and closes it. */
export async function buildApp(options: AppOptions): Promise<App> {
  const app = fastify({
    logger: { level: options.logLevel ?? 'warn' },
    bodyLimit: BODY_LIMIT,
  }).withTypeProvider<ZodTypeProvider>();
  app.decorate('database', options.database);
  app.decorate('feed', options.feed);
  app.addHook('preClose', async () => {
    await options.feed.close();
    // What is being answered may end; a browser's spare connection, on which nothing was ever asked, would hold on.
    setTimeout(() => app.server.closeAllConnections(), CLOSING_MS).unref();
  });
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  problemErrors(app);
  refuseStrangers(app, options.hosts ?? []);
  refuseUnkeepable(app);
  await app.register(multipart);
  await app.register(sse);
  await app.register(swagger, {
    openapi: {
      info: {
        title: 'Halfsplit',
        version: '1',
        description: 'Units on the bench, their parts, readings and log.',
      },
    },
    transform: jsonSchemaTransform,
  });
  await webPlugins(app, options.webRoot);
  await app.register(
    async (api) => {
      const typed = api.withTypeProvider<ZodTypeProvider>() as App;
      unitRoutes(typed);
      partRoutes(typed);
      readingRoutes(typed);
      readoutRoutes(typed);
      planRoutes(typed);
      evidenceRoutes(typed);
      photoRoutes(typed);
      editRoutes(typed);
      logRoutes(typed);
      // Whether it runs, and whether it can do its work; whoever watches is not counted by the rate limit.
      typed.get('/health', { schema: { hide: true }, config: { rateLimit: false } }, () => ({ ok: true }));
      typed.get('/ready', { schema: { hide: true }, config: { rateLimit: false } }, async () => {
        await options.database.query('SELECT 1');
        return { ok: true };
      });
      typed.get('/openapi.json', { schema: { hide: true } }, async () => app.swagger());
    },
    { prefix: API_ROOT },
  );
  return app;
}
