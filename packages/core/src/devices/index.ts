export { bjtLaw, bjtParameters, bjtSign, type BjtCurrents, type BjtParameters } from './bjt.ts';
export * from './constants.ts';
export { deadPart } from './dead.ts';
export type {
  Device,
  DeviceReport,
  DeviceType,
  Evaluation,
  Excitation,
  Matrices,
  NoiseSource,
  Terminals,
} from './device.ts';
export { diodeParameters, type DiodeParameters } from './diode.ts';
export { opampParameters, type OpampParameters } from './opamp.ts';
export { jfetParameters, mosfetParameters, squareLaw } from './fet.ts';
export { triodeLaw, valveParameters, type ValveParameters } from './valve.ts';
export { timerParameters } from './timer555.ts';
export { capsuleParameters } from './capsule.ts';
export { taperFraction } from './potentiometer.ts';
export { DEVICES } from './registry.ts';
export { waveformOf, WAVEFORMS, type Waveform } from './waveform.ts';
