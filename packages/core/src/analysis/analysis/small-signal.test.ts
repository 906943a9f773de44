import type { AnalysisSession } from './session.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Circuit } from '../../circuit/circuit/index.ts';
import { markedCircuitOf, circuitOf, randomCircuit, sessionOf } from '../../testing/circuits.ts';
import { acResponse } from './ac.ts';
import { nearestSignal } from './transfer.ts';
import { logSpaced, magnitude } from './small-signal.ts';

const modelOf = (lines: string) => sessionOf(circuitOf(lines));
const gainDb = (model: AnalysisSession, source: string, out: string, f: number) =>
  acResponse(model, source, out, [f]).magnitudeDb[0]!;
const db = (ratio: number) => 20 * Math.log10(ratio);

describe('AC, closed forms', () => {
  it('falls by 3.0103 dB and turns by 45 degrees at 1/(2 pi RC)', () => {
    const f = 1 / (2 * Math.PI * 10e3 * 15.9e-9);
    const { magnitudeDb, phaseDeg } = acResponse(
      modelOf('G1 1V in 0\nR1 10k in out\nC1 15.9n out 0'),
      'G1',
      'out',
      [f],
    );
    expect(magnitudeDb[0]).toBeCloseTo(-10 * Math.log10(2), 9);
    expect(phaseDeg[0]).toBeCloseTo(-45, 9);
  });

  it('resonates at 1/(2 pi sqrt LC) with the Q of its resistance', () => {
    const [l, c, r] = [10e-3, 100e-9, 25];
    const f = 1 / (2 * Math.PI * Math.sqrt(l * c));
    const gain = gainDb(modelOf('G1 1V in 0\nR1 25 in a\nL1 10m a out\nC1 100n out 0'), 'G1', 'out', f);
    expect(gain).toBeCloseTo(db(Math.sqrt(l / c) / r), 9);
  });

  it('counts esr and leakage of a capacitor and dcr of a coil', () => {
    const high = gainDb(modelOf('G1 1V in 0\nR1 90 in out\nC1 1000u out 0 esr=10'), 'G1', 'out', 100e3);
    expect(high).toBeCloseTo(db(10 / 100), 4);
    const low = gainDb(modelOf('G1 1V in 0\nC1 1u in out leakage=1M\nR1 1M out 0'), 'G1', 'out', 1e-4);
    expect(low).toBeCloseTo(db(1 / 2), 4);
    expect(gainDb(modelOf('G1 1V in 0\nL1 1m in out dcr=50\nR1 50 out 0'), 'G1', 'out', 0.01)).toBeCloseTo(
      db(1 / 2),
      6,
    );
  });

  it('gives an opamp its gain-bandwidth product', () => {
    const lines =
      'V1 12V vp 0\nV2 12V 0 vm\nG1 1mV in 0\nU1 plus=in minus=m out=out vplus=vp vminus=vm GBW=1e6 AOL=1e6\nR1 1k m 0\nR2 99k out m';
    expect(gainDb(modelOf(lines), 'G1', 'out', 10)).toBeCloseTo(40, 2);
    expect(gainDb(modelOf(lines), 'G1', 'out', 10e3)).toBeCloseTo(40 - 10 * Math.log10(2), 2);
    expect(gainDb(modelOf(lines), 'G1', 'out', 1e6)).toBeCloseTo(0, 0);
  });

  it('gives a transistor gm = Ic/Vt, rpi = BF/gm and ro = VAF/Ic (closed form of its small-signal circuit)', () => {
    const model = modelOf(
      'V1 12V vcc 0\nR1 1M vcc b\nQ1 npn c b 0 BF=200 VAF=100\nR3 4k7 vcc c\nG1 1mV in 0\nC1 1F in b',
    );
    const { system } = model;
    const x = model.operatingPoint();
    const ic = system.device('Q1').report(x).current;
    const vt = 0.025864;
    const vce = x[system.node('c')]!;
    const ro = (100 + (vce - x[system.node('b')]!)) / ic;
    const load = 1 / (1 / 4700 + 1 / ro);
    expect(gainDb(model, 'G1', 'c', 1000)).toBeCloseTo(db((ic / vt) * load), 2);
  });

  it('equals the slope of the operating point at low frequency', () => {
    for (const seed of [3, 5, 8, 12]) {
      const circuit = randomCircuit(seed, 2);
      const direct: Circuit = {
        ...circuit,
        parts: circuit.parts.map((p) =>
          p.kind === 'capacitor' ? { ...p, kind: 'resistor', marked: 1e3 } : p,
        ),
      };
      const at = (offset: number) => {
        const parts = direct.parts.map((p) => (p.kind === 'signal' ? { ...p, offset } : p));
        const model = sessionOf({ ...direct, parts });
        return { model, volt: model.operatingPoint()[model.system.node('out')]! };
      };
      const step = 1e-6;
      const slope = (at(step).volt - at(-step).volt) / (2 * step);
      const { model } = at(0);
      const v = model.smallSignal.at(0).drive('G1').voltage(model.system.node('out'));
      expect(v.re).toBeCloseTo(slope, 3 - Math.ceil(Math.log10(Math.abs(slope) + 1)));
    }
  });
});

/** A random ladder with bridges of resistors, capacitors and coils. */
const passive = fc.array(
  fc.record({
    kind: fc.constantFrom('R', 'C', 'L'),
    a: fc.nat(5),
    b: fc.nat(5),
    m: fc.double({ min: 1, max: 9.9, noNaN: true }),
    e: fc.nat(3),
  }),
  { minLength: 6, maxLength: 18 },
);
const UNIT: Record<string, number> = { R: 10, C: 1e-9, L: 1e-4 };

function passiveCircuit(
  parts: readonly { kind: string; a: number; b: number; m: number; e: number }[],
): Circuit {
  const lines = Array.from({ length: 6 }, (_, i) => `R9${i} 10k n${i} 0`);
  parts.forEach(({ kind, a, b, m, e }, i) => {
    const value = m * 10 ** e * UNIT[kind]!;
    if (a !== b) lines.push(`${kind}${i} ${value} n${a} n${b}`);
  });
  return circuitOf(
    lines
      .join('\n')
      .replace(/(C\d+) (\S+)/g, '$1 $2F')
      .replace(/(L\d+) (\S+)/g, '$1 $2H'),
  );
}

describe('AC, laws of physics on random passive networks', () => {
  it('is reciprocal: 1 A in here and volts there equal 1 A there and volts here', () => {
    fc.assert(
      fc.property(passive, fc.double({ min: 1, max: 1e5, noNaN: true }), (parts, frequency) => {
        const model = sessionOf(passiveCircuit(parts));
        const [from, to] = [model.system.node('n0'), model.system.node('n5')];
        const solved = model.smallSignal.at(frequency);
        const there = solved.inject(0, from).voltage(to);
        const here = solved.inject(0, to).voltage(from);
        expect(Math.hypot(there.re - here.re, there.im - here.im)).toBeLessThan(
          1e-9 * Math.max(1, magnitude(there)),
        );
      }),
    );
  });

  it('never gives power back: the real part of every driving-point impedance is positive', () => {
    fc.assert(
      fc.property(passive, fc.double({ min: 1, max: 1e5, noNaN: true }), (parts, frequency) => {
        const model = sessionOf(passiveCircuit(parts));
        const node = model.system.node('n2');
        expect(model.smallSignal.at(frequency).inject(0, node).voltage(node).re).toBeGreaterThan(0);
      }),
    );
  });

  it('has an adjoint that says for one output what every drive contributes', () => {
    fc.assert(
      fc.property(passive, (parts) => {
        const model = sessionOf(passiveCircuit(parts));
        const out = model.system.node('n3');
        const solved = model.smallSignal.at(440);
        const direct = Array.from({ length: 6 }, (_, i) =>
          solved.inject(0, model.system.node(`n${i}`)).voltage(out),
        );
        const adjoint = solved.adjoint(out);
        direct.forEach((v, i) => {
          const node = model.system.node(`n${i}`);
          expect(Math.hypot(adjoint.xRe[node]! - v.re, adjoint.xIm[node]! - v.im)).toBeLessThan(
            1e-9 * Math.max(1, magnitude(v)),
          );
        });
      }),
      { numRuns: 40 },
    );
  });
});

describe('branch currents', () => {
  const lines =
    'G1 1V in 0 resistance=50\nR1 1k in a\nC1 100n a 0 esr=20\nL1 10m a b dcr=5\nR2 470 0 b\nD1 1N4148 a 0';

  it('obey Kirchhoff at every net and Ohm in every resistor', () => {
    const model = modelOf(lines);
    for (const f of [50, 1000, 30_000]) {
      const solved = model.smallSignal.at(f).drive('G1');
      const [r1, c1, l1, r2, d1, g1] = ['R1', 'C1', 'L1', 'R2', 'D1', 'G1'].map((ref) => solved.current(ref));
      const volt = solved.voltage(model.system.node('in'), model.system.node('a'));
      expect(r1!.re).toBeCloseTo(volt.re / 1000, 12);
      expect(r1!.re + g1!.re).toBeCloseTo(0, 12);
      expect(r1!.re - c1!.re - l1!.re - d1!.re).toBeCloseTo(0, 12);
      expect(r1!.im - c1!.im - l1!.im - d1!.im).toBeCloseTo(0, 12);
      // R2 counts in at its first pin, which is grounded: the coil's current the other way.
      expect(r2!.re).toBeCloseTo(-l1!.re, 12);
    }
  });
});

describe('choosing a source and frequencies', () => {
  it('drives the channel that a net belongs to', () => {
    const stereo = markedCircuitOf(
      'G1 1V inL 0\nR1 1k inL a\nR2 1k a 0\nG2 1V inR 0\nR3 1k inR b\nR4 1k b 0',
    );
    expect(nearestSignal(stereo, 'a')).toBe('G1');
    expect(nearestSignal(stereo, 'b')).toBe('G2');
    expect(nearestSignal(markedCircuitOf('R1 1k a 0'), 'a')).toBeUndefined();
  });

  it('spaces frequencies evenly on a log axis and hits both ends', () => {
    const list = logSpaced(20, 20000, 20);
    expect(list).toHaveLength(61);
    expect([list[0], list[20], list[60]]).toEqual([20, expect.closeTo(200, 9), 20000]);
  });
});
