import { randomUUID } from 'node:crypto';
import { drawerSchema, needsSchema, type StockItem, type UnitResource } from '@zemble/contract';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
let unit: UnitResource;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(async () => {
  await test.close();
});

const item = (about: Partial<StockItem> = {}): StockItem & { id: string } => ({
  id: randomUUID(),
  kind: 'resistor',
  value: 820,
  count: 2,
  place: 'A2',
  ...about,
});
const items = async () => drawerSchema.parse((await test.get('/drawer')).body).items;
const needs = async () => needsSchema.parse((await test.get('/drawer/needs')).body);
const put = (...list: object[]) => test.write('POST', '/drawer/items', { items: list });
const countAt = async (place: string) => (await items()).find((i) => i.place === place)?.count;

const FILE = JSON.stringify({
  format: 'zemble/unit',
  version: 1,
  unit: { name: 'Divider' },
  circuit: {
    ground: '0',
    parts: [
      { ref: 'V1', kind: 'supply', pins: { plus: 'vcc', minus: '0' }, marked: 9 },
      { ref: 'R1', kind: 'resistor', pins: { a: 'vcc', b: 'a' }, marked: 1000 },
      { ref: 'R2', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: 1000 },
    ],
  },
});
const change = (state: string) => ({
  id: 'm1',
  name: 'Less',
  purpose: 'modification',
  state,
  steps: [
    { do: 'fit', ref: 'R1', value: '820' },
    { do: 'add', part: { ref: 'R9', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: '5k6' } },
  ],
});
const add = async (state: string) => {
  ({ unit } = await test.write('POST', `/units/${unit.id}/changes`, { change: change(state) }));
};
const restate = async (state: string) => {
  const { id, version } = unit.changes[0]!;
  const body = { baseVersion: version, change: change(state) };
  ({ unit } = await test.write('PUT', `/units/${unit.id}/changes/${id}`, body));
};

beforeEach(async () => {
  await test.app.database.query('DELETE FROM units; DELETE FROM stock');
  ({ unit } = await test.write('POST', '/units/import', { text: FILE }));
});

describe('the drawer', () => {
  it('takes items in once, and counts up what is there in the same place', async () => {
    const one = item();
    await put(one);
    await put(one);
    expect(await items()).toMatchObject([{ value: 820, count: 2, place: 'A2', version: 0 }]);
    await put(item({ count: 5 }), item({ place: 'B1' }));
    expect((await items()).map((i) => [i.place, i.count]).sort()).toEqual([
      ['A2', 7],
      ['B1', 2],
    ]);
  });

  it('counts nothing twice that is sent twice, and loses nothing that comes from two at once', async () => {
    await put(item());
    const more = item({ count: 5 });
    await put(more);
    await put(more);
    expect(await countAt('A2')).toBe(7);
    await Promise.all(Array.from({ length: 6 }, () => put(item({ count: 1 }))));
    expect(await countAt('A2')).toBe(13);
  });

  it('is changed by one of two who change the same thing, and tells the other what is there', async () => {
    await put(item());
    const [seen] = await items();
    const to = (count: number) => {
      const { id: _, version, ...rest } = seen!;
      return test.write('POST', `/drawer/items/${seen!.id}`, { version, item: { ...rest, count } });
    };
    const [a, b] = [await to(5), await to(9)];
    expect([a.status, b.status]).toEqual([200, 409]);
    expect(b.problem.current).toMatchObject({ count: 5 });
    // The same once more, as after an answer that was lost, is no quarrel.
    expect((await to(5)).status).toBe(200);
    expect((await test.write('POST', `/drawer/items/${seen!.id}/remove`, { version: 0 })).status).toBe(409);
    expect((await test.write('POST', `/drawer/items/${seen!.id}/remove`, { version: 1 })).status).toBe(200);
    expect(await items()).toEqual([]);
  });

  it.each([
    [{ count: -1 }],
    [{ count: 1.5 }],
    [{ value: 0 }],
    [{ kind: 'flux' }],
    [{ place: 'x'.repeat(81) }],
    [{ place: 'a\u0000b' }],
    [{ id: 'none' }],
  ])('refuses %j', async (about) => {
    const answer = await put({ ...item(), ...about });
    expect([400, 422]).toContain(answer.status);
    expect(await items()).toEqual([]);
  });
});

describe('what a change does to the drawer', () => {
  it('is reserved while it is planned, taken when it is ticked, and back when it is taken back', async () => {
    await put(item());
    await add('planned');
    expect((await needs()).needs.map((n) => [n.ref, n.value, n.unitName, n.changeName])).toEqual([
      ['R1', 820, 'Divider', 'Less'],
      ['R9', 5600, 'Divider', 'Less'],
    ]);
    expect(await countAt('A2')).toBe(2);
    await restate('done');
    expect(await countAt('A2')).toBe(1);
    expect(unit.log[0]!.summary).toBe('Done: Less. From the drawer: R1 820 Ω in A2.');
    expect((await needs()).needs).toEqual([]);
    await restate('undone');
    expect(await countAt('A2')).toBe(2);
    expect(unit.log[0]!.summary).toBe('Taken back: Less. Back in the drawer: R1 820 Ω in A2.');
  });

  it('follows undo of the step', async () => {
    await put(item());
    await add('planned');
    await restate('done');
    const undone = await test.write('POST', `/units/${unit.id}/undo`, { sequence: unit.log[0]!.sequence });
    expect(undone.status).toBe(200);
    expect(await countAt('A2')).toBe(2);
    await test.write('POST', `/units/${unit.id}/undo`, { sequence: undone.unit.log[0]!.sequence });
    expect(await countAt('A2')).toBe(2);
  });

  it('takes nothing that is not there, and never below nothing when two units take the last one at once', async () => {
    await put(item({ count: 1 }));
    const { unit: other } = await test.write('POST', '/units/import', { text: FILE });
    await Promise.all(
      [unit.id, other.id].map((id) => test.write('POST', `/units/${id}/changes`, { change: change('done') })),
    );
    expect(await countAt('A2')).toBe(0);
  });

  it('leaves over what came out, to be kept or thrown away once', async () => {
    await add('done');
    const [out] = (await needs()).out;
    expect(out).toMatchObject({ ref: 'R1', value: 1000, unitName: 'Divider' });
    const kept = {
      unitId: unit.id,
      changeId: 'm1',
      ref: 'R1',
      item: item({ value: 1000, count: 1, place: 'E1' }),
    };
    await test.write('POST', '/drawer/out', kept);
    await test.write('POST', '/drawer/out', kept);
    expect(await countAt('E1')).toBe(1);
    expect((await needs()).out).toEqual([]);
    // Taken back, it goes into the unit again.
    await restate('undone');
    expect(await countAt('E1')).toBe(0);
  });
});
