import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../base/numeric/index.ts';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { type LayerCircuit } from '../../circuit/circuit/index.ts';
import { markedCircuitOf, randomCircuit } from '../../testing/circuits.ts';
import { meterReading } from './instrument.ts';

const read = (lines: string, mode: Parameters<typeof meterReading>[1], red: string, black: string) =>
  meterReading(markedCircuitOf(lines), mode, red, black);
const parallel = (...ohms: number[]) => 1 / ohms.reduce((sum, r) => sum + 1 / r, 0);

describe('ohmmeter in circuit', () => {
  it('reads a resistor with what is in parallel, the sources taken out', () => {
    const lines = 'V1 9V vcc 0\nR1 47k vcc a\nR2 22k a 0\nR3 10k vcc 0';
    expect(read(lines, 'ohm', 'a', '0').reading).toBeCloseTo(parallel(22_000, 57_000), 3);
    expect(read(lines, 'ohm', 'vcc', '0').reading).toBeCloseTo(parallel(10_000, 69_000), 3);
    expect(read(lines, 'ohm', 'a', '0').reason).toBe(
      'R2 alone is 22 kΩ; the path through R1 and R3 makes it read 15.9 kΩ.',
    );
  });

  it('reads a bridge as its delta-star transform gives it (Kennelly 1899)', () => {
    const [r1, r2, r3, r4, r5] = [1000, 2200, 4700, 3300, 680] as const;
    const lines = `R1 ${r1}R top l\nR2 ${r2}R top r\nR3 ${r3}R l bottom\nR4 ${r4}R r bottom\nR5 ${r5}R l r`;
    const sum = r1 + r2 + r5;
    const [atTop, atLeft, atRight] = [(r1 * r2) / sum, (r1 * r5) / sum, (r2 * r5) / sum];
    const expected = atTop + parallel(atLeft + r3, atRight + r4);
    // The circuit needs a part at ground, which stands apart here.
    expect(read(`${lines}\nR6 1k bottom 0`, 'ohm', 'top', 'bottom').reading).toBeCloseTo(expected, 3);
  });

  it('never reads above the part on networks of resistors (Rayleigh 1871)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9999 }), (seed) => {
        const random = seededRandom(seed);
        const nets = ['0', 'a', 'b', 'c', 'd'];
        const parts = Array.from({ length: 8 }, (_, i) => ({
          ref: `R${i}`,
          kind: 'resistor' as const,
          pins: { a: nets[i % 5]!, b: nets[(i + 1 + Math.floor(random() * 3)) % 5]! },
          value: 10 ** (1 + 5 * random()),
        })).filter((p) => p.pins.a !== p.pins.b);
        const circuit: LayerCircuit = { ground: '0', parts };
        for (const p of parts) {
          const { reading } = meterReading(circuit, 'ohm', p.pins.a, p.pins.b);
          expect(reading).not.toBeNull();
          expect(reading!).toBeLessThanOrEqual(p.value * (1 + 1e-6));
        }
      }),
      { numRuns: 60, seed: 2 },
    );
  });

  it('sees a junction one way and not the other, by the diode law at its test current', () => {
    const lines = 'D1 diode a 0 IS=1e-9 N=1\nR1 100k a 0';
    const forward = read(lines, 'ohm', 'a', '0').reading!;
    const backward = read(lines, 'ohm', '0', 'a').reading!;
    expect(backward).toBeGreaterThan(98_000);
    // Range of 1 mA: V/100k + IS (e^(V/VT) - 1) = 1 mA.
    const volt = forward * 1e-3;
    expect(volt / 1e5 + 1e-9 * (Math.exp(volt / 0.0258649) - 1)).toBeCloseTo(1e-3, 6);
    expect(read(lines, 'ohm', 'a', '0').reason).toContain('with the leads reversed it reads');
  });

  it('sees an electret capsule conduct, by its own law at the test current, with its supply off', () => {
    const lines = 'R1 4.7k vcc ve\nMK1 electret ve 0\nR2 330k vcc 0';
    const volt = read(lines, 'ohm', 've', '0').reading! * 1e-4;
    // Range of 0.1 mA: 0.3 mA tanh(V / 0.3 V) + V / 50 kohm, and 334.7 kohm beside it.
    expect(3e-4 * Math.tanh(volt / 0.3) + volt / 5e4 + volt / 334_700).toBeCloseTo(1e-4, 8);
    expect(read(lines, 'ohm', 'vcc', '0').reading).toBeLessThan(6500);
  });

  it('shows overload where only capacitors lead', () => {
    expect(read('C1 100n a b\nR1 1k b 0\nR2 1k a 0\nC2 1n c 0', 'ohm', 'c', '0')).toMatchObject({
      reading: null,
      overload: true,
      reason: 'No path for direct current is there between c and 0.',
    });
  });
});

describe('diode test in circuit', () => {
  it('reads N VT ln(I/IS) forward and overload backward', () => {
    const forward = read('D1 diode a 0 IS=1e-14', 'diode', 'a', '0').reading!;
    expect(forward).toBeCloseTo(0.0258649 * Math.log(1e-3 / 1e-14), 3);
    expect(read('D1 diode a 0 IS=1e-14', 'diode', '0', 'a').overload).toBe(true);
  });

  it('reads both junctions of a transistor from its base, and none between collector and emitter', () => {
    const lines = 'Q1 npn c b e\nR1 1M c 0\nR2 1M e 0\nR3 1M b 0';
    expect(read(lines, 'diode', 'b', 'e').reading).toBeGreaterThan(0.5);
    expect(read(lines, 'diode', 'b', 'c').reading).toBeGreaterThan(0.5);
    expect(read(lines, 'diode', 'e', 'b').overload).toBe(true);
    expect(read(lines, 'diode', 'c', 'e').overload).toBe(true);
  });
});

describe('capacitance meter in circuit', () => {
  it('adds neighbours in parallel and the series of those behind', () => {
    const lines = 'C1 100n a 0\nC2 220n a b\nC3 220n b 0\nR1 10M b 0';
    expect(read(lines, 'cap', 'a', '0').reading).toBeCloseTo(210e-9, 11);
    expect(read(lines, 'cap', 'a', '0').reason).toMatch(
      /^C1 alone is 100 nF; the path through C[23] and C[23]/,
    );
  });

  it('reads a series resistance as the imaginary part of the admittance: C/(1 + (w R C)^2)', () => {
    const [r, c] = [1000, 100e-9];
    const w = 2 * Math.PI * 1000;
    expect(read('R1 1k a b\nC1 100n b 0', 'cap', 'a', '0').reading).toBeCloseTo(
      c / (1 + (w * r * c) ** 2),
      12,
    );
    // Above 1 uF the test frequency is 100 Hz.
    const slow = 10e-6 / (1 + (2 * Math.PI * 100 * 10 * 10e-6) ** 2);
    expect(read('R1 10R a b\nC1 10u b 0', 'cap', 'a', '0').reading).toBeCloseTo(slow, 10);
  });

  it('shows overload where there is no capacity', () => {
    expect(read('R1 1k a 0', 'cap', 'a', '0').overload).toBe(true);
  });
});

describe('voltmeter in circuit', () => {
  it('loads a divider of two 10 Mohm with its own 10 Mohm to a third', () => {
    const lines = 'V1 10V vcc 0\nR1 10M vcc a\nR2 10M a 0';
    const answer = read(lines, 'dcv', 'a', '0');
    expect(answer.reading).toBeCloseTo(10 / 3, 5);
    expect(answer.reason).toBe('5 V without the meter; its 10 MΩ load it to 3.33 V.');
    expect(read('V1 10V vcc 0\nR1 1k vcc a\nR2 1k a 0', 'dcv', 'vcc', 'a').reading).toBeCloseTo(5, 3);
  });
});

describe('expected range', () => {
  it('holds the reading of every unit whose parts are within their tolerances', () => {
    for (let seed = 1; seed <= 12; seed += 1) {
      const circuit = resolveLayer(randomCircuit(seed, 2), 'marked');
      const random = seededRandom(seed);
      for (const p of circuit.parts.filter((q) => q.kind === 'resistor').slice(0, 3)) {
        const { a, b } = p.pins as { a: string; b: string };
        const { expected } = meterReading(circuit, 'ohm', a, b);
        const drawn = {
          ...circuit,
          parts: circuit.parts.map((q) =>
            q.kind === 'resistor' ? { ...q, value: Number(q.value) * (1 + 0.05 * (2 * random() - 1)) } : q,
          ),
        };
        const { reading } = meterReading(drawn, 'ohm', a, b);
        if (reading === null || expected.low === null || expected.high === null) continue;
        expect(reading).toBeGreaterThanOrEqual(expected.low * (1 - 2e-3));
        expect(reading).toBeLessThanOrEqual(expected.high * (1 + 2e-3));
      }
    }
  });

  it('names a net that is not there', () => {
    expect(() => read('R1 1k a 0', 'ohm', 'a', 'x')).toThrow(/x/);
  });
});
