import { describe, expect, it } from 'vitest';
import { circuitOf } from '../../testing/circuits.ts';
import { expectedVoltage, toneHzOf } from './expected.ts';
import { preparePath, readEvidence } from './index.ts';

const circuit = circuitOf('V1 10V vcc 0\nR1 10k vcc a\nR2 10k a 0\nG1 sine 2V 1kHz in 0\nC1 100u in a');
const path = preparePath(
  {
    blocks: [{ id: 'one' }, { id: 'two' }],
    links: [{ from: 'one', to: 'two', carries: 'audio' }],
    testPoints: [{ id: 'TP1', link: ['one', 'two'], net: 'a' }],
  },
  circuit,
);
const point = path.pointNamed('TP1')!;

describe('a net of high resistance', () => {
  it('is expected as the meter shows it: 250 V over two of 10M read 83.3 V, and nothing is wrong', () => {
    const high = circuitOf('V1 250V ht 0\nR1 10M ht grid\nR2 10M grid 0');
    const data = {
      blocks: [{ id: 'b', parts: ['R1', 'R2'] }],
      links: [],
      testPoints: [{ id: 'TP', net: 'grid' }],
    };
    const at = preparePath(data, high);
    const seen = (value: number) =>
      readEvidence(at, [{ at: 'TP', saw: { value, unit: 'V' } }], { expected: expectedVoltage(high) })
        .observations[0]!.seen;
    expect(seen((250 * 5) / 15)).toBe('good');
    expect(seen(125)).toBe('bad');
  });
});

describe('what is expected at a net', () => {
  const expected = expectedVoltage(circuit);

  it('is the direct voltage, the level of the tone, or a little ripple, by the unit', () => {
    // Half of 10 V; the coupling capacitor passes 2 V peak, 1.41 V rms; a tenth of the direct voltage.
    // The meter's 10 Mohm across the divider's 5 kohm takes 0.05 % (voltage divider, textbook).
    const metered = 5 / (1 + 5e3 / 10e6);
    expect(expected(point, 'V')).toEqual({
      low: expect.closeTo(0.85 * metered, 6),
      high: expect.closeTo(1.15 * metered, 6),
    });
    expect(expected(point, 'Vrms')!.low).toBeCloseTo(1, 3);
    expect(expected(point, 'Vrms')!.high).toBeCloseTo(2, 3);
    expect(expected(point, 'Vpp')).toEqual({ low: 0, high: expect.closeTo(0.5, 6) });
    expect(expected(point, 'mV')).toBeUndefined();
    expect(toneHzOf(circuit)).toBe(1000);
    expect(toneHzOf({ ...circuit, parts: [] })).toBeNull();
  });

  it('decides what a number of the evidence says', () => {
    const seen = (value: number, unit: string) => {
      const { observations, ignored } = readEvidence(path, [{ at: 'TP1', saw: { value, unit } }], {
        expected,
      });
      return observations[0]?.seen ?? ignored[0]!.reason;
    };
    expect(seen(5, 'V')).toBe('good');
    expect(seen(5000, 'mV')).toBe('good');
    expect(seen(0.005, 'kV')).toBe('good');
    expect(seen(5, 'mV')).toBe('none');
    expect(seen(1.4, 'Vrms')).toBe('good');
    expect(seen(0.4, 'Vrms')).toBe('bad');
    expect(seen(0.001, 'Vrms')).toBe('none');
    expect(seen(2, 'Vpp')).toBe('bad');
    expect(seen(1.4, 'furlong')).toContain('nothing is known');
  });
});
