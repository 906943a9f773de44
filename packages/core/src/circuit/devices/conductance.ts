import { thermalNoise } from './constants.ts';
import { addPair, pairSlots, type Device, type Terminals } from './device.ts';

/** A plain conductance between two unknowns: what resistors, contacts and dead parts are made of. */
export function conductance(
  ref: string,
  a: number,
  b: number,
  siemens: number,
  t: Terminals,
): Device & { siemens: number } {
  const slots = pairSlots(t, a, b);
  return {
    ref,
    siemens,
    stamp(m) {
      addPair(m.g, slots, this.siemens);
    },
    retune(ohm) {
      this.siemens = 1 / ohm;
    },
    report(x) {
      const volt = x[a]! - x[b]!;
      return { current: volt * this.siemens, power: volt * volt * this.siemens };
    },
    noise() {
      return [{ from: a, to: b, white: thermalNoise(this.siemens), flicker: 0 }];
    },
  };
}
