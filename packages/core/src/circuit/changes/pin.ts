import type { LayerCircuit } from '../circuit/index.ts';
import { findPin, type FoundPin } from '../pinout/index.ts';

/** A pin as it is written, "C7.a", "U1.3": its part, its name and the net that it is on now. */
export const readPin = (circuit: Pick<LayerCircuit, 'parts'>, text: string): FoundPin =>
  findPin(circuit.parts, text);
