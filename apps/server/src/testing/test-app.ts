import { randomUUID } from 'node:crypto';
import {
  IDEMPOTENCY_HEADER,
  writeAnswerSchema,
  type ProblemDocument,
  type UnitResource,
  type WriteAnswer,
} from '@halfsplit/contract';
import { Sequelize } from 'sequelize';
import { inject } from 'vitest';
import { buildApp, type App } from '../app.ts';
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

/** The application on a fresh database of its own. */
export async function openTestApp(): Promise<TestApp> {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const root = new Sequelize(inject('databaseUrl'), { logging: false });
  await root.query(`CREATE DATABASE ${name}`);
  await root.close();
  const url = new URL(inject('databaseUrl'));
  url.pathname = `/${name}`;
  const database = connect(url.href);
  await migrate(database);
  const feed = await EditsFeed.open(url.href);
  const app = await buildApp({ database, feed, logLevel: 'silent' });
  return {
    app,
    databaseUrl: url.href,
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
