import { describe, expect, it } from 'vitest';
import type { UnitResource } from '@zemble/contract';
import { dropPlanActs, planActs, plannedRefs, superseding } from '@zemble/core';
import { idOf, unitOf } from '../testing/in-unit.tsx';
import { applyEntry } from './pending.ts';

const blank = unitOf({ lines: ['V1 9V vcc 0', 'R1 1k vcc a', 'R2 1k a 0'] });
const after = (unit: typeof blank, changes: ReturnType<typeof planActs>) => changes.reduce(applyEntry, unit);
let made = 0;
const plan = (values: Record<string, number>, why: string) => {
  made += 1;
  return { id: `01a2311e-0000-7000-8000-${String(made).padStart(12, '0')}`, values, why };
};
const states = (unit: typeof blank) => unit.changes.map((c) => c.change.state);

describe('planning values', () => {
  it('is one change for all of them, with the reason', () => {
    const unit = after(blank, planActs(blank, plan({ R1: 820, R2: 5 }, 'louder')));
    expect(unit.changes).toMatchObject([
      {
        change: {
          name: 'Other values of R1, R2',
          state: 'planned',
          why: 'louder',
          steps: [{ ref: 'R1' }, { ref: 'R2' }],
        },
      },
    ]);
    expect([...plannedRefs(unit)]).toEqual(['R1', 'R2']);
  });

  it('again for the same parts changes that plan, and for more of them replaces it', () => {
    const once = after(blank, planActs(blank, plan({ R1: 820 }, 'a')));
    const twice = after(once, planActs(once, plan({ R1: 680 }, 'b')));
    expect(twice.changes).toMatchObject([{ version: 1, change: { why: 'b', steps: [{ value: 680 }] } }]);
    const both = after(twice, planActs(twice, plan({ R1: 560, R2: 5 }, 'c')));
    expect(states(both)).toEqual(['dropped', 'planned']);
  });

  it('belongs to the active set, and leaves the others alone', () => {
    const sets = [{ id: 'A', active: true }, { id: 'B' }];
    const inA = after({ ...blank, sets }, planActs({ ...blank, sets }, plan({ R1: 820 }, '')));
    expect(inA.changes[0]!.change.set).toBe('A');
    const inB = { ...inA, sets: [{ id: 'A' }, { id: 'B', active: true }] };
    expect([...plannedRefs(inB)]).toEqual([]);
    expect(dropPlanActs(inB, 'R1')).toEqual([]);
    expect(states(after(inB, planActs(inB, plan({ R1: 5 }, ''))))).toEqual(['planned', 'planned']);
  });

  it('of one part is dropped alone, the rest of its change goes on', () => {
    const both = after(blank, planActs(blank, plan({ R1: 820, R2: 5 }, '')));
    const one = after(both, dropPlanActs(both, 'R1'));
    expect(one.changes).toMatchObject([{ change: { state: 'planned', steps: [{ ref: 'R2' }] } }]);
    expect(states(after(one, dropPlanActs(one, 'R2')))).toEqual(['dropped']);
  });

  it('takes what it replaces out of a plan that does more, and drops one that is left with nothing', () => {
    const add = (id: string, steps: UnitResource['changes'][number]['change']['steps']) =>
      ({
        type: 'add-change',
        id,
        change: { id, name: id, purpose: 'modification', state: 'planned', steps },
      }) as const;
    const more = add(idOf(1), [
      { do: 'fit', ref: 'R1', value: 820 },
      { do: 'remove', ref: 'R2' },
    ]);
    const one = add(idOf(2), [{ do: 'fit', ref: 'R1', value: 680 }]);
    const brings = add(idOf(3), [
      { do: 'add', part: { ref: 'R9', kind: 'resistor', marked: 10_000, pins: { a: 'a', b: '0' } } },
    ]);
    const unit = after(blank, [more, one, brings]);
    const { acts, steps, names } = superseding(unit, [
      { do: 'fit', ref: 'R1', value: 560 },
      { do: 'fit', ref: 'R9', value: 22_000 },
    ]);
    const next = after(unit, [...acts]);
    expect(next.changes.map((c) => [c.change.state, c.change.steps.map((s) => s.do)])).toEqual([
      ['planned', ['remove']],
      ['dropped', ['fit']],
      ['planned', ['add']],
    ]);
    // A part that is yet to be brought is brought with the value: it is soldered once.
    expect(next.changes[2]!.change.steps[0]).toMatchObject({ part: { marked: 22_000 } });
    expect(steps).toEqual([{ do: 'fit', ref: 'R1', value: 560 }]);
    expect(names).toEqual([idOf(1), idOf(2), idOf(3)]);
  });
});
