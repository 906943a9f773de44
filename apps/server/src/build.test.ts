import { randomUUID } from 'node:crypto';
import { drawerSchema, type UnitResource } from '@zemble/contract';
import { benchSteps, documentFromResource, resolveLayer } from '@zemble/core';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { openTestApp, type TestApp } from './testing/test-app.ts';
import { picture, upload } from './testing/upload.ts';

let test: TestApp;
let unit: UnitResource;
beforeAll(async () => {
  test = await openTestApp();
});
afterAll(async () => {
  await test.close();
});

const BOARD = {
  id: 'b1',
  style: 'strip',
  columns: 12,
  rows: 6,
  places: [{ ref: 'R1', holes: { a: [1, 1], b: [1, 4] } }],
  cuts: [[3, 1]],
  links: [],
  terminals: [{ net: 'vcc', hole: [0, 1] }],
};
const WIRE = { id: 'w1', colour: 'green', from: 'V1.plus', to: 'board.vcc', length: 120 };
const FILE = {
  format: 'zemble/unit',
  version: 1,
  unit: { name: 'Divider' },
  circuit: {
    ground: '0',
    parts: [
      { ref: 'V1', kind: 'supply', pins: { plus: 'vcc', minus: '0' }, marked: 9 },
      { ref: 'R1', kind: 'resistor', pins: { a: 'vcc', b: 'a' }, marked: 1000, body: { lengthMm: 9 } },
      { ref: 'R2', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: 1000 },
    ],
  },
  settings: [{ id: 'low', controls: { R1: 0.5 } }],
  boards: [BOARD],
  wires: [WIRE],
  bench: { ticks: { safe: { at: '2026-03-01T10:00:00.000Z' } } },
};
const root = () => `/units/${unit.id}`;

beforeEach(async () => {
  await test.app.database.query('DELETE FROM units; DELETE FROM stock');
  ({ unit } = await test.write('POST', '/units/import', { text: JSON.stringify(FILE) }));
});

describe('what a unit is built with', () => {
  it('goes through the record and back into a file, sizes of parts too', async () => {
    expect(unit.boards).toEqual([BOARD]);
    expect(unit.wires).toEqual([WIRE]);
    const file = (await test.get(`${root()}/file`)).body as typeof FILE;
    expect(file).toMatchObject({
      boards: [BOARD],
      wires: [WIRE],
      bench: FILE.bench,
      settings: FILE.settings,
    });
    expect(file.circuit.parts[1]!.body).toEqual({ lengthMm: 9 });
  });

  it('keeps the photo that lies under a board and a panel: turned with it, undone, and in the file of it', async () => {
    await upload(test, unit.id, await picture(30, 20).png().toBuffer());
    const { photos } = (await upload(test, unit.id, await picture(300, 200).png().toBuffer())).body;
    const photoId = photos[1]!.id;
    const marks = [
      { hole: [1, 1], at: { x: 0.25, y: 0.5 } },
      { hole: [1, 4], at: { x: 0.75, y: 0.25 } },
    ];
    const panel = {
      id: 'p1',
      widthMm: 100,
      heightMm: 60,
      gapMm: 20,
      controls: [],
      photo: { photoId, from: { x: 0, y: 0.5 }, to: { x: 1, y: 0.5 }, mm: 50, at: { x: -5, y: 10 } },
    };
    await test.write('PATCH', root(), {
      boards: [{ ...BOARD, photo: { photoId, marks } }],
      panels: [panel],
    });
    const under = ({ boards, panels }: Pick<UnitResource, 'boards' | 'panels'>) => ({
      at: boards[0]!.photo?.marks.map((m) => [m.at.x, m.at.y]),
      ends: [panels[0]!.photo?.from, panels[0]!.photo?.to].map((p) => [p?.x, p?.y]),
      corner: panels[0]!.photo?.at,
    });
    // A quarter clockwise: what was at (x, y) is at (1 - y, x).
    const turned = await test.write('PATCH', `${root()}/photos/${photoId}`, { baseVersion: 0, turn: 1 });
    expect(under(turned.unit)).toEqual({
      at: [
        [0.5, 0.25],
        [0.75, 0.75],
      ],
      ends: [
        [0.5, 0],
        [0.5, 1],
      ],
      corner: { x: -5, y: 10 },
    });
    expect(turned.unit.versions.boards).toBe(2);
    const back = await test.write('POST', `${root()}/undo`, { sequence: turned.answer.sequence });
    expect(under(back.unit).at).toEqual([
      [0.25, 0.5],
      [0.75, 0.25],
    ]);
    const text = JSON.stringify((await test.get(`${root()}/file`)).body);
    const { unit: copy } = await test.write('POST', '/units/import', { text });
    expect(under(copy)).toEqual(under(back.unit));
    expect(copy.photos[1]!.id).not.toBe(photoId);
    expect(copy.boards[0]!.photo!.photoId).toBe(copy.photos[1]!.id);
    expect(copy.panels[0]!.photo!.photoId).toBe(copy.photos[1]!.id);
  });

  it('is changed field by field, refused where it was changed meanwhile, and undone', async () => {
    const moved = { ...BOARD, cuts: [] };
    const seen = { boards: unit.versions.boards ?? 0 };
    const { unit: after } = await test.write('PATCH', root(), { seen, boards: [moved] });
    expect(after.boards).toEqual([moved]);
    const stale = await test.write('PATCH', root(), { seen, boards: [] });
    expect(stale.status).toBe(409);
    const { unit: undone } = await test.write('POST', `${root()}/undo`, { sequence: after.sequence });
    expect(undone.boards).toEqual([BOARD]);
  });

  it('refuses boards and wires that are none, each with a sentence', async () => {
    const why = async (body: object) => {
      const { status, problem } = await test.write('PATCH', root(), body);
      expect(status).toBe(422);
      return JSON.stringify(problem);
    };
    expect(await why({ boards: [{ ...BOARD, columns: 1e6 }] })).toContain('at most 200 columns');
    expect(await why({ boards: [{ ...BOARD, places: [{ ref: 'R1', holes: { a: [0.5, 1] } }] }] })).toContain(
      'whole numbers',
    );
    expect(await why({ wires: [{ ...WIRE, from: '' }] })).toContain('two ends');
  });
});

describe('ticks of the bench work', () => {
  const tick = (id: string, isDone: boolean, at = '2026-03-02T09:00:00.000Z') =>
    test.write('PUT', `${root()}/ticks`, { id, words: `Did ${id}.`, isDone, at });

  it('are kept and logged, once, and taken back', async () => {
    const { unit: ticked } = await tick('loosen', true);
    expect(Object.keys(ticked.ticks)).toEqual(['safe', 'loosen']);
    expect(ticked.log[0]!.summary).toBe('Did loosen.');
    const { unit: again } = await tick('loosen', true);
    expect(again.log).toHaveLength(ticked.log.length);
    // What has lapsed is ticked anew.
    const later = '2026-03-03T09:00:00.000Z';
    expect((await tick('loosen', true, later)).unit.ticks.loosen).toEqual({ at: later });
    const { unit: back } = await tick('loosen', false);
    expect(Object.keys(back.ticks)).toEqual(['safe']);
    expect(back.log[0]!.summary).toContain('Not done after all');
    const { unit: undone } = await test.write('POST', `${root()}/undo`, { sequence: back.sequence });
    expect(Object.keys(undone.ticks)).toEqual(['safe', 'loosen']);
  });

  it('of a change take its parts from the drawer one by one, and give them back', async () => {
    const count = async () => drawerSchema.parse((await test.get('/drawer')).body).items.map((i) => i.count);
    const item = { kind: 'resistor', value: 820, count: 5, place: 'A2' };
    await test.write('POST', '/drawer/items', { items: [{ ...item, id: randomUUID() }] });
    const done = { at: '2026-03-02T09:00:00.000Z' };
    const change = (state: string, ...ticked: boolean[]) => ({
      id: 'm1',
      name: 'Less',
      purpose: 'modification',
      state,
      steps: ['R1', 'R2'].map((ref, i) => ({ do: 'fit', ref, value: 820, ...(ticked[i] ? { done } : {}) })),
    });
    ({ unit } = await test.write('POST', `${root()}/changes`, { change: change('planned') }));
    const restate = async (state: string, ...ticked: boolean[]) => {
      const { id, version } = unit.changes[0]!;
      const body = { baseVersion: version, change: change(state, ...ticked) };
      ({ unit } = await test.write('PUT', `${root()}/changes/${id}`, body));
    };
    expect(await count()).toEqual([5]);
    await restate('planned', true, false);
    expect(await count()).toEqual([4]);
    expect(unit.log[0]!.summary).toContain('From the drawer: R1');
    await restate('done', true, true);
    expect(await count()).toEqual([3]);
    await restate('planned', true, false);
    expect(await count()).toEqual([4]);
    await restate('planned', false, false);
    expect(await count()).toEqual([5]);
  });

  it('of a part that was planned twice solder it once: the earlier plan is dropped, and back with the tick', async () => {
    for (const [id, value] of [
      ['first', 820],
      ['second', 680],
    ] as const)
      ({ unit } = await test.write('POST', `${root()}/changes`, {
        change: {
          id,
          name: id,
          purpose: 'modification',
          state: 'planned',
          steps: [{ do: 'fit', ref: 'R1', value }],
        },
      }));
    const work = () => benchSteps(documentFromResource(unit)).steps;
    const states = () => unit.changes.map((c) => c.change.state);
    expect(work().filter((s) => s.kind === 'fit')).toHaveLength(1);
    for (const { id, kind } of work())
      if (kind !== 'check' && kind !== 'power') ({ unit } = await tick(id, true));
    expect(states()).toEqual(['dropped', 'done']);
    ({ unit } = await test.write('POST', `${root()}/undo`, { sequence: unit.sequence }));
    expect(states()).toEqual(['planned', 'planned']);
  });

  it('of a part that is added and fitted otherwise, also by its own plan, are one; undo leaves plans and drawer as they were', async () => {
    const item = { id: randomUUID(), kind: 'resistor', value: 22_000, count: 4, place: 'A1' };
    await test.write('POST', '/drawer/items', { items: [item] });
    const part = { ref: 'R9', kind: 'resistor', pins: { a: 'a', b: '0' }, marked: '10k' };
    const plans = {
      first: [
        { do: 'add', part },
        { do: 'fit', ref: 'R9', value: 4700 },
      ],
      second: [{ do: 'fit', ref: 'R9', value: 22_000 }],
    };
    for (const [id, steps] of Object.entries(plans))
      ({ unit } = await test.write('POST', `${root()}/changes`, {
        change: { id, name: id, purpose: 'modification', state: 'planned', steps },
      }));
    const plansNow = () => unit.changes.map(({ change }) => [change.state, change.steps]);
    const stock = async () => drawerSchema.parse((await test.get('/drawer')).body).items[0]!.count;
    const planned = plansNow();
    const work = benchSteps(documentFromResource(unit)).steps;
    for (const { id, kind } of work)
      if (kind !== 'check' && kind !== 'power') ({ unit } = await tick(id, true));
    const { circuit } = documentFromResource(unit);
    expect(resolveLayer(circuit, 'proven').parts.find((p) => p.ref === 'R9')!.value).toBe(22_000);
    expect(unit.changes.map((c) => c.change.state)).toEqual(['done', 'dropped']);
    expect(await stock()).toBe(3);
    ({ unit } = await test.write('POST', `${root()}/undo`, { sequence: unit.sequence }));
    expect(plansNow()).toEqual(planned);
    expect(await stock()).toBe(4);
  });
});
