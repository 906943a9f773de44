import { pairingSchema, sessionSchema } from '@zemble/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
let owner: string;
const PASSPHRASE = 'a long way to the valley';
beforeAll(async () => {
  test = await openTestApp({ isOnNetwork: true });
});
afterAll(async () => {
  await test.close();
});

interface Asked {
  readonly cookie?: string;
  readonly from?: string;
  readonly key?: string;
}

/** A request from a device, by default from the bench's own machine. */
async function ask(method: 'GET' | 'POST', path: string, body?: object, { cookie, from, key }: Asked = {}) {
  const answer = await test.app.inject({
    method,
    url: `/api/v1${path}`,
    ...(body ? { payload: body } : {}),
    headers: {
      ...(cookie === undefined ? {} : { cookie }),
      ...(key === undefined ? {} : { 'idempotency-key': key }),
    },
    ...(from === undefined ? {} : { remoteAddress: from }),
  });
  const set = answer.headers['set-cookie'];
  return {
    status: answer.statusCode,
    body: answer.json<Record<string, unknown>>(),
    cookie: String(Array.isArray(set) ? set[0] : set).split(';')[0]!,
    setCookie: String(set),
  };
}
const signIn = (name: string, passphrase: string, asked: Asked = {}) =>
  ask('POST', '/session', { name, passphrase }, asked);
const PHONE = { from: '192.168.7.20' };

describe('a bench on the network', () => {
  it('lets nobody do anything before the first person is named on its own machine', async () => {
    expect((await ask('GET', '/units')).status).toBe(401);
    expect((await ask('POST', '/units', { name: 'x' }, { key: 'not-signed-in' })).status).toBe(401);
    expect((await ask('GET', '/health')).status).toBe(200);
    expect((await ask('GET', '/session', undefined, PHONE)).body).toEqual({
      state: 'first',
      mayBegin: false,
    });
    const first = { name: 'Maren', passphrase: PASSPHRASE };
    expect((await ask('POST', '/people/first', first, PHONE)).status).toBe(403);
    const short = await ask('POST', '/people/first', { ...first, passphrase: 'short' });
    expect([short.status, short.body.detail]).toEqual([422, expect.stringContaining('at least 10')]);
    const begun = await ask('POST', '/people/first', first);
    expect(sessionSchema.parse(begun.body)).toMatchObject({
      state: 'signed-in',
      person: { name: 'Maren', isOwner: true },
    });
    expect(begun.setCookie).toMatch(/HttpOnly/);
    expect(begun.setCookie).toMatch(/SameSite=Strict/);
    owner = begun.cookie;
    expect((await ask('POST', '/people/first', { ...first, name: 'Second' })).status).toBe(403);
  });

  it('keeps no passphrase, token or code that could be used by who reads the database', async () => {
    const rows = JSON.stringify(await test.app.database.query('SELECT * FROM people, sessions'));
    expect(rows).toContain('$argon2id$');
    expect(rows).not.toContain(PASSPHRASE);
    expect(rows).not.toContain(owner.split('=')[1]);
  });

  it('names in the log, its file and its stream who did what', async () => {
    const made = await ask('POST', '/units', { name: 'Shared' }, { cookie: owner, key: 'shared-unit' });
    expect(made.status).toBe(201);
    const id = String(made.body.unitId);
    const note = { text: 'It hums.' };
    const noted = await ask('POST', `/units/${id}/notes`, note, { cookie: owner, key: 'shared-note' });
    expect(noted.body).toMatchObject({
      edits: [{ effects: [{ of: 'unit' }, { of: 'log', value: { by: 'Maren' } }] }],
    });
    const unit = await ask('GET', `/units/${id}`, undefined, { cookie: owner });
    expect(unit.body.log).toMatchObject([{ by: 'Maren' }, { by: 'Maren' }]);
    const file = await ask('GET', `/units/${id}/file`, undefined, { cookie: owner });
    expect(file.body.log).toMatchObject([{ by: 'Maren' }, { by: 'Maren', summary: 'It hums.' }]);
  });

  it('lets the owner add and remove people, and nobody else', async () => {
    const tobi = { name: 'Tobi', passphrase: 'even longer way down' };
    expect((await ask('POST', '/people', tobi, { cookie: owner })).status).toBe(201);
    const twice = await ask('POST', '/people', { ...tobi, name: 'TOBI' }, { cookie: owner });
    expect([twice.status, twice.body.detail]).toEqual([422, expect.stringContaining('already')]);
    const { cookie } = await signIn('tobi', tobi.passphrase);
    expect((await ask('POST', '/people', { ...tobi, name: 'Third' }, { cookie })).status).toBe(403);
    const { people } = (await ask('GET', '/people', undefined, { cookie })).body as {
      people: { id: string; name: string }[];
    };
    const id = people.find((p) => p.name === 'Tobi')!.id;
    const ownerId = people.find((p) => p.name === 'Maren')!.id;
    expect((await ask('POST', `/people/${ownerId}/remove`, {}, { cookie: owner })).status).toBe(403);
    expect((await ask('POST', `/people/${id}/remove`, {}, { cookie })).status).toBe(403);
    expect((await ask('POST', `/people/${id}/remove`, {}, { cookie: owner })).status).toBe(200);
    expect((await ask('GET', '/units', undefined, { cookie })).status).toBe(401);
  });
});

describe('guessing', () => {
  it('is slowed at a name from wherever it comes, many at once included, and the right one is let in afterwards', async () => {
    const guesses = await Promise.all(
      Array.from({ length: 12 }, (_, i) => signIn('Maren', `guess ${i}`, { from: `10.1.1.${i}` })),
    );
    const statuses = guesses.map((g) => g.status);
    expect(statuses.filter((s) => s === 401).length).toBeLessThanOrEqual(6);
    expect(statuses.filter((s) => s === 429).length).toBeGreaterThanOrEqual(6);
    const right = await signIn('Maren', PASSPHRASE, { from: '10.1.2.1' });
    expect([right.status, right.body.detail]).toEqual([429, expect.stringMatching(/wait \d+ s/)]);
    // The wait is over.
    await test.app.database.query('UPDATE attempts SET blocked_until = now()');
    expect((await signIn('Maren', PASSPHRASE, { from: '10.1.2.1' })).status).toBe(200);
    expect((await signIn('Maren', 'wrong again', { from: '10.1.2.1' })).status).toBe(401);
  });

  it('is slowed from an address whatever names it tries, pairing codes included', async () => {
    const from = '10.9.9.9';
    const statuses: number[] = [];
    for (let i = 0; i < 4; i += 1)
      statuses.push((await signIn(`nobody ${i}`, 'x'.repeat(12), { from })).status);
    for (let i = 0; i < 4; i += 1)
      statuses.push((await ask('POST', '/pairings/redeem', { code: `guess ${i}` }, { from })).status);
    expect(statuses.slice(0, 5)).toEqual([401, 401, 401, 401, 401]);
    expect(statuses.at(-1)).toBe(429);
  });

  it('begins after five, however close to each other those are', async () => {
    for (let i = 0; i < 40; i += 1) {
      const from = `10.3.3.${i}`;
      const guess = () => ask('POST', '/pairings/redeem', { code: 'guess' }, { from });
      const answers = await Promise.all(Array.from({ length: 5 }, guess));
      expect(answers.map((a) => a.status)).toEqual([401, 401, 401, 401, 401]);
    }
  });

  it('doubles the time to the next attempt, up to a bound', async () => {
    const waits: number[] = [];
    for (let i = 0; i < 16; i += 1) {
      await signIn('waited for', 'x'.repeat(12), { from: `10.2.2.${i}` });
      const [rows] = await test.app.database.query(
        `SELECT extract(epoch FROM blocked_until - at) AS wait FROM attempts WHERE key = 'name waited for'`,
      );
      waits.push(Number((rows as { wait: string }[])[0]!.wait));
      await test.app.database.query('UPDATE attempts SET blocked_until = now()');
    }
    expect(waits.slice(0, 9)).toEqual([0, 0, 0, 0, 0, 1, 2, 4, 8]);
    expect(Math.max(...waits)).toBe(60);
  });
});

describe('pairing', () => {
  const offer = async () => pairingSchema.parse((await ask('POST', '/pairings', {}, { cookie: owner })).body);
  const redeem = (code: string) => ask('POST', '/pairings/redeem', { code }, PHONE);

  it('lets one device in once', async () => {
    const { code } = await offer();
    const answers = await Promise.all([redeem(code), redeem(code)]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 401]);
    const { cookie, body } = answers.find((a) => a.status === 200)!;
    expect(sessionSchema.parse(body).state).toBe('signed-in');
    expect((await ask('GET', '/units', undefined, { cookie, ...PHONE })).status).toBe(200);
    expect((await redeem(code)).status).toBe(401);
  });

  it('is over after two minutes', async () => {
    const { code, expiresAt } = await offer();
    expect(Date.parse(expiresAt) - Date.now()).toBeGreaterThan(110_000);
    expect(Date.parse(expiresAt) - Date.now()).toBeLessThanOrEqual(120_000);
    await test.app.database.query("UPDATE pairings SET expires_at = now() - interval '1 second'");
    expect((await redeem(code)).status).toBe(401);
  });
});

describe('signing out', () => {
  it('makes a cookie that somebody has copied worthless, here or everywhere', async () => {
    const [one, two] = [await signIn('Maren', PASSPHRASE), await signIn('Maren', PASSPHRASE)];
    await ask('POST', '/session/end', {}, { cookie: one.cookie });
    expect((await ask('GET', '/units', undefined, { cookie: one.cookie })).status).toBe(401);
    expect((await ask('GET', '/units', undefined, { cookie: two.cookie })).status).toBe(200);
    const offered = await ask('POST', '/pairings', {}, { cookie: two.cookie });
    await ask('POST', '/session/end', { everywhere: true }, { cookie: two.cookie });
    for (const cookie of [one.cookie, two.cookie, owner])
      expect((await ask('GET', '/units', undefined, { cookie })).status).toBe(401);
    // Nor does a code that was asked for with it.
    const { code } = pairingSchema.parse(offered.body);
    expect((await ask('POST', '/pairings/redeem', { code })).status).toBe(401);
    expect((await ask('GET', '/session')).body).toEqual({ state: 'signed-out' });
  });

  it('happens on all other devices when the passphrase is set anew', async () => {
    const [here, there] = [await signIn('Maren', PASSPHRASE), await signIn('Maren', PASSPHRASE)];
    const { person } = here.body as { person: { id: string } };
    const path = `/people/${person.id}/passphrase`;
    const passphrase = 'another long way home';
    const wrong = await ask('POST', path, { current: 'guess', passphrase }, { cookie: here.cookie });
    expect(wrong.status).toBe(401);
    const set = await ask('POST', path, { current: PASSPHRASE, passphrase }, { cookie: here.cookie });
    expect(set.status).toBe(200);
    expect((await ask('GET', '/units', undefined, { cookie: there.cookie })).status).toBe(401);
    expect((await ask('GET', '/units', undefined, { cookie: here.cookie })).status).toBe(200);
    expect((await signIn('Maren', PASSPHRASE)).status).toBe(401);
    expect((await signIn('Maren', passphrase)).status).toBe(200);
  });
});

describe('a bench of one machine', () => {
  it('asks nobody for a name', async () => {
    const open = await openTestApp();
    expect((await open.get('/session')).body).toEqual({ state: 'open' });
    expect((await open.get('/units')).status).toBe(200);
    expect((await open.get('/people')).status).toBe(404);
    await open.close();
  });
});
