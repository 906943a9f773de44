import { conductance } from './conductance.ts';
import { CONTACT_OHM, OPEN_S } from './constants.ts';
import type { DeviceType } from './device.ts';

/** Switch, jumper or fuse: a milliohm when closed (the default), a teraohm when `closed` is false. */
export const contact: DeviceType = {
  create: (part, _value, t) =>
    conductance(part.ref, t.node('a'), t.node('b'), part['closed'] === false ? OPEN_S : 1 / CONTACT_OHM, t),
};
