import compress from '@fastify/compress';
import helmet from '@fastify/helmet';
import rateLimit from '@fastify/rate-limit';
import fastifyStatic from '@fastify/static';
import { existsSync } from 'node:fs';
import { sep } from 'node:path';
import type { FastifyInstance } from 'fastify';
import { unknownPath } from './problems.ts';

/** Requests a minute from one address: far above a busy bench, far below a runaway loop. */
const REQUESTS_PER_MINUTE = 3000;

/** Shorter answers are not worth compressing, bytes. */
const LEAST_COMPRESSED = 1024;

/** Security headers, compression, the rate limit, and the built page with its fallback for the routes of the browser. */
export async function webPlugins(app: FastifyInstance, webRoot: string | undefined): Promise<void> {
  await app.register(helmet, {
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        // The component library writes its styles into the page.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:'],
        workerSrc: ["'self'"],
        upgradeInsecureRequests: null,
      },
    },
    strictTransportSecurity: false,
  });
  await app.register(compress, { threshold: LEAST_COMPRESSED });
  await app.register(rateLimit, { max: REQUESTS_PER_MINUTE, timeWindow: '1 minute' });
  if (webRoot === undefined || !existsSync(webRoot)) {
    app.setNotFoundHandler((request) => {
      throw unknownPath(request.url);
    });
    return;
  }
  await app.register(fastifyStatic, {
    root: webRoot,
    wildcard: false,
    cacheControl: false,
    setHeaders: (answer, path) => {
      // Files under assets carry the hash of what they hold in their name.
      const isHashed = path.includes(`${sep}assets${sep}`);
      answer.header('cache-control', isHashed ? 'public, max-age=31536000, immutable' : 'no-cache');
    },
  });
  app.setNotFoundHandler((request, reply) => {
    const isFile = /\.[a-z0-9]+$/i.test(request.url.split('?')[0]!);
    if (request.url.startsWith('/api/') || request.method !== 'GET' || isFile) throw unknownPath(request.url);
    return reply.header('cache-control', 'no-cache').sendFile('index.html');
  });
}
