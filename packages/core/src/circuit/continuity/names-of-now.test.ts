import type { UnitResource } from '@zemble/contract';
import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { formNets, retraced, withNetsOfNow } from './index.ts';

const said = circuitOf('V1 9 vcc 0\nR1 1k vcc n3\nR2 1k n7 0\nC1 1u n3 out\nR3 10k out 0');
/** n3 and n7 beep: they are one, and go by the first of their names. */
const traced = {
  ...said,
  beeps: [{ id: 'b1', says: 'together' as const, ends: ['R1.b', 'R2.a'] as [string, string] }],
};
const circuit = { ...traced, parts: retraced(traced) };
const unit = {
  path: {
    blocks: [{ id: 'n7', name: 'A block of that name' }],
    links: [],
    testPoints: [
      { id: 't1', net: 'n7' },
      { id: 't2', net: 'out' },
    ],
  },
  evidence: [
    { at: 't1', saw: 'good' as const },
    { at: 'n7', saw: 'good' as const },
  ],
  boards: [
    {
      id: 'b1',
      style: 'strip' as const,
      columns: 9,
      rows: 9,
      places: [],
      cuts: [],
      links: [],
      terminals: [
        { net: 'n7', hole: [0, 0] as const },
        { net: 'out', hole: [1, 0] as const, name: 'n9' },
      ],
    },
  ],
  wires: [
    { id: 'w1', from: 'P1.1', to: 'board.n7', net: 'n7' },
    { id: 'w2', from: 'P1.1', to: 'board.n9' },
    { id: 'w3', from: 'n7', to: 'P1.2' },
  ],
  photos: [{ points: [{ target: 'n7', x: 0, y: 0 }] }, { points: [{ target: 'R1.a', x: 0, y: 0 }] }],
};

describe('nets that tracing gave another name', () => {
  it('are called by it wherever a unit names them', () => {
    expect(formNets(traced).renamed.get('n7')).toBe('n3');
    const { path: _path, ...withoutPath } = unit;
    const now = withNetsOfNow(circuit, withoutPath);
    expect(now.boards[0]!.terminals.map((t) => t.net)).toEqual(['n3', 'out']);
    // A terminal's own name is no net's; words for an old wire are nobody's name.
    expect(now.wires.map((w) => [w.from, w.to, w.net])).toEqual([
      ['P1.1', 'board.n3', 'n3'],
      ['P1.1', 'board.n9', undefined],
      ['n7', 'P1.2', undefined],
    ]);
    expect(now.evidence.map((e) => e.at)).toEqual(['t1', 'n3']);
    expect(now.photos.map((p) => p.points[0]!.target)).toEqual(['n3', 'R1.a']);
  });

  it('leave a block alone that is called as one of them was', () => {
    const now = withNetsOfNow(circuit, unit);
    expect(now.path.testPoints!.map((t) => t.net)).toEqual(['n3', 'out']);
    expect(now.evidence).toBe(unit.evidence);
    expect(now.photos).toBe(unit.photos);
  });

  it('leave a part alone on a photo that is called as one of them was', () => {
    const parts = circuit.parts.map((p) => (p.ref === 'R3' ? { ...p, ref: 'n7' } : p));
    const photos = [{ points: [{ target: 'n7', x: 0, y: 0 }] }];
    expect(withNetsOfNow({ ...circuit, parts }, { photos }).photos).toBe(photos);
  });

  it('change nothing where none was renamed, or nothing names one: the same objects', () => {
    expect(withNetsOfNow(said, unit)).toBe(unit);
    const other = { wires: [{ id: 'w1', from: 'P1.1', to: 'board.out' }], boards: unit.boards };
    const now = withNetsOfNow(circuit, other);
    expect(now.wires).toBe(other.wires);
    expect(now).not.toBe(other);
    const plain: Pick<UnitResource, 'wires'> = { wires: other.wires };
    expect(withNetsOfNow(circuit, plain)).toBe(plain);
  });
});
