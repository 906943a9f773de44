import type { FileChange, UnitResource } from '@zemble/contract';
import { documentFromResource, readUnitFile, resolveLayer } from '@zemble/core';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { plannedChanges } from './features/archive/planned-values.ts';
import * as changesMigration from './database/migrations/0011-changes.ts';
import { openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
let unit: UnitResource;
let path: string;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(async () => {
  await test.close();
});

const circuit = {
  ground: '0',
  parts: [
    { ref: 'V1', kind: 'supply', pins: { plus: 'vcc', minus: '0' }, marked: 9 },
    { ref: 'R1', kind: 'resistor', pins: { a: 'vcc', b: 'a' }, marked: 1000 },
    { ref: 'R2', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: 1000 },
  ],
};
const file = (more: object = {}) =>
  JSON.stringify({ format: 'zemble/unit', version: 1, unit: { name: 'Divider' }, circuit, ...more });
const slow = (about: object = {}): object => ({
  id: 'm1',
  name: 'Slow switch',
  purpose: 'modification',
  state: 'planned',
  steps: [{ do: 'add', part: { ref: 'R9', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: '1k' } }],
  ...about,
});
beforeEach(async () => {
  ({ unit } = await test.write('POST', '/units/import', { text: file() }));
  path = `/units/${unit.id}`;
});

const add = async (change: object) => {
  const answer = await test.write('POST', `${path}/changes`, { change });
  if (answer.unit) ({ unit } = answer);
  return answer;
};
const restate = (values: Partial<FileChange>, at = unit.changes[0]!) =>
  test.write('PUT', `${path}/changes/${at.id}`, {
    baseVersion: at.version,
    change: { ...at.change, ...values },
  });
const valueOf = (ref: string, layer: 'found' | 'planned' | 'proven') =>
  resolveLayer(documentFromResource(unit).circuit, layer).parts.find((p) => p.ref === ref)?.value;

describe('a change of the circuit', () => {
  it('is kept with its values as numbers, told in the log, and shown on its layer', async () => {
    await add(slow({ why: 'The sweep is too fast.' }));
    expect(unit.log[0]!.summary).toBe(
      'Planned: Slow switch: R9 1k added between a and 0. The sweep is too fast.',
    );
    expect([valueOf('R9', 'planned'), valueOf('R9', 'proven')]).toEqual([1000, undefined]);
    ({ unit } = await restate({ state: 'done' }));
    expect(unit.log[0]!.summary).toBe('Done: Slow switch.');
    expect(valueOf('R9', 'proven')).toBe(1000);
    ({ unit } = await restate({ state: 'undone' }));
    expect(unit.log[0]!.summary).toBe('Taken back: Slow switch.');
    expect(valueOf('R9', 'proven')).toBeUndefined();
  });

  it('is taken back by undo, state by state', async () => {
    await add(slow());
    ({ unit } = await restate({ state: 'done' }));
    const undo = async () => {
      const { sequence } = unit.log.find((e) => e.undoable)!;
      ({ unit } = await test.write('POST', `${path}/undo`, { sequence }));
    };
    await undo();
    expect(unit.changes[0]!.change.state).toBe('planned');
    await undo();
    expect(unit.changes).toEqual([]);
  });

  it('is refused with a sentence: an id twice, an unreadable value, an unknown step, a version that is old', async () => {
    await add(slow());
    expect((await add(slow())).problem).toMatchObject({
      status: 422,
      detail: 'There is a change "m1" already.',
    });
    const fit = (value: string) => slow({ id: 'm2', steps: [{ do: 'fit', ref: 'R1', value }] });
    expect((await add(fit('lots'))).problem).toMatchObject({
      status: 422,
      detail: expect.stringContaining('steps[0].value'),
    });
    expect((await add(slow({ id: 'm3', steps: [{ do: 'solder' }] }))).problem).toMatchObject({ status: 422 });
    const old = unit.changes[0]!;
    ({ unit } = await restate({ state: 'done' }));
    expect((await restate({ state: 'dropped' }, old)).problem).toMatchObject({ status: 409, code: 'stale' });
    expect(unit.changes).toHaveLength(1);
  });

  it('that cannot be made is kept, and does not stand in the way', async () => {
    await add(slow({ steps: [{ do: 'remove', ref: 'R77' }] }));
    await add(slow({ id: 'm2' }));
    expect(valueOf('R9', 'planned')).toBe(1000);
  });
});

describe('readings after the work', () => {
  it('are of the part that is in: the new value proven by them, the old one as it was found', async () => {
    const r1 = unit.parts.find((p) => p.part.ref === 'R1')!;
    const read = (value: number, more: object = {}) =>
      test.write('POST', `${path}/readings`, { baseVersion: r1.version, partId: r1.id, value, ...more });
    ({ unit } = await read(1300));
    await add(slow({ id: 'f', steps: [{ do: 'fit', ref: 'R1', value: 2200 }], state: 'done' }));
    const changeId = unit.changes[0]!.id;
    ({ unit } = await read(2250, { changeId }));
    expect(unit.log[0]!.summary).toBe('Measured R1 with a leg lifted: 2.25 kΩ, within 5 %.');
    expect([valueOf('R1', 'found'), valueOf('R1', 'planned'), valueOf('R1', 'proven')]).toEqual([
      1300, 2200, 2250,
    ]);
    await add(slow({ state: 'done' }));
    const added = unit.changes[1]!.id;
    const reading = { baseVersion: 0, ref: 'R9', changeId: added, value: 990 };
    ({ unit } = await test.write('POST', `${path}/readings`, reading));
    expect([valueOf('R9', 'planned'), valueOf('R9', 'proven')]).toEqual([1000, 990]);
    const nothing = await test.write('POST', `${path}/readings`, { ...reading, ref: 'R7' });
    expect(nothing.problem).toMatchObject({ status: 422, detail: 'Slow switch puts no R7 in.' });
    // All of it goes out in the file, and comes back in.
    const { body: text } = await test.get(`${path}/file`);
    const again = await test.write('POST', '/units/import', { text: JSON.stringify(text) });
    const before = documentFromResource(unit).circuit;
    const after = documentFromResource(again.unit).circuit;
    for (const layer of ['found', 'planned', 'proven'] as const)
      expect(resolveLayer(after, layer)).toEqual(resolveLayer(before, layer));
    expect(again.unit.readings).toHaveLength(3);
    expect(readUnitFile(JSON.stringify(text)).ok).toBe(true);
  });
});

describe('a change that was entered by mistake', () => {
  it('goes with undo, and the file that goes out can come back in, whatever was read of its parts', async () => {
    await add(slow({ state: 'done' }));
    const changeId = unit.changes[0]!.id;
    ({ unit } = await test.write('POST', `${path}/readings`, {
      baseVersion: 0,
      ref: 'R9',
      changeId,
      value: 990,
    }));
    const { sequence } = unit.log.find((e) => e.kind === 'change')!;
    ({ unit } = await test.write('POST', `${path}/undo`, { sequence }));
    expect(unit.changes).toEqual([]);
    const { body } = await test.get(`${path}/file`);
    const again = await test.write('POST', '/units/import', { text: JSON.stringify(body) });
    expect(again.status).toBe(201);
    expect(again.unit.readings).toEqual([]);
  });
});

describe('sets and the ledger', () => {
  it('a set goes only when nothing in it counts any more', async () => {
    const sets = [{ id: 'A', name: 'Gentle', active: true }, { id: 'B' }];
    const put = (kept: object[]) => test.write('PATCH', path, { sets: kept });
    ({ unit } = await put(sets));
    const both = sets.map((s) => ({ ...s, active: true }));
    expect((await put(both)).problem).toMatchObject({ status: 422, detail: 'More than one set is active.' });
    expect((await put([...sets, sets[1]!])).problem).toMatchObject({
      status: 422,
      detail: 'The set "B" is there twice.',
    });
    await add(slow({ set: 'A' }));
    expect((await put([sets[1]!])).problem).toMatchObject({
      status: 422,
      detail: 'The set Gentle still has Slow switch.',
    });
    ({ unit } = await restate({ state: 'dropped' }));
    ({ unit } = await put([sets[1]!]));
    expect(unit.sets).toEqual([{ id: 'B' }]);
  });

  it('a unit is not put away with something temporary in it, unless it is said why', async () => {
    const lifted = { purpose: 'diagnosis', name: 'R2 by itself', state: 'done' };
    await add(slow({ ...lifted, steps: [{ do: 'lift', pin: 'R2.a' }] }));
    const away = (more: object = {}) => test.write('PATCH', path, { place: 'away', ...more });
    expect((await away()).problem).toMatchObject({
      status: 422,
      detail: 'Something temporary is still in force: R2 by itself: R2.a lifted.',
    });
    ({ unit } = await away({ reason: 'The new R2 is ordered.' }));
    expect(unit.place).toBe('away');
    expect(unit.log[0]!.summary).toContain('The new R2 is ordered.');
  });
});

describe('values that an older record had planned', () => {
  it('become a change each', async () => {
    const query = test.app.database.getQueryInterface();
    await changesMigration.down(query);
    await query.sequelize.query(`UPDATE parts SET planned = '680' WHERE ref = 'R2' AND unit_id = :id`, {
      replacements: { id: unit.id },
    });
    await changesMigration.up(query);
    unit = (await test.get(path)).body as UnitResource;
    expect(unit.changes).toMatchObject([
      { change: { purpose: 'repair', state: 'planned', steps: [{ do: 'fit', ref: 'R2', value: 680 }] } },
    ]);
    expect(valueOf('R2', 'planned')).toBe(680);
    expect(plannedChanges([{ unitId: unit.id, ref: 'R1', planned: null }])).toEqual([]);
  });
});
