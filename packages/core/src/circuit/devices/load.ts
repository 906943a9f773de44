import { conductance } from './conductance.ts';
import { thermalNoise } from './constants.ts';
import { add, addPair, pairSlots, type DeviceType } from './device.ts';

/** Resistance taken for a speaker or headphone of which nothing is known, ohm (common practice). */
const USUAL_OHM = 8;

/**
 * A load: plain resistance, or with `re`, `le`, `fs`, `qms`, `qes` a loudspeaker in its small-signal equivalent
 * (Thiele 1971, Small 1972): voice coil re and le in series with the motional resistance re qms/qes, capacitance
 * qes/(2 pi fs re) and inductance re/(2 pi fs qes) in parallel.
 */
export const load: DeviceType<'load' | 'speaker' | 'headphone'> = {
  create(part, value, t) {
    const re = part.re;
    const fs = part.fs;
    const [a, b] = [t.node('a'), t.node('b')];
    if (re === undefined) return conductance(part.ref, a, b, 1 / (value ?? USUAL_OHM), t);
    const le = part.le ?? 0;
    const coilEnd = fs === undefined && le === 0 ? b : t.unknown('voice coil');
    const cone = fs === undefined ? b : le > 0 ? t.unknown('cone') : coilEnd;
    const coil = pairSlots(t, a, coilEnd);
    const leBranch = le > 0 ? inductance(coilEnd, cone) : undefined;
    const motion = fs === undefined ? undefined : motional(re, fs, part.qms ?? 5, part.qes ?? 0.5);
    const conePair = pairSlots(t, cone, b);
    const coneBranch = motion ? inductance(cone, b) : undefined;
    return {
      ref: part.ref,
      stamp(m) {
        addPair(m.g, coil, 1 / re);
        leBranch?.(m.g, m.c, le);
        if (!motion) return;
        addPair(m.g, conePair, 1 / motion.ohm);
        addPair(m.c, conePair, motion.farad);
        coneBranch?.(m.g, m.c, motion.henry);
      },
      report(x) {
        const current = (x[a]! - x[coilEnd]!) / re;
        return { current, power: current * current * re };
      },
      noise: () => [{ from: a, to: coilEnd, white: thermalNoise(1 / re), flicker: 0 }],
    };

    function inductance(from: number, to: number) {
      const branch = t.unknown('coil current');
      const places = [
        t.slot(from, branch),
        t.slot(to, branch),
        t.slot(branch, from),
        t.slot(branch, to),
      ] as const;
      const self = t.slot(branch, branch);
      return (g: Float64Array, c: Float64Array, henry: number) => {
        places.forEach((place, i) => add(g, place, i % 2 === 0 ? 1 : -1));
        add(c, self, -henry);
      };
    }
  },
};

function motional(re: number, fs: number, qms: number, qes: number) {
  const omega = 2 * Math.PI * fs;
  return { ohm: (re * qms) / qes, farad: qes / (omega * re), henry: re / (omega * qes) };
}
