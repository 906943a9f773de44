import { thermalNoise } from './constants.ts';
import { addPair, pairSlots, type DeviceType } from './device.ts';

/** An ideal capacitance behind its `esr`, with its `leakage` resistance across the whole. */
export const capacitor: DeviceType<'capacitor'> = {
  create(part, value, t) {
    const [a, b] = [t.node('a'), t.node('b')];
    const esr = part.esr ?? 0;
    const leakageS = 1 / (part.leakage ?? Number.POSITIVE_INFINITY);
    const inner = esr > 0 ? t.unknown('esr') : b;
    const plates = pairSlots(t, a, inner);
    const resistance = esr > 0 ? pairSlots(t, inner, b) : undefined;
    const leak = leakageS > 0 ? pairSlots(t, a, b) : undefined;
    let farad = value ?? 0;
    return {
      ref: part.ref,
      stamp(m) {
        addPair(m.c, plates, farad);
        if (resistance) addPair(m.g, resistance, 1 / esr);
        if (leak) addPair(m.g, leak, leakageS);
      },
      retune(next) {
        farad = next;
      },
      report(x) {
        const volt = x[a]! - x[b]!;
        const through = esr > 0 ? (x[inner]! - x[b]!) / esr : 0;
        return {
          current: volt * leakageS + through,
          power: volt * volt * leakageS + through * through * esr,
        };
      },
      noise: () => [
        ...(esr > 0 ? [{ from: inner, to: b, white: thermalNoise(1 / esr), flicker: 0 }] : []),
        ...(leak ? [{ from: a, to: b, white: thermalNoise(leakageS), flicker: 0 }] : []),
      ],
    };
  },
};
