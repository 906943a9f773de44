import { describe, expect, it } from 'vitest';
import { differenceSlopes, spreadParts } from '../analysis/index.ts';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { usualTolerance } from '../../circuit/circuit/index.ts';
import { circuitOf, randomCircuit, sessionOf } from '../../testing/circuits.ts';
import { evaluateReadout, readoutSlopes, type Readout } from './index.ts';

describe('slopes of readouts', () => {
  const bass: Readout = { id: 'b', name: 'Bass', kind: 'corner', from: 'in', to: 'out', side: 'low' };

  it('of a corner are those of 1/(2 pi R C)', () => {
    const session = sessionOf(circuitOf('G1 1V in 0\nC1 100n in out\nR1 100k out 0'));
    const [slopes] = readoutSlopes(session, [{ ...bass, referenceHz: 10_000 }], {}, [
      { ref: 'R1', value: 1e5 },
      { ref: 'C1', value: 1e-7 },
    ]);
    const hz = 1 / (2 * Math.PI * 1e5 * 1e-7);
    for (const slope of slopes!) expect(slope / -hz).toBeCloseTo(1, 2);
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8, 9, 10])('are those of central differences (circuit %i)', (seed) => {
    const circuit = randomCircuit(seed, 1 + (seed % 4));
    const session = sessionOf(circuit);
    const out = `c${seed % 4}`;
    const readouts: Readout[] = [
      { ...bass, to: out },
      { id: 'z', name: 'In', kind: 'inputImpedance', source: 'G1', frequencyHz: 300 },
      { id: 'o', name: 'Out', kind: 'outputImpedance', net: out, frequencyHz: 300 },
    ];
    const parts = spreadParts(resolveLayer(circuit, 'marked'), usualTolerance);
    let compared = 0;
    readouts.forEach((readout) => {
      const read = (at: typeof session) => {
        const answer = evaluateReadout(at, readout);
        return answer.ok ? answer.value : null;
      };
      if (read(session) === null) return;
      const [slopes] = readoutSlopes(session, [readout], {}, parts);
      const differences = differenceSlopes(session, parts, read);
      const size = Math.max(...differences.map(Math.abs), 1e-3 * Math.abs(read(session)!));
      slopes!.forEach((slope, i) =>
        expect(Math.abs(slope - differences[i]!) / size, `${readout.name} ${parts[i]!.ref}`).toBeLessThan(
          0.01,
        ),
      );
      compared += 1;
    });
    expect(compared).toBeGreaterThan(0);
  });
});
