import { naturalFrequencies } from '../analysis/index.ts';
import { HalfsplitError } from '../errors.ts';
import type { ReadoutType } from './readout-type.ts';

/**
 * Damping of the least damped natural frequency about the operating point, -Re p / |p|: 1 does not ring at all, 0.7 is
 * flat to its corner, 0 swings on for ever, and below 0 it grows: it oscillates.
 */
export const stability: ReadoutType = {
  unit: 'ratio',
  quantity: 'number',
  describe: () => 'damping of the least damped natural frequency; below 0 it oscillates',
  compute(model, r) {
    const { poles } = naturalFrequencies(model);
    if (poles.length === 0)
      throw new HalfsplitError('readout/not-defined', {
        where: r.name,
        detail: 'nothing in the circuit stores charge',
      });
    return Math.min(...poles.map((p) => -p.re / Math.hypot(p.re, p.im)));
  },
};
