import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { unitResourceSchema } from '@zemble/contract';
import { documentFromResource, evaluateAll, resolveLayer } from '@zemble/core';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { connect } from './database/connect.ts';
import { alone, migrate } from './database/migrate.ts';
import * as hazardsAndSettings from './database/migrations/0005-hazards-and-settings.ts';
import { freshDatabase, openTestApp, type TestApp } from './testing/test-app.ts';

let test: TestApp;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(async () => {
  await test.close();
});

const supply = { ref: 'V1', kind: 'supply', pins: { plus: 'vcc', minus: '0' }, marked: 9 };
const HAZARDS = ['mains', 'Valve HT, 300 V', 'sharp edges', 'SMPS'];

describe('a bench from before hazards were a list of known ones', () => {
  it('keeps every hazard and every word that was written, through the migration', async () => {
    const { unit } = await test.write('POST', '/units', { name: 'Old amplifier', hazards: ['mains'] });
    const query = test.app.database.getQueryInterface();
    await hazardsAndSettings.down(query);
    await query.sequelize.query('UPDATE units SET hazards = CAST(:hazards AS jsonb) WHERE id = :id', {
      type: QueryTypes.UPDATE,
      replacements: { id: unit.id, hazards: JSON.stringify(HAZARDS) },
    });
    await hazardsAndSettings.up(query);
    const read = unitResourceSchema.parse((await test.get(`/units/${unit.id}`)).body);
    expect(read.hazards).toEqual(['mains', 'valve high tension', 'switch-mode primary']);
    for (const words of ['Valve HT, 300 V', 'sharp edges', 'SMPS']) expect(read.hazardNotes).toContain(words);
    expect(read.settings).toEqual([]);
  });
});

describe('a unit file from before', () => {
  const file = (parts: object[], unit: object = {}) =>
    JSON.stringify({
      format: 'zemble/unit',
      version: 1,
      unit: { name: 'From a file', ...unit },
      circuit: { ground: '0', parts },
      readouts: [{ id: 'v', name: 'At a', kind: 'voltage', net: 'a' }],
    });
  const divider = [
    supply,
    { ref: 'R1', kind: 'resistor', pins: { a: 'vcc', b: 'a' }, marked: '1k' },
    { ref: 'P1', kind: 'potentiometer', pins: { 1: '0', 2: 'a', 3: 'vcc' }, marked: '10k', taper: 'audio' },
  ];

  it('opens with free hazards, words in other spellings and parameters beside the value, and computes with them', async () => {
    const { status, unit } = await test.write('POST', '/units/import', {
      text: file(divider, { hazards: HAZARDS }),
    });
    expect(status).toBe(201);
    expect(unit.hazards).toEqual(['mains', 'valve high tension', 'switch-mode primary']);
    expect(unit.hazardNotes).toContain('sharp edges');
    const document = documentFromResource(unit);
    expect(document.circuit.parts[2]).toMatchObject({ taper: 'log' });
    const [answer] = evaluateAll(resolveLayer(document.circuit, 'marked'), document.readouts);
    // A logarithmic track has 10 % at half: 1k of 10k to the ground, and R1 beside the other 9k.
    const lower = (10e3 * (81 ** 0.5 - 1)) / 80;
    const upper = 1 / (1 / 1000 + 1 / (10e3 - lower));
    expect(answer).toMatchObject({ ok: true, value: expect.closeTo((9 * lower) / (lower + upper), 2) });
  });

  it('with a track letter that makers use both ways is refused with its place and what to do', async () => {
    const parts = divider.map((p) => ('taper' in p ? { ...p, taper: 'A' } : p));
    const { status, problem } = await test.write('POST', '/units/import', { text: file(parts) });
    expect(status).toBe(422);
    expect(JSON.stringify(problem)).toMatch(/parts\[2\] \(P1\)\.taper/);
  });
});

describe('text that a database cannot hold', () => {
  const nul = 'a\u0000b';
  const said = async (path: string, body: object) => {
    const { status, problem } = await test.write('POST', path, body);
    return [status, problem.detail];
  };

  it('is refused with its place wherever it is written, and is no failure of the server', async () => {
    const { unit } = await test.write('POST', '/units', { name: 'Plain' });
    expect(await said('/units', { name: nul })).toEqual([422, expect.stringMatching(/^name: .*NUL/)]);
    const part = { ref: 'R1', kind: 'resistor', pins: { a: nul, b: '0' }, marked: 1e3 };
    expect(await said(`/units/${unit.id}/parts`, { baseVersion: 0, part })).toEqual([
      422,
      expect.stringMatching(/^part\.pins\.a: .*NUL/),
    ]);
  });

  it('is refused in a file, at any depth and in a name, with its place', async () => {
    const fileWith = (more: object, net = 'vcc') =>
      JSON.stringify({
        format: 'zemble/unit',
        version: 1,
        circuit: { ground: '0', parts: [{ ...supply, pins: { plus: net, minus: '0' } }] },
        ...more,
      });
    expect(await said('/units/import', { text: fileWith({}, nul) })).toEqual([
      422,
      expect.stringMatching(/circuit\.parts\[0\] \(V1\)\.pins\.plus: .*NUL/),
    ]);
    expect(await said('/units/import', { text: fileWith({ extra: { deep: [nul] } }) })).toEqual([
      422,
      expect.stringMatching(/extra\.deep\[0\]: .*NUL/),
    ]);
    expect(await said('/units/import', { text: fileWith({ extra: { [nul]: 1 } }) })).toEqual([
      422,
      expect.stringMatching(/extra: .*NUL/),
    ]);
  });
});

describe('several processes that start at once on a new database', () => {
  it('bring it up to date one after the other', async () => {
    const url = await freshDatabase();
    const processes = [1, 2, 3].map(() => connect(url));
    let running = 0;
    const starts = processes.map((database) =>
      alone(database, async () => {
        running += 1;
        expect(running).toBe(1);
        await migrate(database);
        running -= 1;
      }),
    );
    await Promise.all(starts);
    const [rows] = await processes[0]!.query('SELECT count(*)::int AS count FROM migrations');
    const written = readdirSync(join(import.meta.dirname, 'database/migrations')).filter((f) =>
      /^\d/.test(f),
    );
    expect(rows).toEqual([{ count: written.length }]);
    await Promise.all(processes.map((database) => database.close()));
  });
});
