import { describe, expect, it } from 'vitest';
import type { Circuit, Part } from '../../circuit/circuit/index.ts';
import { randomCircuit, seeded } from '../../testing/circuits.ts';
import { drawnClasses } from '../../circuit/figures/index.ts';
import { faults } from '../../testing/drawing.ts';
import { layoutCircuit, placementsOf } from './index.ts';

/** A circuit without one of its resistors or capacitors, and that part. */
function without(circuit: Circuit, seed: number): { before: Circuit; part: Part } {
  const random = seeded(seed);
  const small = circuit.parts.filter((p) => p.kind === 'resistor' || p.kind === 'capacitor');
  const part = small[Math.floor(random() * small.length)]!;
  return { before: { ...circuit, parts: circuit.parts.filter((p) => p !== part) }, part };
}

describe('a part that is added to a drawing', () => {
  it('moves no other but at a net that becomes a named symbol by it, over 60 random circuits of one to eight stages', () => {
    for (let seed = 1; seed <= 60; seed += 1) {
      const circuit = randomCircuit(seed, 1 + (seed % 8));
      const { before, part } = without(circuit, seed);
      const previous = placementsOf(layoutCircuit(before));
      const after = layoutCircuit(circuit, { previous });
      const [was, is] = [drawnClasses(before), drawnClasses(circuit)];
      // A net that is drawn as a named symbol from now on has one at each of its parts, which needs room.
      const isNamedNow = (net: string) => is(net) === 'reference' && was(net) !== 'reference';
      const moved = after.symbols
        .filter((s) => s.part.ref !== part.ref && !Object.values(s.part.pins).some(isNamedNow))
        .filter((s) => JSON.stringify(s.at) !== JSON.stringify(previous.get(s.part.ref)));
      expect(
        moved.map((s) => s.part.ref),
        `seed ${seed}, ${part.ref} added`,
      ).toEqual([]);
      expect(faults(after), `seed ${seed}`).toEqual([]);
    }
  });
});
