import { describe, expect, it } from 'vitest';
import { fitChange } from '../../circuit/changes/index.ts';
import type { UnitDocument } from '../../circuit/circuit/index.ts';
import { circuitOf, markedCircuitOf, type Unnamed } from '../../testing/circuits.ts';
import { CURVES, evaluateAll, outsideBy, readoutTable, wantedRange, type Readout } from './index.ts';

const read = (lines: string, readout: Unnamed) => {
  const [answer] = evaluateAll(markedCircuitOf(lines), [{ id: 'r', name: 'readout', ...readout } as Readout]);
  return answer!;
};
const valueOfReadout = (lines: string, readout: Unnamed) => {
  const answer = read(lines, readout);
  if (!answer.ok) throw new Error(answer.problem.message);
  return answer.value;
};

const OPAMP = 'V1 15V vp 0\nV2 15V 0 vm\n';

describe('gain', () => {
  it('is 1 + R2/R1 for a non-inverting amplifier: 1.3k over 18 ohm is 73.2, 37.3 dB (common practice)', () => {
    const lines = `${OPAMP}G1 1mV in 0\nU1 plus=in minus=m out=out vplus=vp vminus=vm AOL=1e9 GBW=1e12\nR1 18 m 0\nR2 1k3 out m`;
    expect(valueOfReadout(lines, { kind: 'gain', from: 'in', to: 'out', frequencyHz: 1000 })).toBeCloseTo(
      20 * Math.log10(1 + 1300 / 18),
      4,
    );
  });

  it('is between nets, whatever the source resistance', () => {
    const lines = 'G1 1V src 0 resistance=10k\nR1 1k src out\nR2 1k out 0';
    expect(valueOfReadout(lines, { kind: 'gain', from: 'src', to: 'out', frequencyHz: 100 })).toBeCloseTo(
      -6.0206,
      3,
    );
    const bare = 'R1 1k in out\nR2 1k out 0';
    expect(valueOfReadout(bare, { kind: 'gain', from: 'in', to: 'out', frequencyHz: 100 })).toBeCloseTo(
      -6.0206,
      3,
    );
  });
});

describe('corner', () => {
  const band = `${OPAMP}G1 1V in 0\nC1 1u in a\nR1 10k a 0\nU1 plus=a minus=b out=b vplus=vp vminus=vm GBW=1e12\nR2 10k b out\nC2 1n out 0`;

  it('finds both ends of a band at 1/(2 pi RC)', () => {
    // 3 dB is 0.70795, a little above 1/sqrt 2: the corner shifts by sqrt(10^0.3 - 1).
    const shift = Math.sqrt(10 ** 0.3 - 1);
    const low = valueOfReadout(band, { kind: 'corner', from: 'in', to: 'out', side: 'low' });
    const high = valueOfReadout(band, { kind: 'corner', from: 'in', to: 'out', side: 'high' });
    expect(low / (1 / (2 * Math.PI * 1e-6 * 1e4) / shift)).toBeCloseTo(1, 2);
    expect(high / ((shift * 1) / (2 * Math.PI * 1e-9 * 1e4))).toBeCloseTo(1, 2);
  });

  it('says why when the gain does not fall', () => {
    const answer = read('G1 1V in 0\nR1 1k in out\nR2 1k out 0', {
      kind: 'corner',
      from: 'in',
      to: 'out',
      side: 'low',
    });
    expect(!answer.ok && answer.problem.message).toMatch(/does not fall that far below 1000 Hz/);
  });
});

describe('direct values and impedances', () => {
  const divider = 'V1 10V vcc 0\nR1 3k vcc a\nR2 7k a 0';

  it('reads voltage, current and heat', () => {
    expect(valueOfReadout(divider, { kind: 'voltage', net: 'a' })).toBeCloseTo(7, 9);
    expect(valueOfReadout(divider, { kind: 'current', part: 'R1' })).toBeCloseTo(1e-3, 12);
    expect(valueOfReadout(divider, { kind: 'dissipation', part: 'R2' })).toBeCloseTo(7e-3, 12);
  });

  it('sees the circuit at the terminals of a source, without its own resistance', () => {
    const lines = 'G1 1V in 0 resistance=600\nR1 10k in a\nR2 37k a 0';
    expect(valueOfReadout(lines, { kind: 'inputImpedance', source: 'G1', frequencyHz: 1000 })).toBeCloseTo(
      47_000,
      4,
    );
  });

  it('sees two resistors in parallel from the output', () => {
    expect(valueOfReadout(divider, { kind: 'outputImpedance', net: 'a', frequencyHz: 1000 })).toBeCloseTo(
      2100,
      6,
    );
  });
});

describe('replay curve (IEC 60098)', () => {
  /** Table of the standard re 1 kHz, its own rounding of a tenth as the tolerance. */
  it.each([
    [20, 19.3],
    [50, 17.0],
    [100, 13.1],
    [500, 2.6],
    [1000, 0],
    [2000, -2.6],
    [5000, -8.2],
    [10_000, -13.7],
    [20_000, -19.6],
  ])('is %d Hz: %d dB', (frequency, level) => {
    expect(Math.abs(CURVES['disc-replay']!(frequency) - level)).toBeLessThan(0.06);
  });

  it('is followed within 0.05 dB by a passive equaliser of 3180, 318 and 75 microseconds', () => {
    // Two buffered cells: a shelf with pole 3180 us and zero 318 us, then a pole at 75 us.
    const lines = `${OPAMP}G1 1V in 0
      R1 90k in a
      R2 10k a b
      C1 31.8n b 0
      U1 plus=a minus=c out=c vplus=vp vminus=vm AOL=1e9 GBW=1e12
      R3 7k5 c out
      C2 10n out 0`;
    for (const frequencyHz of [20, 50, 100, 300, 500, 2000, 5000, 10_000, 20_000]) {
      const error = valueOfReadout(lines, {
        kind: 'curveError',
        from: 'in',
        to: 'out',
        curve: 'disc-replay',
        frequencyHz,
      });
      expect(Math.abs(error)).toBeLessThan(0.05);
    }
  });
});

describe('answers', () => {
  it('never throws: what cannot be read is a sentence', () => {
    const cases: Unnamed[] = [
      { kind: 'voltage', net: 'nowhere' },
      { kind: 'voltage' },
      { kind: 'gain', from: 'a', to: 'b', frequencyHz: -1 },
      { kind: 'current', part: 'R99' },
      { kind: 'inputImpedance', source: 'R1', frequencyHz: 100 },
      { kind: 'curveError', from: 'a', to: 'b', curve: 'unheard-of' as never, frequencyHz: 100 },
    ];
    for (const readout of cases) {
      const answer = read('V1 9V a 0\nR1 1k a b\nR2 1k b 0', readout);
      expect(answer.ok).toBe(false);
      expect(!answer.ok && answer.problem.message).toMatch(/\.$/);
    }
  });

  it('has on each layer the values that hold there: what is planned is not proven', () => {
    const circuit = circuitOf('V1 10V vcc 0\nR1 1k vcc a\nR2 1k a 0');
    const document: UnitDocument = {
      unit: {},
      circuit: {
        ...circuit,
        parts: circuit.parts.map((p) => (p.ref === 'R2' ? { ...p, found: 3000 } : p)),
        changes: [fitChange('c', new Map([['R2', 1500]]))],
      },
      readouts: [{ id: 'a', name: 'a', kind: 'voltage', net: 'a' }],
    };
    const [row] = readoutTable(document);
    const value = (layer: 'marked' | 'found' | 'planned' | 'proven') => {
      const answer = row!.answers[layer];
      return answer.ok ? answer.value : Number.NaN;
    };
    expect([value('marked'), value('found'), value('planned'), value('proven')]).toEqual([
      expect.closeTo(5, 9),
      expect.closeTo(7.5, 9),
      expect.closeTo(6, 9),
      expect.closeTo(7.5, 9),
    ]);
  });

  it('knows a wanted range with either end open', () => {
    expect(wantedRange({ target: 38, within: 1 })).toEqual({ low: 37, high: 39 });
    expect(wantedRange({ max: 20 })).toEqual({ low: Number.NEGATIVE_INFINITY, high: 20 });
    expect(wantedRange({})).toBeUndefined();
    expect(outsideBy(41, { target: 38, within: 1 })).toBeCloseTo(2);
    expect(outsideBy(36, { min: 38 })).toBeCloseTo(-2);
    expect(outsideBy(1, undefined)).toBe(0);
  });
});
