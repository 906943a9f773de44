import { BOLTZMANN, TEMPERATURE_K } from './constants.ts';
import { add, type DeviceType } from './device.ts';

const USUAL_PRIMARY_H = 1e3;
const LEAST_WIRE_OHM = 1e-9;

/**
 * Two windings. With a coupling of 1 both share one flux, exactly: what stands across the primary beyond its wire is
 * d/dt of lp (ip + is/n), and the secondary has 1/n of it. Below 1 they are two coupled coils: the main value is the turns ratio Np/Ns, `lp` the primary's inductance, `coupling` k; wire
 * resistances `rp` and `rs`. v = L di/dt + M di'/dt in each, M = k sqrt(Lp Ls).
 */
export const transformer: DeviceType<'transformer'> = {
  create(part, value, t) {
    const windings = [
      { from: t.node('p1'), to: t.node('p2'), branch: t.unknown('primary current') },
      { from: t.node('s1'), to: t.node('s2'), branch: t.unknown('secondary current') },
    ] as const;
    const lp = part.lp ?? USUAL_PRIMARY_H;
    const k = Math.min(part.coupling ?? 1, 1);
    const isExact = k === 1;
    const wire = [part.rp ?? 0, part.rs ?? 0].map((r) => Math.max(r, LEAST_WIRE_OHM));
    const slots = windings.map(({ from, to, branch }, i) => ({
      intoFrom: t.slot(from, branch),
      intoTo: t.slot(to, branch),
      byFrom: t.slot(branch, from),
      byTo: t.slot(branch, to),
      self: t.slot(branch, branch),
      mutual: t.slot(branch, windings[1 - i]!.branch),
    }));
    const [primary, secondary] = slots as [(typeof slots)[number], (typeof slots)[number]];
    // The secondary's equation, with one flux: its own voltage times n is the primary's.
    const shared = isExact
      ? {
          byPrimaryFrom: t.slot(windings[1].branch, windings[0].from),
          byPrimaryTo: t.slot(windings[1].branch, windings[0].to),
        }
      : undefined;
    let ratio = value ?? 1;
    return {
      ref: part.ref,
      stamp(m) {
        for (const winding of slots) {
          add(m.g, winding.intoFrom, 1);
          add(m.g, winding.intoTo, -1);
        }
        const inductance = [lp, lp / (ratio * ratio)] as const;
        const mutual = k * Math.sqrt(inductance[0] * inductance[1]);
        add(m.g, primary.byFrom, 1);
        add(m.g, primary.byTo, -1);
        add(m.g, primary.self, -wire[0]!);
        add(m.c, primary.self, -inductance[0]);
        add(m.c, primary.mutual, -mutual * Math.sign(ratio));
        if (shared) {
          add(m.g, shared.byPrimaryFrom, -1);
          add(m.g, shared.byPrimaryTo, 1);
          add(m.g, secondary.mutual, wire[0]!);
          add(m.g, secondary.byFrom, ratio);
          add(m.g, secondary.byTo, -ratio);
          add(m.g, secondary.self, -ratio * wire[1]!);
          return;
        }
        add(m.g, secondary.byFrom, 1);
        add(m.g, secondary.byTo, -1);
        add(m.g, secondary.self, -wire[1]!);
        add(m.c, secondary.self, -inductance[1]);
        add(m.c, secondary.mutual, -mutual * Math.sign(ratio));
      },
      retune(next) {
        ratio = next;
      },
      report(x) {
        const currents = windings.map((w) => x[w.branch]!);
        return { current: currents[0]!, power: currents.reduce((sum, i, n) => sum + i * i * wire[n]!, 0) };
      },
      // A wire's noise voltage stands in its winding's equation, 4kTR in V^2/Hz; with one flux the primary's is in both.
      noise: () => [
        {
          from: isExact ? windings[1].branch : 0,
          to: windings[0].branch,
          white: 4 * BOLTZMANN * TEMPERATURE_K * wire[0]!,
          flicker: 0,
        },
        {
          from: 0,
          to: windings[1].branch,
          white: 4 * BOLTZMANN * TEMPERATURE_K * wire[1]! * (isExact ? ratio * ratio : 1),
          flicker: 0,
        },
      ],
    };
  },
};
