import multipart from '@fastify/multipart';
import sse from '@fastify/sse';
import swagger from '@fastify/swagger';
import { API_ROOT } from '@zemble/contract';
import fastify, {
  type FastifyBaseLogger,
  type FastifyInstance,
  type FastifyServerOptions,
  type RawReplyDefaultExpression,
  type RawRequestDefaultExpression,
  type RawServerDefault,
  type RouteOptions,
} from 'fastify';
import {
  jsonSchemaTransform,
  serializerCompiler,
  validatorCompiler,
  type ZodTypeProvider,
} from 'fastify-type-provider-zod';
import type { Sequelize } from 'sequelize';
import { archiveRoutes } from './features/archive/routes.ts';
import { drawerRoutes } from './features/drawer/routes.ts';
import { workshopRoutes } from './features/workshop/routes.ts';
import { photoRoutes } from './features/photos/routes.ts';
import type { EditsFeed } from './features/edits/feed.ts';
import { editRoutes } from './features/edits/routes.ts';
import { namesOnNetwork } from './features/people/addresses.ts';
import { askForNames, knowPeople } from './features/people/guard.ts';
import { openBenchRoutes, peopleRoutes } from './features/people/routes.ts';
import { recordRoutes } from './features/record/routes.ts';
import { unitRoutes } from './features/units/routes.ts';
import { problemErrors, sendProblem } from './plugins/problems.ts';
import { refuseUnkeepable } from './plugins/keepable.ts';
import { refuseOtherPages, refuseStrangers } from './plugins/hosts.ts';
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
  /** Where it logs; nowhere when absent. */
  readonly logger?: FastifyServerOptions['logger'];
  /** Names by which it may be reached beside those of this machine. */
  readonly hosts?: readonly string[];
  /** True where other machines reach it: then everybody has a name and a passphrase. */
  readonly isOnNetwork?: boolean;
  /** Told each route as it is registered. */
  readonly onRoute?: (route: RouteOptions) => void;
}

/** Time that requests have to end when the server stops. */
const CLOSING_MS = 1500;
/** Largest request body: a unit file of 10 MB in its JSON string. */
const BODY_LIMIT = 12 * 1024 * 1024;

/** Builds the application; the caller listens, and closes it. */
export async function buildApp(options: AppOptions): Promise<App> {
  const app = fastify({
    logger: options.logger ?? false,
    bodyLimit: BODY_LIMIT,
    // A proxy on this machine says whom it asks for.
    trustProxy: 'loopback',
    // An address that cannot be read is answered as every other failure.
    frameworkErrors: (error, request, reply) => void sendProblem(error, request, reply),
  }).withTypeProvider<ZodTypeProvider>();
  if (options.onRoute) app.addHook('onRoute', options.onRoute);
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
  const { hosts = [], isOnNetwork = false } = options;
  refuseStrangers(app, () => (isOnNetwork ? [...hosts, ...namesOnNetwork()] : hosts));
  refuseUnkeepable(app);
  await app.register(multipart);
  await app.register(sse);
  await app.register(swagger, {
    openapi: {
      info: {
        title: 'Zemble',
        version: '1',
        description: 'Units on the bench, their parts, readings and log.',
      },
    },
    transform: jsonSchemaTransform,
  });
  await webPlugins(app, options.webRoot);
  await knowPeople(app);
  await app.register(
    async (api) => {
      const typed = api.withTypeProvider<ZodTypeProvider>() as App;
      refuseOtherPages(typed);
      if (isOnNetwork) askForNames(typed);
      unitRoutes(typed);
      recordRoutes(typed);
      drawerRoutes(typed);
      workshopRoutes(typed);
      photoRoutes(typed);
      editRoutes(typed);
      archiveRoutes(typed);
      if (isOnNetwork) peopleRoutes(typed);
      else openBenchRoutes(typed);
      const unguarded = { rateLimit: false, isPublic: true } as const;
      // Whether it runs, and whether it can do its work; whoever watches is not counted by the rate limit.
      typed.get('/health', { schema: { hide: true }, config: unguarded }, () => ({ ok: true }));
      typed.get('/ready', { schema: { hide: true }, config: unguarded }, async () => {
        await options.database.query('SELECT 1');
        return { ok: true };
      });
      typed.get('/openapi.json', { schema: { hide: true } }, async () => app.swagger());
    },
    { prefix: API_ROOT },
  );
  return app;
}
