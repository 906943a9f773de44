import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { LayerPartOf } from '../../circuit/circuit/index.ts';
import { dividing, edgesOf, fastestSource } from './time-steps.ts';

type Signal = LayerPartOf<'signal'>;
const source = (waveform: Signal['waveform'], more: Partial<Signal> = {}): Signal => ({
  ref: 'G1',
  kind: 'signal',
  pins: { plus: 'a', minus: '0' },
  value: 1,
  waveform,
  ...more,
});

describe('edges of a source', () => {
  it('are those of its waveform: half periods of a square, peaks of a triangle, corners of a pulse', () => {
    expect(edgesOf(source('square', { frequency: 1000 }), 2.2e-3)).toEqual([0.5e-3, 1e-3, 1.5e-3, 2e-3]);
    expect(edgesOf(source('triangle', { frequency: 1000 }), 1.1e-3)).toEqual([0.25e-3, 0.75e-3]);
    const pulse = source('pulse', { delay: 1e-3, rise: 1e-4, width: 5e-4, fall: 1e-4 });
    expect(edgesOf(pulse, 1).map((t) => Number(t.toPrecision(9)))).toEqual([1e-3, 1.1e-3, 1.6e-3, 1.7e-3]);
    expect(edgesOf(source('sine'), 1)).toEqual([]);
  });

  it('come again with a period, and none lies outside the run', () => {
    const edges = edgesOf(source('pulse', { rise: 1e-5, width: 1e-4, fall: 1e-5, periodS: 1e-3 }), 10e-3);
    expect(edges.length).toBeGreaterThan(30);
    expect(edges.every((t) => t > 0 && t < 10e-3)).toBe(true);
  });
});

describe('the fastest source', () => {
  it('is the highest frequency that sounds, and a sample of sampled audio is not passed over', () => {
    const parts = [source('sine', { frequency: 440 }), source('square', { frequency: 2000, value: 0 })];
    expect(fastestSource(parts)).toBe(440);
    expect(fastestSource([])).toBe(0);
    expect(fastestSource([source('sampled', { sampleRateHz: 48_000 })])).toBe(1200);
  });
});

describe('steps between two output times', () => {
  it('are the spacing halved, not above the wanted one, and go into what is left', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-3, max: 3, noNaN: true }),
        fc.integer({ min: 0, max: 6 }),
        (wanted, k) => {
          const left = 1 - Math.floor(2 ** k / 3) / 2 ** k;
          const step = dividing(1, left, wanted);
          expect(step).toBeLessThanOrEqual(Math.max(wanted, 0) * (1 + 1e-6));
          expect(Number.isInteger(Math.log2(1 / step))).toBe(true);
          expect(Math.abs(left / step - Math.round(left / step))).toBeLessThan(1e-5);
        },
      ),
    );
  });

  it('are the wanted one where an edge has put them out of order', () => {
    expect(dividing(1, Math.PI / 10, 0.1)).toBe(0.1);
    expect(dividing(1, 0.05 * Math.SQRT1_2, 0.1)).toBe(0.05 * Math.SQRT1_2);
  });
});
