import { KINDS, type LayerPart } from '../circuit/index.ts';
import { conductance } from './conductance.ts';
import { CONTACT_OHM, OPEN_S } from './constants.ts';
import type { Device, Terminals } from './device.ts';

/** A part that is open or shorted: its pins, one after the other, joined by a teraohm or a milliohm. */
export function deadPart(part: LayerPart, state: 'open' | 'short', t: Terminals): Device {
  const pins = KINDS[part.kind].pins.map((pin) => t.optionalNode(pin)).filter((n) => n !== undefined);
  const siemens = state === 'open' ? OPEN_S : 1 / CONTACT_OHM;
  const joints = pins.slice(1).map((pin, i) => conductance(part.ref, pins[i]!, pin, siemens, t));
  return {
    ref: part.ref,
    stamp: (m) => joints.forEach((j) => j.stamp?.(m)),
    report(x) {
      const reports = joints.map((j) => j.report(x));
      return {
        current: reports[0]?.current ?? 0,
        power: reports.reduce((sum, r) => sum + r.power, 0),
        region: state === 'open' ? 'open' : 'shorted',
      };
    },
    noise: (x) => joints.flatMap((j) => j.noise?.(x) ?? []),
  };
}
