import { add, addPair, pairSlots, type DeviceType } from './device.ts';
import { modelParameters } from '../models/index.ts';
import { USUAL_FREQUENCY_HZ } from './waveform.ts';

/**
 * Microphone capsule: a current sink ID that rises as a saturating channel does (tanh of V/VKNEE), with ROUT across. A
 * unit AC drive is 1 Pa: the current that gives SENS into RLOAD.
 */
export const capsule: DeviceType<'capsule'> = {
  create(part, _value, t) {
    const p = modelParameters<'capsule'>(part, t.models);
    const [out, ground] = [t.node('out'), t.node('gnd')];
    const pair = pairSlots(t, out, ground);
    const sense = t.unknown('sound');
    const slots = {
      sense: t.constantSlot(sense, sense),
      outSense: t.constantSlot(out, sense),
      groundSense: t.constantSlot(ground, sense),
    };
    const loaded = 1 / (1 / p.RLOAD + 1 / p.ROUT);
    const currentPerPascal = p.SENS / loaded;
    const pressure = part.pressurePa ?? 0;
    return {
      ref: part.ref,
      balanced: [out, ground],
      driveRow: sense,
      stamp(m) {
        add(m.g, slots.sense, 1);
        add(m.g, slots.outSense, -currentPerPascal);
        add(m.g, slots.groundSense, currentPerPascal);
        addPair(m.g, pair, 1 / p.ROUT);
      },
      load(x, m) {
        const volt = x[out]! - x[ground]!;
        const bend = Math.tanh(volt / p.VKNEE);
        const current = p.ID * bend;
        add(m.f, out, current);
        add(m.f, ground, -current);
        addPair(m.g, pair, (p.ID * (1 - bend * bend)) / p.VKNEE);
      },
      excite(b, when) {
        if (when.timeS !== null)
          add(
            b,
            sense,
            pressure * Math.sin(2 * Math.PI * (part.frequency ?? USUAL_FREQUENCY_HZ) * when.timeS),
          );
      },
      report(x) {
        const volt = x[out]! - x[ground]!;
        const current = p.ID * Math.tanh(volt / p.VKNEE) + volt / p.ROUT;
        return { current, power: volt * current, region: volt > 2 * p.VKNEE ? 'active' : 'starved' };
      },
      noise: () => [{ from: ground, to: out, white: (p.EN / loaded) ** 2, flicker: 0 }],
    };
  },
};
