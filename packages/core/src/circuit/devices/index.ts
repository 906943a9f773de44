export { bjtLaw, bjtParameters, type BjtCurrents, type BjtParameters } from './bjt.ts';
export * from './constants.ts';
export { USUAL_PULL_IN_V } from './contact.ts';
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
export { opampParameters, supplyShare, type OpampParameters } from './opamp.ts';
export { jfetParameters, mosfetParameters, squareLaw } from './fet.ts';
export { triodeLaw, type ValveParameters } from './valve.ts';
export { taperFraction } from './potentiometer.ts';
export { createDevice, type ModelledKind } from './registry.ts';
export { USUAL_FREQUENCY_HZ, USUAL_SAMPLE_RATE_HZ, waveformOf, type Waveform } from './waveform.ts';
