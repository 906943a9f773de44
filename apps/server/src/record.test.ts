import { randomUUID } from 'node:crypto';
import { type Act, type Thing, type UnitResource } from '@zemble/contract';
import { benchSteps, documentFromResource, type Problem } from '@zemble/core';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { openTestApp, type TestApp } from './testing/test-app.ts';
import { picture, upload } from './testing/upload.ts';

let test: TestApp;
let unit: UnitResource;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(() => test.close());

const resistor = (ref: string, a = 'vcc', b = '0') => ({
  ref,
  kind: 'resistor' as const,
  pins: { a, b },
  marked: 1000,
});
const BOARD = {
  id: 'b1',
  style: 'strip',
  columns: 12,
  rows: 6,
  places: [],
  cuts: [],
  links: [],
  terminals: [],
};
const FILE = {
  format: 'zemble/unit',
  version: 1,
  unit: { name: 'Divider' },
  circuit: {
    ground: '0',
    parts: [
      { ref: 'V1', kind: 'supply', pins: { plus: 'vcc', minus: '0' }, marked: 9 },
      resistor('R1', 'vcc', 'a'),
      resistor('R10', 'a', '0'),
    ],
  },
  changes: [
    {
      id: 'm1',
      name: 'Less',
      purpose: 'modification',
      state: 'planned',
      steps: [
        { do: 'fit', ref: 'R1', value: 820 },
        { do: 'fit', ref: 'R10', value: 820 },
      ],
    },
  ],
  boards: [BOARD],
};
const root = () => `/units/${unit.id}`;
const post = (path: string, body: object) => test.write('POST', `${root()}${path}`, body);
const reload = async () => (unit = (await test.get(root())).body as UnitResource);
const undo = (sequence: number) => post('/undo', { sequence });
const idOf = (ref: string) => unit.parts.find((p) => p.part.ref === ref)!.id;

beforeEach(async () => {
  await test.app.database.query('DELETE FROM units');
  ({ unit } = await test.write('POST', '/units/import', { text: JSON.stringify(FILE) }));
});

describe('what holds for a unit', () => {
  it('holds for undo as for entries: no designator comes twice, by removal or by renaming', async () => {
    const removed = await post(`/parts/${idOf('R10')}/remove`, { baseVersion: 0 });
    await post('/parts', { part: resistor('R10') });
    const back = await undo(removed.answer.sequence);
    expect([back.status, back.problem.code, back.problem.detail]).toEqual([
      409,
      'broken',
      expect.stringContaining('two parts R10'),
    ]);
    await reload();
    const renamed = await test.write('PUT', `${root()}/parts/${idOf('R1')}`, {
      baseVersion: 0,
      part: resistor('R2', 'vcc', 'a'),
    });
    await post('/parts', { part: resistor('R1') });
    expect((await undo(renamed.answer.sequence)).status).toBe(409);
    await reload();
    expect(unit.parts.map((p) => p.part.ref).sort()).toEqual(['R1', 'R10', 'R2', 'V1']);
  });

  it.each(['2200-01-01T00:00:00Z', '1969-12-31T23:59:59Z', '0000-01-01T00:00:00Z'])(
    'refuses a time that nobody could read again: %s',
    async (at) => {
      const { status } = await test.write('PUT', `${root()}/ticks`, {
        id: 's1',
        words: 'w',
        isDone: true,
        at,
      });
      expect(status).toBe(422);
      expect((await test.get(root())).status).toBe(200);
      expect((await test.get(`${root()}/file`)).status).toBe(200);
    },
  );

  it('has room for as many of each as a file has, and names the limit', async () => {
    const rows = Array.from({ length: 200 }, (_, i) => ({
      id: `v${i}`,
      name: `V ${i}`,
      kind: 'voltage',
      net: 'a',
    }));
    const text = JSON.stringify({ ...FILE, readouts: rows });
    ({ unit } = await test.write('POST', '/units/import', { text }));
    const one = await post('/readouts', { readout: { id: 'more', name: 'More', kind: 'voltage', net: 'a' } });
    expect([one.status, one.problem.detail]).toEqual([422, 'A unit has room for 200 readouts.']);
    const file = (await test.get(`${root()}/file`)).body;
    expect((await test.write('POST', '/units/import', { text: JSON.stringify(file) })).status).toBe(201);
  });

  it('is kept by the database too, where a lapse of the server would break it', async () => {
    const insert = `INSERT INTO parts (id, unit_id, version, position, ref, kind, pins, extra) VALUES ('${randomUUID()}', '${unit.id}', 0, 9, 'R1', 'resistor', '{}', '{}')`;
    await expect(test.app.database.query(insert, { type: QueryTypes.RAW })).rejects.toThrow();
  });
});

describe('what a later version reads more strictly', () => {
  it('is in the file as it was written, and said', async () => {
    await test.app.database.query(
      `UPDATE parts SET extra = '{"power": "25 Volt"}' WHERE ref = 'R1' AND unit_id = '${unit.id}'`,
    );
    await reload();
    const problems: Problem[] = [];
    documentFromResource(unit, problems);
    expect(problems.map((p) => p.message)).toEqual([expect.stringContaining('25 Volt')]);
    const { circuit } = (await test.get(`${root()}/file`)).body as typeof FILE;
    expect(circuit.parts.find((p) => p.ref === 'R1')).toMatchObject({ power: '25 Volt', marked: 1000 });
  });
});

describe('a tick', () => {
  const at = '2026-12-01T10:00:00.000Z';
  const steps = () => benchSteps(documentFromResource(unit), {}).steps;
  const tick = (id: string, isDone = true, more: object = {}) =>
    test.write('PUT', `${root()}/ticks`, { id, words: `Did ${id}.`, isDone, at, ...more });

  it('waits for what must be done before it, whoever ticks and by whichever way', async () => {
    const fit = steps().find((s) => s.ticks?.step === 0)!;
    const early = await tick(fit.id);
    expect([early.status, early.problem.code]).toEqual([409, 'broken']);
    expect(early.problem.detail).toMatch(/^Before this: /);
    const inBatch = await post('/batch', {
      acts: [{ type: 'tick-step', id: fit.id, words: 'x', isDone: true, at }],
    });
    expect(inBatch.status).toBe(409);
  });

  it('is one act: the step of a change is ticked in it, and the last one makes it done', async () => {
    for (const { id, kind } of steps()) {
      if (kind === 'check' || kind === 'power') break;
      const done = await tick(id);
      expect([id, done.status]).toEqual([id, 200]);
    }
    await reload();
    const { change } = unit.changes[0]!;
    expect([change.state, change.steps.map((s) => s.done?.at)]).toEqual(['done', [at, at]]);
    expect(unit.log.find((l) => l.summary.includes('Done: Less.'))).toBeDefined();
  });

  it('of two hands at two steps keeps both, and neither is taken back with the other', async () => {
    const before = steps();
    const [one, other] = before.filter((s) => s.ticks);
    const all = before.slice(0, Math.max(before.indexOf(one!), before.indexOf(other!)));
    for (const { id, ticks } of all) if (!ticks) await tick(id);
    const fits = before.filter((s) => s.ticks);
    const first = await tick(fits[0]!.id);
    const second = await tick(fits[1]!.id);
    expect([first.status, second.status]).toEqual([200, 200]);
    expect((await undo(first.answer.sequence)).status).toBe(200);
    await reload();
    expect(unit.changes[0]!.change.steps.map((s) => s.done !== undefined)).toEqual([false, true]);
    expect(unit.changes[0]!.change.state).toBe('planned');
  });
});

describe('things of a field', () => {
  const place = (ref: string, column: number) => ({ ref, holes: { a: [column, 1], b: [column, 4] } });
  const thing = (at: string[], was: unknown, now: unknown) => ({ at, was, now }) as Thing;
  const put = (...things: Thing[]) => post('/things', { things });

  it('are put by two hands without meeting, unless they touch the same', async () => {
    const at = (ref: string) => ['boards', 'b1', 'places', ref];
    expect((await put(thing(at('R1'), null, place('R1', 1)))).status).toBe(200);
    expect((await put(thing(at('R10'), null, place('R10', 5)))).status).toBe(200);
    const mine = await put(thing(at('R1'), place('R1', 1), place('R1', 2)));
    expect(mine.status).toBe(200);
    const late = await put(thing(at('R1'), place('R1', 1), place('R1', 7)));
    expect([late.status, late.problem.code, late.problem.current]).toEqual([
      409,
      'stale',
      { at: at('R1'), value: place('R1', 2) },
    ]);
    await reload();
    expect(unit.boards[0]!.places).toEqual([place('R1', 2), place('R10', 5)]);
    // The log keeps what changed, and not the whole board twice.
    const [row] = await test.app.database.query<{ inverse: unknown; effects: unknown }>(
      `SELECT inverse, effects FROM log_entries WHERE sequence = ${mine.answer.sequence} AND unit_id = '${unit.id}'`,
      { type: QueryTypes.SELECT },
    );
    expect(JSON.stringify(row)).not.toContain('R10');
    expect((await undo(mine.answer.sequence)).unit.boards[0]!.places).toEqual([
      place('R1', 1),
      place('R10', 5),
    ]);
  });

  it('are kept as they are read: a board that is put without its lists has empty ones, and takes a cut', async () => {
    const bare = { id: 'b2', style: 'pads', columns: 9, rows: 9 };
    const made = await put(thing(['boards', 'b2'], null, bare));
    expect(made.unit.boards[1]).toEqual({ ...bare, places: [], cuts: [], links: [], terminals: [] });
    const cut = await put(thing(['boards', 'b2', 'cuts', '3,3'], null, [3, 3]));
    expect([cut.status, cut.unit.boards[1]!.cuts]).toEqual([200, [[3, 3]]]);
    expect((await undo(cut.answer.sequence)).unit.boards[1]!.cuts).toEqual([]);
    expect((await undo(made.answer.sequence)).unit.boards).toHaveLength(1);
  });

  it('that a reader could not read again are refused by the field’s own rules', async () => {
    const odd = await put(thing(['boards', 'b1', 'columns'], 12, 1e6));
    expect([odd.status, odd.problem.detail]).toEqual([422, expect.stringContaining('at most 200 columns')]);
    expect((await put(thing(['name'], 'Divider', 'x'))).status).toBe(422);
    expect((await put(thing(['nothing', 'x'], null, 1))).status).toBe(422);
    // A tick has rules of its own, which this way does not go round.
    const tick = { at: '2026-12-01T10:00:00.000Z' };
    expect((await put(thing(['ticks', 'fit'], null, tick))).status).toBe(422);
  });
});

describe('several acts that are one thought', () => {
  const add = (ref: string): Act => ({ type: 'add-part', id: randomUUID(), part: resistor(ref) });

  it('are one step of the log and taken back at once', async () => {
    const {
      status,
      answer,
      unit: after,
    } = await post('/batch', {
      acts: [add('R2'), add('R3'), { type: 'add-note', id: randomUUID(), text: 'both' }],
      words: 'Two more.',
    });
    expect([status, after.parts.length, after.log[0]!.summary, after.sequence]).toEqual([
      200,
      5,
      'Two more.',
      unit.sequence + 1,
    ]);
    expect((await undo(answer.sequence)).unit.parts).toHaveLength(3);
  });

  it('are all carried out, or none', async () => {
    const { status } = await post('/batch', { acts: [add('R2'), add('R1')] });
    expect(status).toBe(422);
    expect((await reload()).parts).toHaveLength(3);
    expect((await post('/batch', { acts: [{ type: 'undo', sequence: 1 }] })).status).toBe(422);
    // What the act's own request would refuse is refused here too, with a sentence.
    const long = await post('/batch', {
      acts: [add('R2'), { type: 'add-note', id: randomUUID(), text: 'x'.repeat(6000) }],
    });
    expect([long.status, long.problem.detail]).toEqual([422, expect.stringMatching(/^add-note: text: /)]);
    expect((await reload()).parts).toHaveLength(3);
  });

  it('replace a plan by another, as it is planned by then', async () => {
    const plan = (values: object) => post('/plans', { id: randomUUID(), values, why: 'louder' });
    expect((await plan({ R1: 470 })).status).toBe(201);
    const both = await plan({ R1: 560, R10: 5 });
    // What was planned for either of them is replaced: no part is soldered twice.
    expect(both.unit.changes.map((c) => [c.change.id, c.change.state])).toEqual([
      ['m1', 'dropped'],
      [expect.any(String), 'dropped'],
      [expect.any(String), 'planned'],
    ]);
    expect(both.unit.changes.at(-1)!.change.steps).toMatchObject([{ value: 560 }, { value: 5 }]);
    expect(both.unit.sequence).toBe(unit.sequence + 2);
    const back = await undo(both.answer.sequence);
    expect(back.unit.changes.map((c) => c.change.state)).toEqual(['planned', 'planned']);
    // The first plan took its part out of the older one, which goes on with the rest.
    expect(back.unit.changes[0]!.change.steps).toMatchObject([{ ref: 'R10', value: 820 }]);
  });
});

describe('a photo and what lies on it', () => {
  it('are turned together, and go through a file together', async () => {
    const { body } = await upload(test, unit.id, await picture(40, 20).jpeg().toBuffer());
    const [photo] = body.photos;
    const damage = { defect: 'arcing', photoId: photo!.id, x: 0.22, y: 0.69, at: '2026-12-01T10:00:00.000Z' };
    await test.write('PATCH', root(), { seen: {}, intake: { damage: [damage] } });
    const turned = await test.write('PATCH', `${root()}/photos/${photo!.id}`, { baseVersion: 0, turn: 1 });
    // A quarter clockwise: what was at the left is at the top.
    expect(turned.unit.intake.damage![0]).toMatchObject({
      x: expect.closeTo(0.31, 9),
      y: expect.closeTo(0.22, 9),
    });
    const back = await undo(turned.answer.sequence);
    expect(back.unit.intake.damage![0]).toMatchObject({
      x: expect.closeTo(0.22, 9),
      y: expect.closeTo(0.69, 9),
    });
    const file = (await test.get(`${root()}/file`)).body;
    const again = await test.write('POST', '/units/import', { text: JSON.stringify(file) });
    expect(again.unit.intake.damage![0]).toMatchObject({
      photoId: again.unit.photos[0]!.id,
      x: expect.closeTo(0.22, 9),
    });
  });

  it.each([
    ['a text', Buffer.from('no picture at all')],
    ['a picture cut short', Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex')],
  ])('that cannot be read gets our sentence: %s', async (_, bytes) => {
    const { status, body } = await upload(test, unit.id, bytes);
    expect([status, body.detail]).toEqual([
      422,
      'This is not a picture that can be read: it is of another kind, cut short, or damaged.',
    ]);
  });

  it('of too many pixels is refused before it is decoded', async () => {
    const { status, body } = await upload(test, unit.id, await picture(9000, 9000).png().toBuffer());
    expect([status, body.detail]).toEqual([
      422,
      'The picture is too large: 9000 by 9000 pixels, more than 60 million.',
    ]);
  });
});
