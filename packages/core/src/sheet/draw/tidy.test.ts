import { describe, expect, it } from 'vitest';
import { randomCircuit } from '../../testing/circuits.ts';
import { bends, faults, wiringFaults } from '../../testing/drawing.ts';
import { layoutCircuit } from './index.ts';

describe('drawings of 500 random circuits', () => {
  const drawn = Array.from({ length: 500 }, (_, i) => {
    const circuit = randomCircuit(i + 1, 1 + (i % 6));
    return { circuit, drawing: layoutCircuit(circuit) };
  });
  const parts = drawn.reduce((sum, { circuit }) => sum + circuit.parts.length, 0);
  const aPart = (of: (drawing: (typeof drawn)[number]['drawing']) => number) =>
    drawn.reduce((sum, { drawing }) => sum + of(drawing), 0) / parts;

  it('have few bends and hardly a crossing a part on average', () => {
    expect(aPart(bends)).toBeLessThan(0.75);
    expect(aPart((d) => d.crossings)).toBeLessThan(0.08);
  });

  it('have no overlap, no wire through a symbol, and every net joined or named', () => {
    for (const [i, { circuit, drawing }] of drawn.entries())
      expect([...faults(drawing), ...wiringFaults(circuit, drawing)], `seed ${i + 1}`).toEqual([]);
  });
});
