import { unitListSchema } from '@zemble/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
  for (const name of ['Heron', 'Lark 100%', 'Lark_2', 'Drover', 'Übertrager'])
    await test.write('POST', '/units', { name });
  const { units } = await list('');
  const put = (name: string, place: string) =>
    test.write('PATCH', `/units/${units.find((u) => u.name === name)!.id}`, { seen: {}, place });
  await put('Drover', 'away');
  await put('Lark_2', 'deleted');
});
afterAll(async () => {
  await test.close();
});

const list = async (query: string) => unitListSchema.parse((await test.get(`/units?${query}`)).body);
const names = async (query: string) => (await list(query)).units.map((u) => u.name);

describe('the list of units', () => {
  it('is what was worked on last, of a place, as many as are asked for, with how many there are', async () => {
    const { units, total, places } = await list('place=bench&limit=2');
    expect([units.map((u) => u.name), total]).toEqual([['Übertrager', 'Lark 100%'], 3]);
    expect(places).toEqual({ bench: 3, away: 1, deleted: 1 });
    expect(await names('place=away')).toEqual(['Drover']);
    expect(await names('')).toHaveLength(5);
  });

  it('finds by a piece of the name, by number, and takes no sign for more than it is', async () => {
    expect(await names('find=HER')).toEqual(['Heron']);
    expect(await names('find=%C3%9Cber')).toEqual(['Übertrager']);
    expect(await names('find=%25')).toEqual(['Lark 100%']);
    expect(await names('find=_')).toEqual(['Lark_2']);
    expect(await names(`find=${encodeURIComponent("'; DROP TABLE units; --")}`)).toEqual([]);
    const [heron] = (await list('find=heron')).units;
    expect(await names(`find=${encodeURIComponent(`#${heron!.number}`)}`)).toEqual(['Heron']);
    expect((await list('find=lark')).total).toBe(2);
    expect(await names('find=__proto__')).toEqual([]);
    expect(await names('find=%C3%9CBERTR')).toEqual(['Übertrager']);
  });

  it('says what it cannot be asked', async () => {
    const long = `find=${'x'.repeat(101)}`;
    // A NUL is kept nowhere, and looked for nowhere.
    for (const query of [
      'limit=0',
      'limit=1001',
      'limit=x',
      'limit=1e308',
      'place=shelf',
      long,
      'find=a%00b',
    ]) {
      const { status, body } = await test.get(`/units?${query}`);
      expect([query, status, (body as { code: string }).code]).toEqual([query, 422, 'invalid']);
    }
  });
});
