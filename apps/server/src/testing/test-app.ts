import { randomUUID } from 'node:crypto';
import { IDEMPOTENCY_HEADER, type ProblemDocument, type UnitResource } from '@halfsplit/contract';
import { Sequelize } from 'sequelize';
import { inject } from 'vitest';
import { buildApp, type App } from '../app.ts';
import { connect } from '../database/connect.ts';
import { migrate } from '../database/migrate.ts';

export interface TestAnswer {
  readonly status: number;
  readonly unit: UnitResource;
  readonly problem: ProblemDocument;
  readonly contentType: string;
}

export interface TestApp {
  readonly app: App;
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
  const app = await buildApp({ database, logLevel: 'silent' });
  return {
    app,
    async write(method, path, body, key = randomUUID()) {
      const answer = await app.inject({
        method,
        url: `/api/v1${path}`,
        headers: { [IDEMPOTENCY_HEADER]: key },
        payload: body,
      });
      const json: unknown = answer.json();
      return {
        status: answer.statusCode,
        unit: json as UnitResource,
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
