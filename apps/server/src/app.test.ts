import { problemDocumentSchema, unitResourceSchema, type UnitResource } from '@zemble/contract';
import { documentFromResource, readoutTable } from '@zemble/core';
import { larkDiscPreamp } from '@zemble/demo';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { LogEntryModel, ReadingModel, UnitModel } from './database/models/index.ts';
import { migrate } from './database/migrate.ts';
import { loadDemo } from './features/demo/service.ts';
import { openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(async () => {
  await test.close();
});

const resistor = (ref: string, marked: number | string, a = 'in', b = '0') => ({
  ref,
  kind: 'resistor',
  pins: { a, b },
  marked,
});

async function unitWith(...parts: object[]): Promise<UnitResource> {
  let { unit } = await test.write('POST', '/units', { name: 'Bench amplifier', hazards: ['mains'] });
  for (const part of parts)
    ({ unit } = await test.write('POST', `/units/${unit.id}/parts`, { baseVersion: 0, part }));
  return unit;
}

describe('units', () => {
  it('puts a unit on the bench and answers it as the contract says', async () => {
    const { status, unit } = await test.write('POST', '/units', { name: '  Hum box ', kind: 'pedal' });
    expect(status).toBe(201);
    expect(unitResourceSchema.parse(unit)).toMatchObject({
      name: 'Hum box',
      kind: 'pedal',
      parts: [],
      stage: 'trace',
    });
  });

  it('refuses a unit without a name, saying which field', async () => {
    const { status, problem, contentType } = await test.write('POST', '/units', { name: ' ' });
    expect(status).toBe(422);
    expect(contentType).toContain('application/problem+json');
    expect(problemDocumentSchema.parse(problem)).toMatchObject({
      code: 'invalid',
      errors: [{ where: 'name', message: 'a unit needs a name' }],
    });
  });

  it('answers every failure as a problem document', async () => {
    const missing = await test.get('/units/00000000-0000-4000-8000-000000000000');
    expect(missing.status).toBe(404);
    expect(problemDocumentSchema.parse(missing.body).code).toBe('not-found');
    const unknown = await test.get('/nothing-here');
    expect(unknown.status).toBe(404);
    expect(problemDocumentSchema.parse(unknown.body).detail).toContain('/api/v1/nothing-here');
  });

  it('needs an idempotency key for a write', async () => {
    const answer = await test.app.inject({ method: 'POST', url: '/api/v1/units', payload: { name: 'x' } });
    expect(answer.statusCode).toBe(400);
    expect(answer.json()).toMatchObject({ code: 'key-missing' });
  });

  it('describes itself as OpenAPI 3 with every path', async () => {
    const { status, body } = await test.get('/openapi.json');
    expect(status).toBe(200);
    const { openapi, paths } = body as { openapi: string; paths: Record<string, unknown> };
    expect(openapi).toMatch(/^3\./);
    expect(Object.keys(paths)).toEqual(
      expect.arrayContaining(['/api/v1/units', '/api/v1/units/{unitId}/readings']),
    );
  });

  it('migrates a database that is there already without doing anything', async () => {
    const before = await UnitModel.count();
    await migrate(test.app.database);
    expect(await UnitModel.count()).toBe(before);
  });
});

describe('idempotency', () => {
  it('applies a repeated request once and gives the first answer again', async () => {
    const unit = await unitWith(resistor('R1', '47k'));
    const body = { baseVersion: 0, partId: unit.parts[0]!.id, value: 62_000, condition: 'leg lifted' };
    const first = await test.write('POST', `/units/${unit.id}/readings`, body, 'the-same-key');
    const again = await test.write('POST', `/units/${unit.id}/readings`, body, 'the-same-key');
    expect(first.status).toBe(201);
    expect(again.status).toBe(201);
    expect(again.unit).toEqual(first.unit);
    expect(await ReadingModel.count({ where: { unitId: unit.id } })).toBe(1);
  });

  it('applies requests that race with the same key once', async () => {
    const unit = await unitWith(resistor('R1', '47k'));
    const body = { baseVersion: 0, partId: unit.parts[0]!.id, value: 50_000 };
    const answers = await Promise.all(
      Array.from({ length: 6 }, () => test.write('POST', `/units/${unit.id}/readings`, body, 'raced-key-1')),
    );
    expect(new Set(answers.map((a) => a.status))).toEqual(new Set([201]));
    expect(await ReadingModel.count({ where: { unitId: unit.id } })).toBe(1);
  });

  it('refuses a key that belongs to another request', async () => {
    await test.write('POST', '/units', { name: 'One' }, 'key-of-one');
    const { status, problem } = await test.write('POST', '/units', { name: 'Two' }, 'key-of-one');
    expect(status).toBe(422);
    expect(problem.code).toBe('key-reused');
  });

  it('leaves nothing behind when a write fails, so that the key can be used again', async () => {
    const unit = await unitWith(resistor('R1', '47k'));
    const path = `/units/${unit.id}/parts/${unit.parts[0]!.id}`;
    const refused = await test.write(
      'PUT',
      path,
      { baseVersion: 0, part: resistor('R1', 'nonsense') },
      'key-to-retry',
    );
    expect(refused.status).toBe(422);
    const accepted = await test.write(
      'PUT',
      path,
      { baseVersion: 0, part: resistor('R1', '56k') },
      'key-to-retry',
    );
    expect(accepted.status).toBe(200);
  });
});

describe('versions', () => {
  it('answers a stale change with 409 and the part as it is now', async () => {
    const unit = await unitWith(resistor('R1', '47k'));
    const path = `/units/${unit.id}/parts/${unit.parts[0]!.id}`;
    await test.write('PUT', path, { baseVersion: 0, part: resistor('R1', '56k') });
    const { status, problem } = await test.write('PUT', path, {
      baseVersion: 0,
      part: resistor('R1', '68k'),
    });
    expect(status).toBe(409);
    expect(problem).toMatchObject({
      code: 'stale',
      current: { version: 1, part: { ref: 'R1', marked: 56_000 } },
    });
  });

  it('lets only one of two changes from the same version through', async () => {
    const unit = await unitWith(resistor('R1', '47k'));
    const path = `/units/${unit.id}/parts/${unit.parts[0]!.id}`;
    const answers = await Promise.all(
      ['51k', '56k'].map((value) => test.write('PUT', path, { baseVersion: 0, part: resistor('R1', value) })),
    );
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
  });
});

describe('parts and readings', () => {
  it('reads values in any notation and refuses what it cannot read, naming the field', async () => {
    const unit = await unitWith(resistor('R1', '4k7'));
    expect(unit.parts[0]!.part.marked).toBe(4700);
    const { status, problem } = await test.write('POST', `/units/${unit.id}/parts`, {
      baseVersion: 0,
      part: resistor('R2', '4x7'),
    });
    expect(status).toBe(422);
    expect(problem.detail).toBe('At R2.marked: "4x7" cannot be read as a value.');
  });

  it('keeps every reading: a correction is a new one', async () => {
    let unit = await unitWith(resistor('R1', '47k'));
    const partId = unit.parts[0]!.id;
    for (const value of [620, 62_000])
      ({ unit } = await test.write('POST', `/units/${unit.id}/readings`, { baseVersion: 0, partId, value }));
    expect(unit.readings.map((r) => r.value)).toEqual([620, 62_000]);
    expect(documentFromResource(unit).circuit.parts[0]!.found).toBe(62_000);
    expect(unit.log[0]!.summary).toBe('Measured R1 with a leg lifted: 62 kΩ, reads 32 % above 47k.');
  });

  it('does not take a low reading in circuit for the found value', async () => {
    let unit = await unitWith(resistor('R1', '47k'));
    ({ unit } = await test.write('POST', `/units/${unit.id}/readings`, {
      baseVersion: 0,
      partId: unit.parts[0]!.id,
      value: 20_000,
      condition: 'in circuit',
    }));
    expect(documentFromResource(unit).circuit.parts[0]!.found).toBeUndefined();
    expect(unit.readings).toHaveLength(1);
  });

  it('refuses a reading of both a part and a readout', async () => {
    const unit = await unitWith(resistor('R1', '47k'));
    const id = unit.parts[0]!.id;
    const { status } = await test.write('POST', `/units/${unit.id}/readings`, {
      baseVersion: 0,
      partId: id,
      readoutId: id,
      value: 1,
    });
    expect(status).toBe(422);
  });

  it('keeps the readings of a removed part in its table', async () => {
    const unit = await unitWith(resistor('R1', '47k'));
    const id = unit.parts[0]!.id;
    await test.write('POST', `/units/${unit.id}/readings`, { baseVersion: 0, partId: id, value: 50_000 });
    const removed = await test.write('POST', `/units/${unit.id}/parts/${id}/remove`, { baseVersion: 0 });
    expect(removed.unit.parts).toEqual([]);
    expect(await ReadingModel.count({ where: { partId: id } })).toBe(1);
  });
});

describe('undo', () => {
  it('takes back adding, changing, measuring, planning and removing, newest first', async () => {
    let unit = await unitWith(resistor('R1', '47k'));
    const id = unit.parts[0]!.id;
    const path = `/units/${unit.id}`;
    ({ unit } = await test.write('PUT', `${path}/parts/${id}`, {
      baseVersion: 0,
      part: resistor('R1', '56k'),
    }));
    ({ unit } = await test.write('POST', `${path}/readings`, { baseVersion: 1, partId: id, value: 70_000 }));
    const plan = { id: 'c', name: 'Less hiss', purpose: 'repair', state: 'planned' };
    const steps = [{ do: 'fit', ref: 'R1', value: '51k' }];
    ({ unit } = await test.write('POST', `${path}/changes`, { change: { ...plan, steps } }));
    ({ unit } = await test.write('POST', `${path}/parts/${id}/remove`, { baseVersion: 1 }));
    expect(unit.parts).toEqual([]);
    const undo = async () => {
      const entry = unit.log.find((e) => e.undoable)!;
      ({ unit } = await test.write('POST', `${path}/undo`, { sequence: entry.sequence }));
    };
    await undo();
    expect(unit.parts[0]!.part).toMatchObject({ marked: 56_000 });
    expect(unit.changes).toMatchObject([{ change: { ...plan, steps: [{ value: 51_000 }] } }]);
    await undo();
    expect(unit.changes).toEqual([]);
    await undo();
    expect(unit.readings[0]!.withdrawn).toBe(true);
    await undo();
    expect(unit.parts[0]!.part.marked).toBe(47_000);
    await undo();
    expect(unit.parts).toEqual([]);
    expect(unit.log.some((e) => e.undoable)).toBe(false);
    const none = await test.write('POST', `${path}/undo`, { sequence: 1 });
    expect(none.status).toBe(422);
  });

  it('takes back any step, while others go on elsewhere; twice it cannot be', async () => {
    const unit = await unitWith(resistor('R1', '47k'), resistor('R2', '10k'));
    const first = unit.log.findLast((e) => e.undoable)!;
    const undo = () => test.write('POST', `/units/${unit.id}/undo`, { sequence: first.sequence });
    expect((await undo()).unit.parts.map((p) => p.part.ref)).toEqual(['R2']);
    expect((await undo()).problem.detail).toBe('That step was taken back already.');
  });
});

describe('unit files', () => {
  it('gives the same numbers after export and import', async () => {
    await loadDemo(test.app.database, [larkDiscPreamp], true);
    const list = (await test.get('/units')).body as { units: { id: string; name: string }[] };
    const id = list.units.find((u) => u.name === larkDiscPreamp.document.unit.name)!.id;
    const file = await test.app.inject({ method: 'GET', url: `/api/v1/units/${id}/file` });
    expect(file.headers['content-disposition']).toContain('lark-3-disc-preamp.zemble.json');
    const imported = await test.write('POST', '/units/import', { text: file.body });
    expect(imported.status).toBe(201);
    const original = (await test.get(`/units/${id}`)).body as UnitResource;
    expect(readoutTable(documentFromResource(imported.unit))).toEqual(
      readoutTable(documentFromResource(original)),
    );
    expect(imported.unit.readings.map((r) => [r.value, r.condition, r.takenAt])).toEqual(
      original.readings.map((r) => [r.value, r.condition, r.takenAt]),
    );
    const again = await test.app.inject({ method: 'GET', url: `/api/v1/units/${imported.unit.id}/file` });
    const parts = (text: string) => (JSON.parse(text) as { circuit: unknown }).circuit;
    expect(parts(again.body)).toEqual(parts(file.body));
  });

  it('keeps fields that it does not know', async () => {
    const text = JSON.stringify({
      format: 'zemble/unit',
      version: 1,
      unit: { name: 'Later', colour: 'teal' },
      circuit: { ground: '0', parts: [{ ...resistor('R1', '1k'), maker: 'unknown' }], board: { width: 3 } },
      path: { blocks: [] },
      laterField: [1, 2],
    });
    const { unit } = await test.write('POST', '/units/import', { text });
    const file = (await test.get(`/units/${unit.id}/file`)).body as Record<string, Record<string, unknown>>;
    expect(file).toMatchObject({
      unit: { colour: 'teal' },
      circuit: { board: { width: 3 }, parts: [{ maker: 'unknown', marked: 1000 }] },
      path: { blocks: [] },
      laterField: [1, 2],
    });
  });

  it.each([
    ['{"format":"zemble/unit","version":1,"circ', /ends in the middle/],
    ['\u0089PNG\r\n', /picture/],
    ['{"format":"zemble/unit","version":7}', /version 7/],
    ['', /empty/],
  ])('refuses the file %j and says why', async (text, sentence) => {
    const before = await UnitModel.count();
    const { status, problem } = await test.write('POST', '/units/import', { text });
    expect(status).toBe(422);
    expect(problem.detail).toMatch(sentence);
    expect(await UnitModel.count()).toBe(before);
  });

  it('refuses a file of 50 MB with a sentence', async () => {
    const { status, problem } = await test.write('POST', '/units/import', { text: ' '.repeat(50_000_000) });
    expect(status).toBe(413);
    expect(problem.detail).toMatch(/at most 10 MB/);
  });

  it('numbers the log without gaps and keeps it in order', async () => {
    const unit = await unitWith(resistor('R1', '1k'), resistor('R2', '2k'));
    const entries = await LogEntryModel.findAll({ where: { unitId: unit.id }, order: [['sequence', 'ASC']] });
    expect(entries.map((e) => e.sequence)).toEqual([1, 2, 3]);
  });
});
