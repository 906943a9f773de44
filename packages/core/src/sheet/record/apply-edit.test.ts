import type { Edit, Effect, UnitResource } from '@zemble/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdit, applyEdits } from './apply-edit.ts';

const resistor = (id: string, position: number, version = 0) => ({
  id,
  version,
  position,
  part: { ref: id, kind: 'resistor' as const, pins: { a: 'x', b: '0' } },
});
const unit = {
  sequence: 4,
  name: 'One',
  parts: [resistor('a', 0), resistor('b', 1)],
  readings: [],
  readouts: [],
  evidence: [],
  photos: [],
  log: [],
} as Partial<UnitResource> as UnitResource;
const edit = (sequence: number, ...effects: Effect[]): Edit => ({
  unitId: 'u',
  sequence,
  key: null,
  effects,
});

describe('an edit on a unit', () => {
  it('leaves everything that it does not touch the same object', () => {
    const next = applyEdit(unit, edit(5, { of: 'part', value: resistor('b', 1, 1) }))!;
    expect(next.parts[1]!.version).toBe(1);
    expect(next.parts[0]).toBe(unit.parts[0]);
    expect(next.readings).toBe(unit.readings);
    expect(next.sequence).toBe(5);
  });

  it('comes once, and after all before it', () => {
    const known = edit(4, { of: 'unit', value: { name: 'Two' } });
    expect(applyEdit(unit, known)).toBe(unit);
    expect(applyEdit(unit, edit(6))).toBeNull();
    expect(applyEdits(unit, [edit(5), edit(6, { of: 'unit', value: { name: 'Two' } })])).toMatchObject({
      name: 'Two',
      sequence: 6,
    });
    expect(applyEdits(unit, [edit(5), edit(7)])).toBeNull();
  });

  it('keeps photos as they were added', () => {
    const photo = (id: string) => ({
      id,
      version: 0,
      name: id,
      width: 1,
      height: 1,
      points: [],
      overlay: {},
    });
    const both = [5, 6].reduce(
      (now, sequence) =>
        applyEdit(now, edit(sequence, { of: 'photo', value: photo(`p${sequence}`), isNew: true }))!,
      unit,
    );
    expect(both.photos).toEqual([photo('p5'), photo('p6')]);
  });

  it('moves down what stands where a part is put in, and not when one is only changed', () => {
    const put = applyEdit(unit, edit(5, { of: 'part', value: resistor('n', 1), isNew: true }))!;
    expect(put.parts.map((p) => [p.id, p.position])).toEqual([
      ['a', 0],
      ['n', 1],
      ['b', 2],
    ]);
    const gone = applyEdit(put, edit(6, { of: 'gone', entity: 'part', id: 'a' }))!;
    expect(gone.parts.map((p) => p.id)).toEqual(['n', 'b']);
    const back = applyEdit(gone, edit(7, { of: 'part', value: resistor('a', 0, 2) }))!;
    expect(back.parts.map((p) => p.id)).toEqual(['a', 'n', 'b']);
  });

  it('keeps readings in the order in which they were taken, however they arrive', () => {
    const day = fc.integer({ min: 1, max: 28 });
    fc.assert(
      fc.property(fc.array(day, { minLength: 1, maxLength: 12 }), (days) => {
        const edits = days.map((d, i) =>
          edit(5 + i, {
            of: 'reading',
            value: {
              id: String(i).padStart(3, '0'),
              takenAt: `2026-01-${String(d).padStart(2, '0')}T00:00:00.000Z`,
            } as UnitResource['readings'][number],
          }),
        );
        const { readings } = applyEdits(unit, edits)!;
        const times = readings.map((r) => `${r.takenAt} ${r.id}`);
        expect(times).toEqual([...times].sort());
        expect(readings).toHaveLength(days.length);
      }),
    );
  });
});
