import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { usualTolerance } from '../../circuit/circuit/index.ts';
import { ratioToDb } from '../../base/quantity/index.ts';
import { circuitOf, randomCircuit, sessionOf } from '../../testing/circuits.ts';
import { AdjointSlopes, differenceSlopes } from './sensitivity.ts';
import { magnitude } from './small-signal.ts';
import type { AnalysisSession } from './session.ts';
import { spreadParts } from './spread-part.ts';
import { transfer } from './transfer.ts';

const parts = (...list: [string, number][]) => list.map(([ref, value]) => ({ ref, value }));

describe('slopes by the adjoint system', () => {
  it('are the derivatives of a divider and of an RC low pass by their closed forms', () => {
    const model = sessionOf(
      circuitOf('V1 10V vcc 0\nR1 3k vcc a\nR2 1k a 0\nG1 1V in 0\nR3 10k in out\nC1 10n out 0'),
    );
    // V = 10 R2/(R1 + R2): d/d ln R2 = 10 R1 R2/(R1 + R2)^2.
    const [s1, s2] = new AdjointSlopes(model, parts(['R1', 3000], ['R2', 1000])).voltage('a');
    expect(s2).toBeCloseTo((10 * 3) / 16, 8);
    expect(s1).toBeCloseTo(-(10 * 3) / 16, 8);
    // |H|^2 = 1/(1 + w^2 R^2 C^2): d dB / d ln R = -20/ln 10 * w^2 R^2 C^2 / (1 + w^2 R^2 C^2).
    const squared = (2 * Math.PI * 2000 * 1e4 * 1e-8) ** 2;
    const [sr, sc] = new AdjointSlopes(model, parts(['R3', 1e4], ['C1', 1e-8])).gainDb('in', 'out', 2000);
    expect(sr).toBeCloseTo(((-20 / Math.LN10) * squared) / (1 + squared), 7);
    expect(sc).toBeCloseTo(sr!, 7);
  });

  it('equal finite differences on random circuits with transistors, opamps and diodes', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), fc.integer({ min: 1, max: 4 }), (seed, stages) => {
        const circuit = randomCircuit(seed, stages);
        const model = sessionOf(circuit);
        const spread = spreadParts(resolveLayer(circuit, 'marked'), usualTolerance);
        const adjoint = new AdjointSlopes(model, spread);
        const compare = (slopes: number[], read: (at: AnalysisSession) => number) => {
          const differences = differenceSlopes(model, spread, read);
          const size = Math.max(1e-3, ...differences.map(Math.abs));
          slopes.forEach((slope, i) =>
            expect(
              Math.abs(slope - differences[i]!),
              `${circuit.parts.length} ${spread[i]!.ref}`,
            ).toBeLessThan(2e-3 * size + 0.02 * Math.abs(differences[i]!)),
          );
        };
        const gain = (at: AnalysisSession) => ratioToDb(magnitude(transfer(at, 'in', 'out', 500)));
        // A signal that does not come through is nothing but rounding.
        if (gain(model) > -150) compare(adjoint.gainDb('in', 'out', 500), gain);
        const net = `c${stages - 1}`;
        compare(adjoint.voltage(net), (at) => at.operatingPoint()[at.system.node(net)]!);
      }),
      { numRuns: 60, seed: 3 },
    );
  });

  it('carry what a bias resistor does to a transistor’s gain through its current', () => {
    // Gain of a grounded-emitter stage is -RC IC / VT: with IC fixed by the base resistor, gain goes as 1/RB.
    const circuit = circuitOf(
      'V1 20V vcc 0\nG1 1mV in 0\nC1 100u in b\nR1 2M vcc b\nQ1 npn c b 0 BF=100\nR2 5k vcc c',
    );
    const model = sessionOf(circuit);
    const [rb] = new AdjointSlopes(model, parts(['R1', 2e6])).gainDb('in', 'c', 1000);
    expect(rb! / (-20 / Math.LN10)).toBeCloseTo(1, 1);
  });
});
