export {
  METER_MODES,
  meterReading,
  Probe,
  type MeterAnswer,
  type MeterMode,
  type MeterOptions,
} from './instrument.ts';
export {
  CHANGE_KINDS,
  unknownFromChange,
  type ChangeKind,
  type KnownChange,
  type ValueFromChange,
} from './from-change.ts';
