import { randomUUID } from 'node:crypto';
import {
  IDEMPOTENCY_HEADER,
  writeAnswerSchema,
  type ProblemDocument,
  type UnitResource,
  type WriteAnswer,
} from '@zemble/contract';
import { Sequelize } from 'sequelize';
import { inject } from 'vitest';
import { buildApp, type App, type AppOptions } from '../app.ts';
import { connect } from '../database/connect.ts';
import { migrate } from '../database/migrate.ts';
import { EditsFeed } from '../features/edits/feed.ts';

export interface TestAnswer {
  readonly status: number;
  /** The unit as it is after the write. */
  readonly unit: UnitResource;
  readonly answer: WriteAnswer;
  readonly problem: ProblemDocument;
  readonly contentType: string;
}

export interface TestApp {
  readonly app: App;
  readonly databaseUrl: string;
  readonly write: (
    method: 'POST' | 'PUT' | 'PATCH',
    path: string,
    body: object,
    key?: string,
  ) => Promise<TestAnswer>;
  readonly get: (path: string) => Promise<{ status: number; body: unknown }>;
  readonly close: () => Promise<void>;
}

/** A fresh database that belongs to the application's role, as everywhere: its URL. */
export async function freshDatabase(): Promise<string> {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const url = new URL(inject('databaseUrl'));
  const root = new Sequelize(inject('superUrl'), { logging: false });
  await root.query(`CREATE DATABASE ${name} OWNER ${url.username}`);
  await root.close();
  url.pathname = `/${name}`;
  return url.href;
}

/** The application on a fresh database of its own. */
export async function openTestApp(options: Partial<AppOptions> = {}): Promise<TestApp> {
  const databaseUrl = await freshDatabase();
  const database = connect(databaseUrl);
  await migrate(database);
  const feed = await EditsFeed.open(databaseUrl);
  const app = await buildApp({ database, feed, ...options });
  return {
    app,
    databaseUrl,
    async write(method, path, body, key = randomUUID()) {
      const answer = await app.inject({
        method,
        url: `/api/v1${path}`,
        headers: { [IDEMPOTENCY_HEADER]: key },
        payload: body,
      });
      const json: unknown = answer.json();
      const written = writeAnswerSchema.safeParse(json);
      const read = written.success ? await app.inject({ url: `/api/v1/units/${written.data.unitId}` }) : null;
      return {
        status: answer.statusCode,
        unit: read?.json<UnitResource>() as UnitResource,
        answer: json as WriteAnswer,
        problem: json as ProblemDocument,
        contentType: String(answer.headers['content-type']),
      };
    },
    async get(path) {
      const answer = await app.inject({ method: 'GET', url: `/api/v1${path}` });
      return { status: answer.statusCode, body: answer.json() };
    },
    async close() {
      await app.close();
      await database.close();
    },
  };
}
