import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(async () => {
  await test.close();
});

describe('the workshop', () => {
  it('is asked for its mains once, and keeps what was said last', async () => {
    expect((await test.get('/workshop')).body).toEqual({ mainsHz: null });
    for (const mainsHz of [60, 50, 60]) {
      expect((await test.write('POST', '/workshop', { mainsHz })).status).toBe(200);
      expect((await test.get('/workshop')).body).toEqual({ mainsHz });
    }
  });

  it('takes no mains that there is none of', async () => {
    for (const body of [
      { mainsHz: 400 },
      { mainsHz: '50' },
      { mainsHz: null },
      {},
      { mainsHz: 50, more: 1 },
    ]) {
      const { status, problem } = await test.write('POST', '/workshop', body);
      expect([status, problem.code]).toEqual([422, 'invalid']);
    }
    expect((await test.get('/workshop')).body).toEqual({ mainsHz: 60 });
  });
});
