/** Units as they stand in files and answers; screens show `ohm` as an omega and `degC` with its sign. */
export const UNITS = [
  'ohm',
  'F',
  'H',
  'V',
  'A',
  'W',
  'Hz',
  's',
  'dB',
  'ratio',
  'm',
  'semitones',
  'octaves',
  'degC',
  'h',
  'Ah',
  'K/W',
] as const;
export type Unit = (typeof UNITS)[number] | '';

/** What a value can be the value of; decides its unit and how unmarked digits are read. */
export const QUANTITY_KINDS = {
  resistor: 'ohm',
  capacitor: 'F',
  inductor: 'H',
  voltage: 'V',
  current: 'A',
  power: 'W',
  frequency: 'Hz',
  time: 's',
  level: 'dB',
  ratio: 'ratio',
  temperature: 'degC',
  hours: 'h',
  charge: 'Ah',
  thermalResistance: 'K/W',
  octaves: 'octaves',
  number: '',
} as const satisfies Record<string, Unit>;
export type QuantityKind = keyof typeof QUANTITY_KINDS;
