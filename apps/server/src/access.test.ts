import { request } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { RouteOptions } from 'fastify';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
const routes: RouteOptions[] = [];
let port: number;
let cookie: string;
beforeAll(async () => {
  test = await openTestApp({ isOnNetwork: true, onRoute: (route) => routes.push(route) });
  await test.app.listen({ port: 0, host: '127.0.0.1' });
  port = (test.app.server.address() as AddressInfo).port;
  const begun = await test.app.inject({
    method: 'POST',
    url: '/api/v1/people/first',
    payload: { name: 'Maren', passphrase: 'a long way to the valley' },
  });
  cookie = String(begun.headers['set-cookie']).split(';')[0]!;
});
afterAll(() => test.close());

/** A request just as it is spelt: no library mends the address on the way. */
const raw = (
  method: string,
  path: string,
  headers: Record<string, string> = {},
): Promise<{ status: number; body: string }> =>
  new Promise((resolve) => {
    const sent = request({ host: '127.0.0.1', port, method, path, headers, agent: false }, (answer) => {
      let body = '';
      answer.on('data', (chunk: Buffer) => (body += chunk.toString()));
      answer.on('end', () => resolve({ status: answer.statusCode!, body }));
    });
    // A line that is no request is answered by hanging up, perhaps after an answer.
    sent.on('error', () => resolve({ status: 400, body: '' }));
    sent.end();
  });

const ID = '01a2311e-0000-7000-8000-000000000000';
const escaped = (text: string) =>
  [...text].map((c) => (c === '/' ? c : `%${c.charCodeAt(0).toString(16)}`)).join('');
/** Odd spellings of one address. */
const spellings = (path: string): string[] => [
  path,
  path.replace('/api', '/%61pi'),
  path.replace('/v1', '/%761'),
  escaped(path),
  `http://127.0.0.1:${port}${path}`,
  `http://anything.example${path}`,
  `/${path}`,
  path.replace('/v1/', '/v1//'),
  path.replace('/api', '/./api'),
  path.replace('/api', '/x/../api'),
  path.replace('/api', '/x/%2e%2e/api'),
  path.toUpperCase(),
  `${path}/`,
  `${path}?a=1`,
  `${path};a=1`,
  `${path}#a`,
  path.replaceAll('/', '%2f'),
  path.replace('/v1/', '/v1\\'),
];

describe('who is not signed in', () => {
  it('gets nothing from any route, however its address is spelt', async () => {
    const closed = routes
      .filter(({ url, config }) => url.startsWith('/api/') && config?.isPublic !== true)
      .flatMap(({ method, url }) =>
        [method].flat().map((m) => ({ method: m, path: url.replace(/:\w+/g, ID) })),
      );
    // What is open is open on purpose.
    const open = routes.filter(({ config }) => config?.isPublic === true).map(({ url }) => url);
    expect([...new Set(open)].sort()).toEqual(
      ['health', 'pairings/redeem', 'people/first', 'ready', 'session'].map((p) => `/api/v1/${p}`),
    );
    expect(closed.length).toBeGreaterThan(40);
    const letIn: string[] = [];
    for (const { method, path } of closed)
      for (const spelt of spellings(path)) {
        const { status, body } = await raw(method, spelt);
        // Another name than ours, an address that leads nowhere, or the question who it is.
        if (![400, 401, 403, 404, 405].includes(status))
          letIn.push(`${method} ${spelt}: ${status} ${body.slice(0, 80)}`);
      }
    expect(letIn).toEqual([]);
  });

  it('is told so on each route under its own address', async () => {
    for (const { method, url, config } of routes) {
      if (!url.startsWith('/api/') || config?.isPublic === true) continue;
      const [first] = [method].flat();
      expect([url, (await raw(first!, url.replace(/:\w+/g, ID))).status]).toEqual([url, 401]);
    }
  });
});

describe('a page of another place', () => {
  it.each(['cross-site', 'same-site'])('has nothing asked for: %s', async (site) => {
    for (const path of ['/drawer/needs', '/archive', '/units'])
      expect((await raw('GET', `/api/v1${path}`, { cookie, 'sec-fetch-site': site })).status).toBe(403);
  });

  it.each([
    'http://localhost:9999',
    'https://127.0.0.1',
    'http://127.0.0.1',
    'null',
    'file://',
    'about:blank',
  ])('may not write, though it is of this machine: %s', async (origin) => {
    const { status } = await raw('POST', '/api/v1/pairings', { cookie, origin });
    expect(status).toBe(403);
  });

  it('is told from the own page, and from programs', async () => {
    const own = { cookie, origin: `http://127.0.0.1:${port}`, 'sec-fetch-site': 'same-origin' };
    expect((await raw('POST', '/api/v1/pairings', own)).status).toBe(201);
    expect((await raw('POST', '/api/v1/pairings', { cookie })).status).toBe(201);
    expect((await raw('GET', '/api/v1/archive', { cookie, 'sec-fetch-site': 'none' })).status).toBe(200);
  });
});

describe('an address that cannot be read', () => {
  it.each(['/%', '/%ff', '/api/v1/%ff'])('is answered as every other failure: %s', async (path) => {
    const { status, body } = await raw('GET', path);
    expect([status, JSON.parse(body)]).toEqual([400, expect.objectContaining({ code: 'bad-request' })]);
  });
});

describe('a name', () => {
  it.each(['MAREN', 'Mar\u200ben', ' Maren ', 'Maren\ufeff', 'Ma\u00adren'])(
    'that looks as one that somebody has is that one: %j',
    async (name) => {
      const added = await test.app.inject({
        method: 'POST',
        url: '/api/v1/people',
        headers: { cookie },
        payload: { name, passphrase: 'another long passphrase' },
      });
      expect([added.statusCode, added.json<{ detail: string }>().detail]).toEqual([
        422,
        expect.stringContaining('There is somebody called'),
      ]);
    },
  );
});
