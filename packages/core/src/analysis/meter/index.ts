export { meterReading, through, type MeterAnswer } from './instrument.ts';
export { METER_MODES, Probe, type MeterMode, type MeterOptions } from './probe.ts';
export { shownVolts, Voltmeter, withLeaks } from './voltmeter.ts';
export {
  CHANGE_KINDS,
  unknownFromChange,
  type ChangeKind,
  type KnownChange,
  type ValueFromChange,
} from './from-change.ts';
