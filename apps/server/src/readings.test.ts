import type { UnitResource } from '@zemble/contract';
import { wrenTalkback } from '@zemble/demo';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { loadDemo } from './features/demo/service.ts';
import { openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(async () => {
  await test.close();
});

async function unitWithTransistor(): Promise<UnitResource> {
  const { unit } = await test.write('POST', '/units', { name: 'One stage' });
  const part = { ref: 'Q1', kind: 'bjt', model: '2N3904', pins: { c: 'c', b: 'b', e: '0' } };
  return (await test.write('POST', `/units/${unit.id}/parts`, { baseVersion: 0, part })).unit;
}

describe('a reading beside the value', () => {
  it('is kept with what was read, said in the log, and in the table and the file', async () => {
    const unit = await unitWithTransistor();
    const [{ id: partId, version }] = unit.parts as [UnitResource['parts'][number]];
    const { unit: after, status } = await test.write('POST', `/units/${unit.id}/readings`, {
      baseVersion: version,
      partId,
      value: 0.66,
      aspect: 'b-e',
    });
    expect(status).toBe(201);
    expect(after.readings.at(-1)).toMatchObject({ value: 0.66, aspect: 'b-e' });
    expect(after.log[0]!.summary).toMatch(/^Measured Q1 b-e with a leg lifted: 660 mV, as it should be/);
    const table = await test.app.inject({ url: `/api/v1/units/${unit.id}/readings.csv` });
    expect(table.body).toContain('Q1,0.66,V,leg lifted');
    const file = await test.app.inject({ url: `/api/v1/units/${unit.id}/file` });
    const again = await test.write('POST', '/units/import', { text: file.body });
    expect(again.unit.readings.at(-1)).toMatchObject({ value: 0.66, aspect: 'b-e' });
  });

  it('is refused with what can be read of the part when it is nothing of it', async () => {
    const unit = await unitWithTransistor();
    const { status, problem } = await test.write('POST', `/units/${unit.id}/readings`, {
      baseVersion: 0,
      partId: unit.parts[0]!.id,
      value: 1,
      aspect: 'leakage',
    });
    expect(status).toBe(422);
    expect(problem.detail).toBe('Nothing called "leakage" is read of Q1.');
    expect(problem.hint).toContain('b-e, b-c');
  });
});

describe('readings of a part', () => {
  async function unitWithResistor(): Promise<UnitResource> {
    const { unit } = await test.write('POST', '/units', { name: 'One resistor' });
    const part = { ref: 'R1', kind: 'resistor', marked: 1000, pins: { a: 'x', b: '0' } };
    return (await test.write('POST', `/units/${unit.id}/parts`, { baseVersion: 0, part })).unit;
  }
  const read = (unit: UnitResource, values: object, key?: string) =>
    test.write(
      'POST',
      `/units/${unit.id}/readings`,
      { baseVersion: unit.parts[0]!.version, partId: unit.parts[0]!.id, ...values },
      key,
    );

  it('are kept once when the same write comes twice, and one beside the other when it is another', async () => {
    const unit = await unitWithResistor();
    const key = 'the-same-key-again';
    const first = await read(unit, { value: 980 }, key);
    const again = await read(unit, { value: 980 }, key);
    expect(again.answer).toEqual(first.answer);
    expect(again.unit).toEqual(first.unit);
    const corrected = await read(unit, { value: 1040, instrument: 'meter 2' });
    expect(corrected.unit.readings.map((r) => [r.value, r.instrument])).toEqual([
      [980, null],
      [1040, 'meter 2'],
    ]);
  });

  it('are taken back without being lost, and the one before counts again', async () => {
    const unit = await unitWithResistor();
    await read(unit, { value: 1200 });
    const { unit: both } = await read(unit, { value: 'open' });
    const { unit: undone } = await test.write('POST', `/units/${unit.id}/undo`, {
      sequence: both.log[0]!.sequence,
    });
    expect(undone.readings.map((r) => [r.value, r.withdrawn])).toEqual([
      [1200, false],
      ['open', true],
    ]);
    const file = await test.app.inject({ url: `/api/v1/units/${unit.id}/file` });
    const { circuit } = file.json<{ circuit: { parts: { found: number }[] } }>();
    expect(circuit.parts[0]!.found).toBe(1200);
  });

  it('are told later how they were read: logged, kept in table and file, and taken back', async () => {
    const unit = await unitWithResistor();
    const id = crypto.randomUUID();
    await read(unit, { id, value: 900, condition: 'in circuit' });
    const tell = (body: object) => test.write('PATCH', `/units/${unit.id}/readings/${id}`, body);
    const { unit: told } = await tell({ red: 'b' });
    expect(told.readings[0]).toMatchObject({ id, red: 'b', isAsDrawn: false });
    expect(told.log[0]!.summary).toBe('Of the reading of R1: the red lead was on pin b.');
    await tell({ isAsDrawn: true });
    const file = await test.app.inject({ url: `/api/v1/units/${unit.id}/file` });
    const { unit: copy } = await test.write('POST', '/units/import', { text: file.body });
    expect(copy.readings[0]).toMatchObject({ red: 'b', isAsDrawn: true });
    const { unit: undone } = await test.write('POST', `/units/${unit.id}/undo`, {
      sequence: told.log[0]!.sequence + 1,
    });
    expect(undone.readings[0]).toMatchObject({ red: 'b', isAsDrawn: false });
    expect((await tell({ red: 'e' })).problem.detail).toBe('R1 has no pin e.');
    expect((await tell({})).status).toBe(422);
    expect((await read(unit, { id, value: 900 })).status).toBe(422);
  });

  it('from a change carry their own error, and no others do', async () => {
    const unit = await unitWithResistor();
    const change = { value: 1200, condition: 'from a change', between: { low: 1150, high: 1300 } };
    const { unit: after } = await read(unit, change);
    expect(after.readings[0]).toMatchObject(change);
    expect(after.log[0]!.summary).toMatch(
      /^Measured R1 by what a known part changed: 1\.2 kΩ, from a change/,
    );
    expect((await read(unit, { ...change, between: undefined })).status).toBe(422);
    expect((await read(unit, { ...change, condition: 'leg lifted' })).status).toBe(422);
    expect((await read(unit, { ...change, between: { low: 2000, high: 1000 } })).status).toBe(422);
  });

  it('of a file are all checked before any is kept', async () => {
    const { unit } = await test.write('POST', '/units', { name: 'A file' });
    const file = await test.app.inject({ url: `/api/v1/units/${unit.id}/file` });
    const text = (readings: unknown) => JSON.stringify({ ...file.json<object>(), readings });
    const reading = { ref: 'R9', value: 1, condition: 'leg lifted', takenAt: '2026-01-01T00:00:00Z' };
    const post = (readings: unknown) => test.write('POST', '/units/import', { text: text(readings) });
    expect((await post([reading])).problem.detail).toContain(
      'readings[0] is of "R9", which it does not have',
    );
    expect((await post([{ ...reading, takenAt: 'soon' }])).problem.detail).toContain('readings[0]');
    expect((await post([{ ...reading, esr: -1 }])).status).toBe(422);
  });

  it('are of one part or one readout, of a part that is there, as it was seen', async () => {
    const unit = await unitWithResistor();
    const post = (body: object) => test.write('POST', `/units/${unit.id}/readings`, body);
    expect((await post({ baseVersion: 0, value: 1 })).status).toBe(422);
    expect((await read(unit, { value: 1000, baseVersion: 99 })).status).toBe(409);
    const stranger = '00000000-0000-4000-8000-000000000000';
    expect((await post({ baseVersion: 0, partId: stranger, value: 1 })).status).toBe(404);
    expect((await read(unit, { value: 'blue' })).status).toBe(422);
  });
});

describe('photos in a file', () => {
  it('go out with their points and come back in', async () => {
    await loadDemo(test.app.database, [wrenTalkback], false);
    const { body } = await test.get('/units');
    const { units } = body as { units: { id: string; name: string }[] };
    const { id } = units.find((u) => u.name === wrenTalkback.document.unit.name)!;
    const before = (await test.get(`/units/${id}`)).body as UnitResource;
    const file = await test.app.inject({ url: `/api/v1/units/${id}/file` });
    const { unit, status } = await test.write('POST', '/units/import', { text: file.body });
    expect(status).toBe(201);
    expect(unit.photos.map(({ name, width, points }) => ({ name, width, points }))).toEqual(
      before.photos.map(({ name, width, points }) => ({ name, width, points })),
    );
    const picture = await test.app.inject({ url: `/api/v1/units/${unit.id}/photos/${unit.photos[0]!.id}` });
    expect(picture.headers['content-type']).toContain('image/jpeg');
  });

  it('that are none are refused with a sentence', async () => {
    const text = JSON.stringify({
      format: 'zemble/unit',
      version: 1,
      circuit: { ground: '0', parts: [] },
      photos: [{ name: 'Board', jpeg: Buffer.from('not a picture').toString('base64') }],
    });
    const { status, problem } = await test.write('POST', '/units/import', { text });
    expect(status).toBe(422);
    expect(problem.detail).toContain('not a picture that can be read');
  });
});
