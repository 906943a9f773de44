import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
let unitId: string;
beforeAll(async () => {
  test = await openTestApp();
  ({ unitId } = (await test.write('POST', '/units', { name: 'Target' })).answer);
});
afterAll(async () => {
  await test.close();
});

const inject = (headers: Record<string, string>) => test.app.inject({ url: '/api/v1/units', headers });

describe('a request from elsewhere', () => {
  it('is refused under a name that is not ours, and when a page of another place made it', async () => {
    expect((await inject({ host: 'localhost:4780' })).statusCode).toBe(200);
    expect((await inject({ host: '127.0.0.1:4780', origin: 'http://127.0.0.1:4780' })).statusCode).toBe(200);
    expect((await inject({ host: '[::1]:4780' })).statusCode).toBe(200);
    const rebound = await inject({ host: 'rebound.example:4780' });
    expect([rebound.statusCode, rebound.json<{ code: string }>().code]).toEqual([403, 'stranger']);
    expect((await inject({ host: 'localhost', origin: 'http://elsewhere.example' })).statusCode).toBe(403);
    expect((await inject({ host: 'localhost', origin: 'null' })).statusCode).toBe(403);
    expect((await inject({ host: 'localhost.elsewhere.example' })).statusCode).toBe(403);
  });
});

describe('what no database keeps', () => {
  it.each([
    ['NUL', { text: 'a\0b' }, 'the character NUL'],
    ['half a character', { text: 'a\ud800b' }, 'half of a character'],
    ['a name with NUL', { text: 'a', extra: { 'x\0': 1 } }, 'the character NUL'],
  ])('%s is refused with its place', async (_, body, words) => {
    const { status, problem } = await test.write('POST', `/units/${unitId}/notes`, body);
    expect(status).toBe(422);
    expect(problem.detail).toContain(words);
  });

  it('nesting without end is refused', async () => {
    const deep = `{"text":"x","y":${'['.repeat(5000)}${']'.repeat(5000)}}`;
    const answer = await test.app.inject({
      method: 'POST',
      url: `/api/v1/units/${unitId}/notes`,
      headers: { 'idempotency-key': randomUUID(), 'content-type': 'application/json' },
      payload: deep,
    });
    expect(answer.statusCode).toBe(422);
    const file = await test.write('POST', '/units/import', { text: `${'['.repeat(300_000)}` });
    expect([file.status, file.problem.detail]).toEqual([422, expect.stringContaining('nested too deep')]);
  });

  it('positions, versions and times beyond all bounds are refused or taken for now', async () => {
    const part = { ref: 'R9', kind: 'resistor', pins: { a: 'x', b: '0' } };
    expect((await test.write('POST', `/units/${unitId}/parts`, { part, position: 2 ** 31 })).status).toBe(
      422,
    );
    expect((await test.write('POST', `/units/${unitId}/undo`, { sequence: 2 ** 40 })).status).toBe(422);
    const { unit } = await test.write('POST', `/units/${unitId}/parts`, { part });
    const reading = { baseVersion: 0, partId: unit.parts[0]!.id, value: 1 };
    for (const takenAt of ['0001-01-01T00:00:00Z', '9999-12-31T00:00:00Z']) {
      const { status, unit: read } = await test.write('POST', `/units/${unitId}/readings`, {
        ...reading,
        takenAt,
      });
      expect(status).toBe(201);
      expect(Math.abs(Date.parse(read.readings.at(-1)!.takenAt) - Date.now())).toBeLessThan(60_000);
    }
  });
});

describe('an id that is taken', () => {
  it('is refused with a sentence, whatever it is of, and never tried again for ever', async () => {
    const id = randomUUID();
    const unit = { id, name: 'Twice' };
    const part = { id: randomUUID(), part: { ref: 'R1', kind: 'resistor', pins: { a: 'x', b: '0' } } };
    const readout = { id: randomUUID(), readout: { id: 'v', name: 'V', kind: 'voltage', net: 'x' } };
    const evidence = { id: randomUUID(), at: 'x', saw: 'good' };
    const file = JSON.stringify({
      format: 'zemble/unit',
      version: 1,
      unit: { name: 'From a file' },
      circuit: { ground: '0', parts: [] },
    });
    const twice: (readonly [path: string, first: object, again: object])[] = [
      ['/units', unit, unit],
      [`/units/${id}/parts`, part, { ...part, part: { ...part.part, ref: 'R2' } }],
      [`/units/${id}/readouts`, readout, { ...readout, readout: { ...readout.readout, id: 'w' } }],
      [`/units/${id}/evidence`, evidence, evidence],
    ];
    for (const [path, first, again] of twice) {
      expect((await test.write('POST', path, first)).status, path).toBe(201);
      const { status, problem } = await test.write('POST', path, again);
      expect([status, problem.code], path).toEqual([422, 'taken']);
      expect(problem.detail).toContain('already');
    }
    const imported = await test.write('POST', '/units/import', { id, text: file });
    expect([imported.status, imported.problem.code]).toEqual([422, 'taken']);
    expect((await test.get(`/units/${id}`)).body).toMatchObject({ name: 'Twice', sequence: 4 });
  });
});

describe('a form', () => {
  const send = (contentType: string, payload: Buffer | string) =>
    test.app.inject({
      method: 'POST',
      url: `/api/v1/units/${unitId}/photos`,
      headers: { 'idempotency-key': randomUUID(), 'content-type': contentType },
      payload,
    });
  it('without a boundary, cut short, or without a picture is refused with a sentence', async () => {
    const cut = '--b\r\ncontent-disposition: form-data; name="photo"; filename="a.jpg"\r\n\r\nxx';
    for (const [type, body] of [
      ['multipart/form-data', 'nothing'],
      ['multipart/form-data; boundary=b', cut],
      ['multipart/form-data; boundary=b', '--b--\r\n'],
      ['application/json', '{}'],
    ] as const) {
      const answer = await send(type, body);
      expect(answer.statusCode, `${type}: ${answer.body}`).toBeGreaterThanOrEqual(400);
      expect(answer.statusCode, `${type}: ${answer.body}`).toBeLessThan(500);
    }
  });
});

describe('anything at all', () => {
  const odd = fc.oneof(
    fc.jsonValue({ maxDepth: 4 }),
    fc.constantFrom('\0', '\ud800', 2 ** 31, -1, 1e308, null, '__proto__', { __proto__: 1 }),
  );
  const keys = [
    'part',
    'text',
    'value',
    'partId',
    'seen',
    'path',
    'intake',
    'nudges',
    'changes',
    'evidence',
    'at',
    'saw',
    'id',
    'name',
    'passphrase',
    'code',
    'everywhere',
    'baseVersion',
    'position',
    'takenAt',
  ];
  const body = fc.oneof(odd, fc.dictionary(fc.constantFrom(...keys), odd));

  /** Asks every route of an application's description, with whatever a body may hold. */
  async function askAnything(app: TestApp, unit: string, headers: Record<string, string>): Promise<void> {
    const description = await app.app.inject({ url: '/api/v1/openapi.json', headers });
    const { paths } = description.json<{ paths: Record<string, Record<string, unknown>> }>();
    const routes = Object.entries(paths).flatMap(([path, methods]) =>
      Object.keys(methods).flatMap((method) => (path.endsWith('events') ? [] : [{ path, method }])),
    );
    const ask = async (
      { path, method }: (typeof routes)[number],
      other: string,
      payload: unknown,
    ): Promise<void> => {
      const url = path.replace('{unitId}', unit).replace(/\{\w+\}/g, other);
      const answer = await app.app.inject({
        method: method.toUpperCase() as 'POST',
        url,
        headers: { ...headers, 'idempotency-key': randomUUID(), 'content-type': 'application/json' },
        ...(method === 'get' ? {} : { payload: JSON.stringify(payload) ?? 'null' }),
      });
      const asked = `${method} ${url} ${JSON.stringify(payload)}: ${answer.body.slice(0, 500)}`;
      expect(answer.statusCode, asked).toBeLessThan(500);
    };
    await fc.assert(fc.asyncProperty(fc.constantFrom(...routes), fc.uuid(), body, ask), { numRuns: 400 });
  }

  it('is never answered by a failure of the server', { timeout: 120_000 }, async () => {
    await askAnything(test, unitId, {});
  });

  it('nor where people sign in', { timeout: 120_000 }, async () => {
    await test.close();
    test = await openTestApp({ isOnNetwork: true });
    const begun = await test.app.inject({
      method: 'POST',
      url: '/api/v1/people/first',
      payload: { name: 'Maren', passphrase: 'a long way to the valley' },
    });
    const cookie = String(begun.headers['set-cookie']).split(';')[0]!;
    await askAnything(test, randomUUID(), { cookie });
  });
});
