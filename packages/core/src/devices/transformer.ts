import { parameter } from '../circuit/index.ts';
import { BOLTZMANN, TEMPERATURE_K } from './constants.ts';
import { add, type DeviceType } from './device.ts';

/** Coupling that stands for 1, so that the two windings keep a solution each. */
const FULL_COUPLING = 0.99999;
const USUAL_PRIMARY_H = 1e3;
const LEAST_WIRE_OHM = 1e-9;

/**
 * Two coupled coils: the main value is the turns ratio Np/Ns, `lp` the primary's inductance, `coupling` k; wire
 * resistances `rp` and `rs`. v = L di/dt + M di'/dt in each, M = k sqrt(Lp Ls).
 */
export const transformer: DeviceType = {
  create(part, value, t) {
    const windings = [
      { from: t.node('p1'), to: t.node('p2'), branch: t.unknown('primary current') },
      { from: t.node('s1'), to: t.node('s2'), branch: t.unknown('secondary current') },
    ] as const;
    const lp = parameter(part, 'lp') ?? USUAL_PRIMARY_H;
    const k = Math.min(parameter(part, 'coupling') ?? 1, FULL_COUPLING);
    const wire = [parameter(part, 'rp') ?? 0, parameter(part, 'rs') ?? 0].map((r) =>
      Math.max(r, LEAST_WIRE_OHM),
    );
    const slots = windings.map(({ from, to, branch }, i) => ({
      intoFrom: t.slot(from, branch),
      intoTo: t.slot(to, branch),
      byFrom: t.slot(branch, from),
      byTo: t.slot(branch, to),
      self: t.slot(branch, branch),
      mutual: t.slot(branch, windings[1 - i]!.branch),
    }));
    let ratio = value ?? 1;
    return {
      ref: part.ref,
      stamp(m) {
        const inductance = [lp, lp / (ratio * ratio)];
        const mutual = k * Math.sqrt(inductance[0]! * inductance[1]!);
        slots.forEach((s, i) => {
          add(m.g, s.intoFrom, 1);
          add(m.g, s.intoTo, -1);
          add(m.g, s.byFrom, 1);
          add(m.g, s.byTo, -1);
          add(m.g, s.self, -wire[i]!);
          add(m.c, s.self, -inductance[i]!);
          add(m.c, s.mutual, -mutual);
        });
      },
      retune(next) {
        ratio = next;
      },
      report(x) {
        const currents = windings.map((w) => x[w.branch]!);
        return { current: currents[0]!, power: currents.reduce((sum, i, n) => sum + i * i * wire[n]!, 0) };
      },
      noise: () =>
        windings.map((w, i) => ({
          from: 0,
          to: w.branch,
          white: 4 * BOLTZMANN * TEMPERATURE_K * wire[i]!,
          flicker: 0,
        })),
    };
  },
};
