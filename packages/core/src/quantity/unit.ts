/** Units as they stand in files and answers; screens show `ohm` as Ω. */
export const UNITS = ['ohm', 'F', 'H', 'V', 'A', 'W', 'Hz', 's', 'dB', 'ratio', 'm', 'semitones'] as const;
export type Unit = (typeof UNITS)[number] | '';

export const OHM_SIGN = '\u03a9';

/** What a screen prints for a unit. */
export const unitSign = (unit: string): string => (unit === 'ohm' ? OHM_SIGN : unit === 'ratio' ? '' : unit);

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
  number: '',
} as const satisfies Record<string, Unit>;
export type QuantityKind = keyof typeof QUANTITY_KINDS;

const SPELLINGS: readonly (readonly [RegExp, QuantityKind])[] = [
  [/^(?:\u03a9|\u2126|ohms?|r)$/i, 'resistor'],
  [/^(?:f|farads?)$/i, 'capacitor'],
  [/^(?:h|henrys?|henries)$/i, 'inductor'],
  [/^(?:v|volts?)$/i, 'voltage'],
  [/^(?:a|amps?|amperes?)$/i, 'current'],
  [/^(?:w|watts?)$/i, 'power'],
  [/^(?:hz|hertz)$/i, 'frequency'],
  [/^(?:s|sec|seconds?)$/i, 'time'],
  [/^db$/i, 'level'],
];

/** The kind that a unit as typed belongs to, or undefined. */
export function kindOfUnit(text: string): QuantityKind | undefined {
  return SPELLINGS.find(([pattern]) => pattern.test(text))?.[1];
}
