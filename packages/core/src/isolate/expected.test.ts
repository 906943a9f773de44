import { describe, expect, it } from 'vitest';
import { circuitOf } from '../testing/circuits.ts';
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

describe('what is expected at a net', () => {
  const expected = expectedVoltage(circuit);

  it('is the direct voltage, the level of the tone, or a little ripple, by the unit', () => {
    // Half of 10 V; the coupling capacitor passes 2 V peak, 1.41 V rms; a tenth of the direct voltage.
    expect(expected(point, 'V')).toEqual({ low: expect.closeTo(4.25, 6), high: expect.closeTo(5.75, 6) });
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
