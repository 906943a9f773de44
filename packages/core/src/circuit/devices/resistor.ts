import { conductance } from './conductance.ts';
import type { DeviceType } from './device.ts';

/** Ohm's law; thermal noise 4kT/R. */
export const resistor: DeviceType<'resistor'> = {
  create: (part, value, t) => conductance(part.ref, t.node('a'), t.node('b'), 1 / (value ?? 1), t),
};
