import { describe, expect, it } from 'vitest';
import { figuresOf } from '../../circuit/figures/index.ts';
import { circuitOf } from '../../testing/circuits.ts';
import { faults } from '../../testing/drawing.ts';
import { layoutCircuit, movedPlaces } from './index.ts';

const circuit = circuitOf(
  'V1 15V vp 0\nV2 15V 0 vm\nG1 10mV in 0\nC1 1u in b\nR6 47k b 0\nQ1 2N3904 c1 b t\nQ2 2N3904 c2 fb t\nR1 10k t vm\nR2 4k7 vp c1\nR3 4k7 vp c2\nR4 10k fb 0\nR5 22k fb c2',
);
const drawing = layoutCircuit(circuit);
const at = (of: typeof drawing, ref: string) => of.symbols.find((s) => s.part.ref === ref)!.at;

describe('a symbol that is moved by hand', () => {
  it('goes alone', () => {
    expect(movedPlaces(drawing, 'R4', { x: 90, y: 4 }, new Set())).toEqual({ R4: { x: 90, y: 4 } });
    expect(movedPlaces(drawing, 'R4', { x: 90, y: 4 }, new Set(['Q1', 'Q2']))).toEqual({
      R4: { x: 90, y: 4 },
    });
  });

  it('takes the figure along that it is shown with, and all of it stays there', () => {
    const pair = figuresOf(circuit).find((f) => f.name === 'long-tailed pair')!;
    const { x, y } = at(drawing, 'Q1');
    const nudges = movedPlaces(drawing, 'Q1', { x: x + 40, y: y + 30 }, new Set(pair.refs));
    expect(Object.keys(nudges).sort()).toEqual([...pair.refs].sort());
    const after = layoutCircuit(circuit, { nudges });
    for (const ref of pair.refs) {
      const before = at(drawing, ref);
      expect(at(after, ref), ref).toMatchObject({ x: before.x + 40, y: before.y + 30 });
    }
    expect(faults(after)).toEqual([]);
  });
});
