import type { Change } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { openThings } from './closing.ts';

const circuit = circuitOf('V1 9 vcc 0\nR1 10k vcc a\nR2 10k a 0\nC1 100n a 0');
const at = '2026-03-01T10:00:00.000Z';
const change = (more: Partial<Change> & Pick<Change, 'id' | 'steps'>): Change => ({
  name: more.id,
  purpose: 'modification',
  state: 'planned',
  ...more,
});
const reading = (id: string, condition: 'leg lifted' | 'in circuit', takenAt: string, withdrawn = false) => ({
  id,
  partId: 'p1',
  ref: null,
  condition,
  takenAt,
  withdrawn,
});
const REFS = new Map([['p1', 'R1']]);
const open = (changes: readonly Change[], readings: Parameters<typeof openThings>[1] = [], ticks = {}) =>
  openThings({ ...circuit, changes }, readings, REFS, ticks);

describe('whether everything is back', () => {
  it('lists what is temporary, what is begun, and what lies in a bag', () => {
    const found = open([
      change({
        id: 'd1',
        purpose: 'diagnosis',
        state: 'done',
        steps: [{ do: 'cut', net: 'a', pins: ['C1.a'], as: 'x' }],
      }),
      change({
        id: 'm1',
        steps: [
          { do: 'fit', ref: 'R2', value: 820, done: { at } },
          { do: 'remove', ref: 'C1' },
        ],
      }),
      change({ id: 'm2', state: 'done', steps: [{ do: 'fit', ref: 'R1', value: 820 }] }),
    ]);
    expect(found.map((o) => o.kind)).toEqual(['temporary', 'step', 'bag']);
    expect(found[0]!.undo).toContain('Bridge the cut at a');
    expect(found[1]!.sentence).toContain('1 of 2 steps');
    expect(found[2]!.sentence).toContain('The old R1 10k');
  });

  it('asks for a leg that was lifted for a reading until it is said to be back, or the part is read in circuit', () => {
    const lifted = reading('r1', 'leg lifted', '2026-03-01T10:00:00.000Z');
    expect(open([], [lifted]).map((o) => o.id)).toEqual(['leg:r1']);
    expect(open([], [lifted], { 'leg:r1': { at } })).toEqual([]);
    expect(open([], [lifted, reading('r2', 'in circuit', '2026-03-01T11:00:00.000Z')])).toEqual([]);
    expect(open([], [{ ...lifted, withdrawn: true }])).toEqual([]);
  });

  it('has nothing to say of a unit where nothing was done', () => {
    expect(open([])).toEqual([]);
    expect(open([change({ id: 'm1', steps: [{ do: 'remove', ref: 'C1' }] })])).toEqual([]);
  });
});
