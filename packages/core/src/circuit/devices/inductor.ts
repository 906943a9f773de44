import { BOLTZMANN, TEMPERATURE_K } from './constants.ts';
import { add, type DeviceType } from './device.ts';

/** Wire that no coil is without, ohm: it settles how two ideal coils in parallel share a direct current. */
const LEAST_WIRE_OHM = 1e-9;

/** Inductance in series with its wire resistance `dcr`; its current is an unknown of its own. */
export const inductor: DeviceType<'inductor'> = {
  create(part, value, t) {
    const [a, b, branch] = [t.node('a'), t.node('b'), t.unknown('current')];
    const dcr = Math.max(part.dcr ?? 0, LEAST_WIRE_OHM);
    const slots = {
      intoA: t.slot(a, branch),
      intoB: t.slot(b, branch),
      fromA: t.slot(branch, a),
      fromB: t.slot(branch, b),
      self: t.slot(branch, branch),
    };
    let henry = value ?? 0;
    return {
      ref: part.ref,
      stamp(m) {
        add(m.g, slots.intoA, 1);
        add(m.g, slots.intoB, -1);
        add(m.g, slots.fromA, 1);
        add(m.g, slots.fromB, -1);
        add(m.g, slots.self, -dcr);
        add(m.c, slots.self, -henry);
      },
      retune(next) {
        henry = next;
      },
      report: (x) => ({ current: x[branch]!, power: x[branch]! ** 2 * dcr }),
      // The wire's noise voltage stands in the branch equation: 4kTR in V^2/Hz.
      noise: () => [{ from: 0, to: branch, white: 4 * BOLTZMANN * TEMPERATURE_K * dcr, flicker: 0 }],
    };
  },
};
