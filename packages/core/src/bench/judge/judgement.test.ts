import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../base/numeric/index.ts';
import { resolveLayer } from '../../circuit/changes/index.ts';
import { markedValue, usualTolerance, type Circuit, type Part } from '../../circuit/circuit/index.ts';
import { meterReading, unknownFromChange } from '../../analysis/meter/index.ts';
import { evaluateAll, outsideBy, type Readout } from '../../analysis/readouts/index.ts';
import { circuitOf, randomCircuit } from '../../testing/circuits.ts';
import {
  batchSuspects,
  judgeEsr,
  judgeInCircuit,
  judgeOffset,
  judgeVoiceCoil,
  ownValueFrom,
  sistersOf,
  weighDrifts,
} from './index.ts';

const part = (circuit: Circuit, ref: string) => circuit.parts.find((p) => p.ref === ref)!;
const withFound = (circuit: Circuit, values: Readonly<Record<string, number>>): Circuit => ({
  ...circuit,
  parts: circuit.parts.map((p) => (values[p.ref] === undefined ? p : { ...p, found: values[p.ref]! })),
});

describe('a reading in circuit', () => {
  const circuit = circuitOf('V1 9V vcc 0\nR7 100k 5% a 0\nR1 220k 5% vcc a\nR2 10k 5% vcc 0');

  it('says where the part itself lies, by the parallel path with its tolerances', () => {
    // 100k in parallel with 220k + 10k reads 69.7k.
    const reading = 1 / (1 / 100e3 + 1 / 230e3);
    const own = ownValueFrom(circuit, part(circuit, 'R7'), { value: reading })!;
    const solved = (parallel: number, read: number) => 1 / (1 / read - 1 / parallel);
    expect(own.low / solved(230e3 * 1.05, reading * 0.99)).toBeCloseTo(1, 3);
    expect(own.high / solved(230e3 * 0.95, reading * 1.01)).toBeCloseTo(1, 3);
  });

  it('clears, convicts, or asks for a lifted leg', () => {
    const judge = (value: number, of = circuit) =>
      judgeInCircuit(of, part(of, 'R7'), { value, condition: 'in circuit' });
    const tight = {
      ...circuit,
      parts: circuit.parts.map((p): Part => ({ ...p, tolerance: p.ref === 'R7' ? 0.1 : 0.01 })),
    };
    expect(judge(69_700, tight)).toMatchObject({
      kind: 'in',
      sentence: expect.stringMatching(/^the path through R1 explains it: the part itself is between 9/),
    });
    expect(judge(90_000).kind).toBe('high');
    expect(judge(55_000)).toMatchObject({
      kind: 'low',
      sentence: expect.stringContaining('convicted in circuit'),
    });
    expect(judge(71_500).kind).toBe('cannot say');
    expect(judge(71_500).sentence).toContain('lift a leg');
  });

  it('holds the truth on random circuits with random drifts', () => {
    let checked = 0;
    for (let seed = 1; checked < 1000; seed += 1) {
      const random = seededRandom(seed);
      const plain = randomCircuit(seed, 1 + (seed % 2));
      const drawn = {
        ...plain,
        parts: plain.parts.map((p) =>
          p.kind === 'resistor'
            ? { ...p, marked: Number(markedValue(p)) * (1 + usualTolerance(p) * (2 * random() - 1)) }
            : p,
        ),
      };
      const resistors = plain.parts.filter((p) => p.kind === 'resistor');
      const one = resistors[Math.floor(random() * resistors.length)]!;
      const truth = Number(markedValue(one)) * 3 ** (2 * random() - 1);
      const real = {
        ...drawn,
        parts: drawn.parts.map((p) => (p.ref === one.ref ? { ...p, marked: truth } : p)),
      };
      const { a, b } = one.pins as { a: string; b: string };
      const { reading } = meterReading(resolveLayer(real, 'marked'), 'ohm', a, b);
      if (reading === null) continue;
      const own = ownValueFrom(plain, one, { value: reading });
      if (!own) continue;
      checked += 1;
      expect(own.low, `${seed} ${one.ref}`).toBeLessThanOrEqual(truth * 1.001);
      expect(own.high, `${seed} ${one.ref}`).toBeGreaterThanOrEqual(truth * 0.999);
    }
  }, 120_000);

  it('is no wider than twice the range that all corners of the tolerances give', () => {
    const net = circuitOf('R7 47k 5% a 0\nR1 33k 5% a b\nR2 12k 5% b 0\nR3 68k 5% b 0');
    const own = ownValueFrom(net, part(net, 'R7'), { value: 20_000 })!;
    const values: number[] = [];
    for (const s1 of [0.95, 1.05])
      for (const s2 of [0.95, 1.05])
        for (const s3 of [0.95, 1.05])
          for (const m of [0.99, 1.01]) {
            const path = 33e3 * s1 + 1 / (1 / (12e3 * s2) + 1 / (68e3 * s3));
            values.push(1 / (1 / (20_000 * m) - 1 / path));
          }
    const exact = Math.max(...values) - Math.min(...values);
    expect(own.high - own.low).toBeLessThanOrEqual(2 * exact);
    expect(own.high - own.low).toBeGreaterThanOrEqual(exact * 0.999);
  });

  it('judges a capacitor with its neighbours', () => {
    const net = circuitOf('C1 100n 5% a 0\nC2 220n 5% a b\nR1 1k b 0');
    // Behind 1 kohm the 220n counts as C/(1 + (wRC)^2) at 1 kHz.
    const beside = 220e-9 / (1 + (2 * Math.PI * 1000 * 1000 * 220e-9) ** 2);
    const own = ownValueFrom(net, part(net, 'C1'), { value: 100e-9 + beside })!;
    expect(own.low).toBeLessThan(100e-9);
    expect(own.high).toBeGreaterThan(100e-9);
    expect(own.high - own.low).toBeLessThan(20e-9);
    const verdict = judgeInCircuit(net, part(net, 'C1'), { value: 0.3e-6, condition: 'in circuit' });
    expect(verdict.kind).toBe('high');
  });
});

describe('does it matter', () => {
  const circuit = circuitOf('V1 10V vcc 0\nR1 10k 5% vcc a\nR2 10k 5% a 0\nR3 1M 5% vcc 0');
  const readouts: Readout[] = [
    { id: 'mid', name: 'Middle', kind: 'voltage', net: 'a', want: { target: 5, within: 0.5 } },
  ];

  it('ranks drifts by what they do to the readouts, not by their size', () => {
    const drifted = withFound(circuit, { R1: 13_000, R3: 4_000_000, R2: 10_100 });
    const ranked = weighDrifts(drifted, readouts).drifts;
    expect(ranked.map((d) => [d.ref, d.advice])).toEqual([
      ['R1', 'replace'],
      ['R2', 'leave'],
      ['R3', 'watch'],
    ]);
    expect(ranked[0]!.why).toBe('reads 30 % above 10k: alone it pushes Middle out of its range.');
    expect(ranked[2]!.harm).toBeLessThan(1e-6);
  });

  it('finds the fewest parts to make good, checked by recomputation', () => {
    const drifted = withFound(circuit, { R1: 13_000, R2: 10_400, R3: 4_000_000 });
    expect(weighDrifts(drifted, readouts).replacement).toEqual({
      refs: ['R1'],
      before: ['mid'],
      after: [],
      leftOut: [],
      outAsMarked: [],
    });
    expect(weighDrifts(withFound(circuit, { R3: 4e6 }), readouts).replacement.refs).toEqual([]);
  });

  it('goes by tolerance where no readout says what is wanted, and says what no repair brings back', () => {
    const drifted = withFound(circuit, { R1: 13_000, R2: 10_100 });
    const told = weighDrifts(drifted, []).drifts;
    expect(told.find((d) => d.ref === 'R1')).toMatchObject({ advice: 'replace' });
    expect(told.find((d) => d.ref === 'R1')!.why).toContain('no readout says what is wanted');
    expect(told.find((d) => d.ref === 'R2')).toMatchObject({ advice: 'leave' });
    // Half of the supply cannot be nine tenths of it, whatever is made good.
    const wrong = readouts.map((r) => ({ ...r, want: { min: 1e3 } }) as Readout);
    expect(weighDrifts(drifted, wrong).replacement).toMatchObject({
      refs: [],
      outAsMarked: wrong.map((r) => r.id),
    });
  });

  it('sees what was read beside the value: series resistance, leakage, gain, contacts', () => {
    const stage = circuitOf(
      'G1 signal 1V 1kHz in 0\nSW1 switch in a\nR1 10k a b\nC1 100u polarised voltage=25 b c\nR2 1k c 0',
    );
    const wanted: Readout[] = [
      {
        id: 'gain',
        name: 'Gain',
        kind: 'gain',
        from: 'in',
        to: 'c',
        frequencyHz: 1000,
        want: { min: -21.5 },
      },
    ];
    const beside = (ref: string, foundParams: Record<string, number>): Circuit => ({
      ...stage,
      parts: stage.parts.map((p) => (p.ref === ref ? { ...p, foundParams } : p)),
    });
    // A divider of 10k and 1k with 2k of series resistance: 1/13 instead of 1/11, by hand.
    const { drifts, replacement } = weighDrifts(beside('C1', { esr: 2000 }), wanted);
    expect(drifts[0]).toMatchObject({ ref: 'C1', advice: 'replace', readoutId: 'gain' });
    expect(drifts[0]!.why).toMatch(/^ESR 2 kΩ, typical .*: alone it pushes Gain out of its range\.$/);
    expect(replacement.refs).toEqual(['C1']);
    expect(weighDrifts(beside('SW1', { contactOhm: 3000 }), wanted).replacement.refs).toEqual(['SW1']);
    expect(weighDrifts(beside('C1', { esr: 0.1 }), wanted).drifts[0]).toMatchObject({ advice: 'leave' });
  });

  it('weighs what takes a run in time when it may, and names it when it may not', () => {
    // A delay of RC ln(1/(1 - 5/10)) = 0.69 s at 1 s of time constant (textbook).
    const timer = circuitOf('V1 10V vcc 0\nR1 10k 5% vcc a\nC1 100u polarised a 0');
    const wanted: Readout[] = [
      {
        id: 'wait',
        name: 'Wait',
        kind: 'delay',
        net: 'a',
        thresholdV: 5,
        want: { target: 0.69, within: 0.1 },
      },
    ];
    const drifted = withFound(timer, { R1: 20_000 });
    expect(weighDrifts(drifted, wanted).replacement).toMatchObject({ refs: [], leftOut: ['wait'] });
    const { drifts, replacement } = weighDrifts(drifted, wanted, { includesSlow: true });
    expect(replacement).toEqual({ refs: ['R1'], before: ['wait'], after: [], leftOut: [], outAsMarked: [] });
    expect(drifts[0]!.readoutId).toBe('wait');
  });

  it('brings every readout back on random drifts of random dividers', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.5, max: 2, noNaN: true }), { minLength: 3, maxLength: 3 }),
        (factors) => {
          const drifted = withFound(circuit, {
            R1: 10_000 * factors[0]!,
            R2: 10_000 * factors[1]!,
            R3: 1e6 * factors[2]!,
          });
          const { refs } = weighDrifts(drifted, readouts).replacement;
          expect(refs).not.toBeNull();
          const mended = {
            ...drifted,
            parts: drifted.parts.map((p) => (refs!.includes(p.ref) ? { ...p, found: null } : p)),
          };
          const [answer] = evaluateAll(resolveLayer(mended, 'found'), readouts);
          expect(answer!.ok && outsideBy(answer!.value, readouts[0]!.want)).toBe(0);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('an unknown part from what a known one changed', () => {
  it('is exact without error: the capacitor of a rate, input and source resistance', () => {
    const rate = (c: number) => 1 / (1e5 * c);
    const found = unknownFromChange({
      kind: 'parallel capacitor, rate',
      added: 220e-9,
      before: rate(65e-9),
      after: rate(65e-9 + 220e-9),
    })!;
    expect(found.value).toBeCloseTo(65e-9, 15);
    // "With 220n added in parallel the rate went from 6.1 to 1.4 Hz": 65.5n.
    const bench = unknownFromChange({
      kind: 'parallel capacitor, rate',
      added: 220e-9,
      before: 6.1,
      after: 1.4,
    })!;
    expect(bench.value).toBeCloseTo(65.5e-9, 10);
    const input = unknownFromChange({
      kind: 'series resistor, level',
      added: 47e3,
      before: 1,
      after: 100 / 147,
    })!;
    expect(input.value).toBeCloseTo(100e3, 4);
    const source = unknownFromChange({ kind: 'load resistor, level', added: 600, before: 1, after: 0.75 })!;
    expect(source.value).toBeCloseTo(200, 6);
    expect(unknownFromChange({ kind: 'load resistor, level', added: 600, before: 1, after: 1.1 })).toBeNull();
  });

  it('says how far it may lie either way: a small change leaves the far side open', () => {
    const large = unknownFromChange({
      kind: 'parallel capacitor, rate',
      added: 220e-9,
      before: 6.1,
      after: 1.4,
    })!;
    expect((large.high - large.value) / (large.value - large.low)).toBeCloseTo(1, 1);
    // 3 % of change, read to 1 % twice: the capacitor is large, and nobody knows how large.
    const small = unknownFromChange({
      kind: 'parallel capacitor, rate',
      added: 1e-9,
      before: 1.03,
      after: 1,
    })!;
    expect(small.value).toBeCloseTo(33.3e-9, 10);
    expect(small.high - small.value).toBeGreaterThan(1.4 * (small.value - small.low));
    const least = unknownFromChange({
      kind: 'parallel capacitor, rate',
      added: 1e-9,
      before: 1.005,
      after: 1,
    })!;
    expect(least.high).toBe(Number.POSITIVE_INFINITY);
    expect(least.low).toBeGreaterThan(0);
  });

  it('has an honest error bar under noise', () => {
    const random = seededRandom(9);
    const around = () => 2 * random() - 1;
    let inside = 0;
    for (let i = 0; i < 2000; i += 1) {
      const added = 220e-9 * (1 + 0.05 * around());
      const before = 6.1 * (1 + 0.01 * around());
      const after = ((6.1 * 65e-9) / (65e-9 + added)) * (1 + 0.01 * around());
      const { value, sigma } = unknownFromChange({
        kind: 'parallel capacitor, rate',
        added: 220e-9,
        before,
        after,
      })!;
      if (Math.abs(value - 65e-9) <= sigma) inside += 1;
    }
    // Near a normal distribution's 68 %, between that and the 58 % of a uniform one.
    expect(inside / 2000).toBeGreaterThan(0.55);
    expect(inside / 2000).toBeLessThan(0.8);
  });
});

describe('small verdicts and batches (common practice)', () => {
  it('judge ESR, offset and voice coils', () => {
    expect(judgeEsr(100e-6, 25, 0.9).kind).toBe('in');
    expect(judgeEsr(100e-6, 25, 8).kind).toBe('out');
    expect([0.004, 0.03, 0.2].map((v) => judgeOffset(v).kind)).toEqual(['in', 'edge', 'out']);
    expect([6.4, 4.5, 2, 100].map((v) => judgeVoiceCoil(8, v).kind)).toEqual(['in', 'edge', 'out', 'out']);
  });

  it('put the sisters of a bad electrolytic on the list, and no film or other maker', () => {
    const { parts } = circuitOf('C1 10u polarised a 0\nC2 22u polarised b 0\nC3 100n a b\nR1 1k a 0');
    expect(sistersOf(parts[0]!, parts).map((p) => p.ref)).toEqual(['C2']);
    const found = (value: number) => parts.map((p): Part => (p.ref === 'C1' ? { ...p, found: value } : p));
    expect(batchSuspects(found(3e-6)).map((p) => p.ref)).toEqual(['C2']);
    expect(batchSuspects(found(9.5e-6))).toEqual([]);
    expect(batchSuspects(found(3e-6).map((p) => (p.ref === 'C2' ? { ...p, found: 22e-6 } : p)))).toEqual([]);
    const marked = parts.map((p): Part =>
      p.ref === 'C1' ? { ...p, maker: 'Vale' } : p.ref === 'C2' ? { ...p, maker: 'Moor' } : p,
    );
    expect(sistersOf(marked[0]!, marked)).toEqual([]);
  });
});
