import { naturalFrequencies } from '../analysis/index.ts';
import { undefinedBecause, type ReadoutType } from './readout-type.ts';

/**
 * Damping of the least damped natural frequency about the operating point, -Re p / |p|: 1 does not ring at all, 0.7 is
 * flat to its corner, 0 swings on for ever, and below 0 it grows: it oscillates.
 */
export const stability: ReadoutType<'stability'> = {
  describe: () => 'damping of the least damped natural frequency; below 0 it oscillates',
  compute(session, r) {
    const { poles } = naturalFrequencies(session);
    if (poles.length === 0) throw undefinedBecause(r, 'nothing in the circuit stores charge');
    return Math.min(...poles.map((p) => -p.re / Math.hypot(p.re, p.im)));
  },
};
