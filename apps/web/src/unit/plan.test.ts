import { describe, expect, it } from 'vitest';
import { applyChange } from '../api/pending.ts';
import { unitOf } from '../testing/in-unit.tsx';
import { dropPlanFor, plannedRefs, planValues } from './plan.ts';

const blank = unitOf({ lines: ['V1 9V vcc 0', 'R1 1k vcc a', 'R2 1k a 0'] });
const after = (unit: typeof blank, changes: ReturnType<typeof planValues>) =>
  changes.reduce((now, change) => applyChange(now, change), unit);
const states = (unit: typeof blank) => unit.changes.map((c) => c.change.state);

describe('planning values', () => {
  it('is one change for all of them, with the reason', () => {
    const unit = after(
      blank,
      planValues(
        blank,
        new Map([
          ['R1', 820],
          ['R2', 5],
        ]),
        { why: 'louder' },
      ),
    );
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
    expect(planValues(blank, new Map(), { why: '' })).toEqual([]);
  });

  it('again for the same parts changes that plan, and for more of them replaces it', () => {
    const once = after(blank, planValues(blank, new Map([['R1', 820]]), { why: 'a' }));
    const twice = after(once, planValues(once, new Map([['R1', 680]]), { why: 'b' }));
    expect(twice.changes).toMatchObject([{ version: 1, change: { why: 'b', steps: [{ value: 680 }] } }]);
    const both = after(
      twice,
      planValues(
        twice,
        new Map([
          ['R1', 560],
          ['R2', 5],
        ]),
        { why: 'c' },
      ),
    );
    expect(states(both)).toEqual(['dropped', 'planned']);
  });

  it('belongs to the active set, and leaves the others alone', () => {
    const sets = [{ id: 'A', active: true }, { id: 'B' }];
    const inA = after(
      { ...blank, sets },
      planValues({ ...blank, sets }, new Map([['R1', 820]]), { why: '' }),
    );
    expect(inA.changes[0]!.change.set).toBe('A');
    const inB = { ...inA, sets: [{ id: 'A' }, { id: 'B', active: true }] };
    expect([...plannedRefs(inB)]).toEqual([]);
    expect(dropPlanFor(inB, 'R1')).toEqual([]);
    expect(states(after(inB, planValues(inB, new Map([['R1', 5]]), { why: '' })))).toEqual([
      'planned',
      'planned',
    ]);
  });

  it('of one part is dropped alone, the rest of its change goes on', () => {
    const both = after(
      blank,
      planValues(
        blank,
        new Map([
          ['R1', 820],
          ['R2', 5],
        ]),
        { why: '' },
      ),
    );
    const one = after(both, dropPlanFor(both, 'R1'));
    expect(one.changes).toMatchObject([{ change: { state: 'planned', steps: [{ ref: 'R2' }] } }]);
    expect(states(after(one, dropPlanFor(one, 'R2')))).toEqual(['dropped']);
  });
});
